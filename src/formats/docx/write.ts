import { defined } from "../../content/defined.js";
import { content as words } from "../../messages/en/content.js";
import {
  AlignmentType,
  BorderStyle,
  Document,
  ExternalHyperlink,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Packer,
  Paragraph as DocxParagraph,
  ShadingType,
  Tab,
  Table as DocxTable,
  TableCell,
  TableLayoutType,
  TableRow,
  TextRun,
  WidthType,
  type INumberingOptions,
  type IParagraphOptions,
  type IRunOptions,
  type ParagraphChild,
} from "docx";
import { safeLink } from "../../content/address.js";
import { finish } from "./finish.js";
import { emboldened } from "../../content/make-table.js";
import type { Align, Cell, Content, Flow, List, Marks, Picture, Run, Table } from "../../content/model.js";
import type { Notice } from "../../content/notice.js";
import type { WriteInput, WriteResult } from "../format.js";
import { pictureLeftOut } from "../office/document.js";

/** Twentieths of a point, the unit of widths and indents. */
const TWIPS = 20;
/** How far a list level is indented, in twips. */
const INDENT = 500;
/** The widest a picture may stand, in pixels. */
const PICTURE_WIDTH = 600;

const ALIGNS: Readonly<Record<Align, (typeof AlignmentType)[keyof typeof AlignmentType]>> = {
  left: AlignmentType.LEFT,
  center: AlignmentType.CENTER,
  right: AlignmentType.RIGHT,
  justify: AlignmentType.BOTH,
};

const HEADINGS = [
  HeadingLevel.HEADING_1,
  HeadingLevel.HEADING_2,
  HeadingLevel.HEADING_3,
  HeadingLevel.HEADING_4,
  HeadingLevel.HEADING_5,
  HeadingLevel.HEADING_6,
];

/** Headings bold and in the colour of the text, and smaller from level to level; sizes in half points. */
const headings = Object.fromEntries(
  [48, 36, 28, 24, 22, 20].map((size, index) => [
    `heading${index + 1}`,
    {
      run: { bold: true, size, color: "auto" },
      paragraph: { keepNext: true, spacing: { before: 240, after: 120 } },
    },
  ]),
);

/** Writes content as a docx: real headings, numbering, tables with merged cells, links and pictures. */
export async function writeDocx(source: WriteInput): Promise<WriteResult> {
  const writer = new DocxWriter(source);
  const children = writer.flows(source.content, {});
  const file = new Document({
    ...defined({ title: source.title }),
    creator: "Drawer",
    styles: {
      default: {
        ...headings,
        document: { run: { font: "Liberation Serif", size: 24 }, paragraph: { spacing: { after: 120 } } },
      },
      paragraphStyles: [
        {
          id: "Quotations",
          name: "Quotations",
          basedOn: "Normal",
          paragraph: { indent: { left: 567, right: 567 } },
        },
        {
          id: "CodeBlock",
          name: "Code Block",
          basedOn: "Normal",
          run: { font: "Liberation Mono" },
          paragraph: { spacing: { after: 0 } },
        },
        { id: "Caption", name: "Caption", basedOn: "Normal", paragraph: { keepNext: true } },
      ],
      characterStyles: [{ id: "InlineCode", name: "Inline Code", run: { font: "Liberation Mono" } }],
    },
    numbering: { config: writer.numbering },
    sections: [{ children }],
  });
  const bytes = new Uint8Array(await (await Packer.toBlob(file)).arrayBuffer());
  return { data: finish(bytes), notices: writer.notices };
}

type Block = DocxParagraph | DocxTable;

class DocxWriter {
  readonly notices: Notice[] = [];
  readonly numbering: INumberingOptions["config"][number][] = [];

  constructor(readonly source: WriteInput) {}

  /** The blocks of some flows, each paragraph with these options besides its own. */
  flows(content: Content, options: IParagraphOptions): Block[] {
    return content.flatMap((flow) => this.#flow(flow, options));
  }

  #flow(flow: Flow, options: IParagraphOptions): Block[] {
    switch (flow.type) {
      case "paragraph":
        return [this.#paragraph(flow.runs, { ...options, ...layout(flow) })];
      case "heading":
        return [
          this.#paragraph(flow.runs, { ...options, ...layout(flow), heading: HEADINGS[flow.level - 1]! }),
        ];
      case "list":
        return this.#list(flow, 0);
      case "table":
        return this.#table(flow);
      case "quote":
        return this.flows(flow.flows, { style: "Quotations" });
      case "code":
        return flow.text
          .split("\n")
          .map((line) => this.#paragraph([{ type: "text", text: line }], { style: "CodeBlock" }));
      case "picture":
        return [this.#paragraph([flow], options)];
      case "divider":
        return [
          new DocxParagraph({
            border: { bottom: { style: BorderStyle.SINGLE, size: 6, color: "auto", space: 1 } },
          }),
        ];
    }
  }

  #paragraph(runs: readonly Run[], options: IParagraphOptions): DocxParagraph {
    return new DocxParagraph({
      ...options,
      children: runs.map((run) => this.#run(run, options.bidirectional === true)),
    });
  }

  #run(run: Run, rightToLeft: boolean): ParagraphChild {
    if (run.type === "break") return new TextRun({ break: 1 });
    if (run.type === "picture") return this.#picture(run);
    const { link: given, ...marks } = run.marks ?? {};
    const link = given && safeLink(given);
    const text = (style: IRunOptions) =>
      new TextRun({
        ...style,
        ...look(marks),
        ...(rightToLeft && { rightToLeft }),
        children: parts(run.text),
      });
    return link === undefined
      ? text({})
      : new ExternalHyperlink({ link, children: [text({ style: "Hyperlink" })] });
  }

  #picture(picture: Picture): ParagraphChild {
    const data = this.source.picture?.(picture.hash);
    const type = ({ "image/png": "png", "image/jpeg": "jpg", "image/gif": "gif" } as const)[
      picture.mediaType as "image/png"
    ];
    if (!data || !type) {
      this.notices.push(pictureLeftOut(picture.alt));
      return new TextRun({ text: picture.alt || words.picture });
    }
    const { width = 300, height = 200, alt } = picture;
    const scale = Math.min(1, PICTURE_WIDTH / width);
    return new ImageRun({
      type,
      data,
      transformation: { width: Math.round(width * scale), height: Math.round(height * scale) },
      altText: { name: alt, description: alt, title: "" },
    });
  }

  /** A list has a numbering of its own, so that it begins where it says. */
  #list(list: List, level: number): Block[] {
    const reference = `list-${this.numbering.length + 1}`;
    const at = Math.min(level, 8);
    this.numbering.push({
      reference,
      levels: [
        {
          level: at,
          format: list.ordered ? LevelFormat.DECIMAL : LevelFormat.BULLET,
          text: list.ordered ? `%${at + 1}.` : ["•", "◦", "▪"][at % 3]!,
          start: list.start ?? 1,
          style: { paragraph: { indent: { left: INDENT * (at + 1), hanging: 360 } } },
        },
      ],
    });
    return list.items.flatMap((item) => {
      const [first, ...rest] = item.flows;
      const starts = first?.type === "paragraph";
      const numbered = starts ? first.runs : [];
      const blocks: Block[] = [];
      if (starts || first?.type !== "list") {
        blocks.push(
          this.#paragraph(numbered, { ...(starts && layout(first)), numbering: { reference, level: at } }),
        );
      }
      for (const flow of starts ? rest : item.flows) {
        if (flow.type === "list") blocks.push(...this.#list(flow, level + 1));
        else blocks.push(...this.#flow(flow, { indent: { left: INDENT * (at + 1) } }));
      }
      return blocks;
    });
  }

  #table(table: Table): Block[] {
    const rows = table.rows.map(
      (row, index) =>
        new TableRow({
          ...(index < table.headerRows && { tableHeader: true }),
          children: row.map((cell) => this.#cell(cell, index < table.headerRows)),
        }),
    );
    const caption = table.caption ? [this.#paragraph(table.caption, { style: "Caption" })] : [];
    if (rows.length === 0) return caption;
    const columnWidths = table.widths?.map((width) => Math.round(width * TWIPS));
    const size = columnWidths
      ? {
          columnWidths,
          layout: TableLayoutType.FIXED,
          width: { size: columnWidths.reduce((sum, width) => sum + width, 0), type: WidthType.DXA },
        }
      : { width: { size: 100, type: WidthType.PERCENTAGE } };
    return [...caption, new DocxTable({ rows, ...size })];
  }

  #cell(cell: Cell, header: boolean): TableCell {
    const own = cell.align ? { alignment: ALIGNS[cell.align] } : {};
    const children = this.flows(header ? emboldened(cell.flows) : cell.flows, own);
    return new TableCell({
      ...(cell.colspan && { columnSpan: cell.colspan }),
      ...(cell.rowspan && { rowSpan: cell.rowspan }),
      ...(cell.background && {
        shading: { type: ShadingType.CLEAR, color: "auto", fill: cell.background.slice(1) },
      }),
      children: children.at(-1) instanceof DocxParagraph ? children : [...children, new DocxParagraph({})],
    });
  }
}

function layout(flow: { align?: Align; direction?: "ltr" | "rtl" }): IParagraphOptions {
  const rightToLeft = flow.direction === "rtl";
  // In a paragraph from right to left, left and right change sides (ECMA-376 part 1, 17.3.1.13).
  const align =
    rightToLeft && flow.align === "left"
      ? "right"
      : rightToLeft && flow.align === "right"
        ? "left"
        : flow.align;
  return { ...(align && { alignment: ALIGNS[align] }), ...(rightToLeft && { bidirectional: true }) };
}

function look(marks: Omit<Marks, "link">): IRunOptions {
  return {
    ...(marks.bold && { bold: true }),
    ...(marks.italic && { italics: true }),
    ...(marks.underline && { underline: {} }),
    ...(marks.strike && { strike: true }),
    ...(marks.sub && { subScript: true }),
    ...(marks.sup && { superScript: true }),
    ...(marks.color && { color: marks.color.slice(1) }),
    ...(marks.background && {
      shading: { type: ShadingType.CLEAR, color: "auto", fill: marks.background.slice(1) },
    }),
    ...(marks.font && { font: marks.font }),
    ...(marks.size && { size: Math.round(marks.size * 2) }),
    ...(marks.code && { style: "InlineCode" }),
  };
}

/** Text with its tabs as the elements that a word processor wants them to be. */
function parts(text: string): (string | Tab)[] {
  return text.split("\t").flatMap((part, index) => (index === 0 ? [part] : [new Tab(), part]));
}
