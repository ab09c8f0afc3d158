import {
  AlignmentType,
  BorderStyle,
  Document,
  ExternalHyperlink,
  FootnoteReferenceRun,
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
  PageOrientation,
  type ISectionOptions,
  type ITableOptions,
  type IParagraphOptions,
  type IRunOptions,
  type ParagraphChild,
} from "docx";
import { safeLink } from "../../content/address.js";
import { defined } from "../../content/defined.js";
import { directionOf } from "../../content/direction.js";
import { emboldened } from "../../content/make-table.js";
import { usualBullet } from "../../content/marker.js";
import type {
  Align,
  Cell,
  Content,
  Flow,
  Heading,
  List,
  Marks,
  NoteRun,
  Paragraph,
  Picture,
  Run,
  Table,
} from "../../content/model.js";
import { withNotesInline } from "../../content/notes.js";
import type { Notice } from "../../content/notice.js";
import type { NumberForm } from "../../content/number-forms.js";
import { content as words } from "../../messages/en/content.js";
import type { WriteInput, WriteResult } from "../format.js";
import { alignOf, withAlignedHeaders } from "../office/alignment.js";
import { fittedTable, orientationFor, SMALLER_SIZES, type Orientation } from "../office/column-widths.js";
import { pictureLeftOut } from "../office/document.js";
import { docxNumberFormat } from "../office/number-formats.js";
import { PICTURE_ENDINGS, withPictureTypes } from "./picture-types.js";

/** Twentieths of a point, the unit of widths and indents. */
const TWIPS = 20;
/** How far a list level is indented, in twips. */
const INDENT = 500;
/** The face of the document, its headings included. */
const FONT = "Liberation Serif";
/** What stands between a cell's edge and its text, in twips. */
const CELL_EDGE = 40;
/** An empty line, in twips. */
const SPACE = 240;
/** The widest a picture may stand, in pixels. */
const PICTURE_WIDTH = 600;

const ALIGNS: Readonly<Record<Align, (typeof AlignmentType)[keyof typeof AlignmentType]>> = {
  left: AlignmentType.LEFT,
  center: AlignmentType.CENTER,
  right: AlignmentType.RIGHT,
  justify: AlignmentType.BOTH,
};

/** A way to write numbers, as the library calls it: by its name in the standard. */
function levelFormatOf(form: NumberForm | undefined): (typeof LevelFormat)[keyof typeof LevelFormat] {
  const name = docxNumberFormat(form);
  return Object.values(LevelFormat).find((format) => format === name) ?? LevelFormat.DECIMAL;
}

/** A line across the page. */
const LINE = { style: BorderStyle.SINGLE, size: 6, color: "auto", space: 1 };

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
      run: { bold: true, size, color: "auto", font: FONT },
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
        document: { run: { font: FONT, size: 24 }, paragraph: { spacing: { after: 120 } } },
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
        ...SMALLER_SIZES.map((size) => ({
          ...{ id: smallerStyle(size), name: `Table Text ${size}`, basedOn: "Normal" },
          run: { size: 2 * size },
        })),
      ],
      characterStyles: [{ id: "InlineCode", name: "Inline Code", run: { font: "Liberation Mono" } }],
    },
    numbering: { config: writer.numbering },
    footnotes: writer.footnotes,
    sections: [{ ...writer.pages, children }],
  });
  const bytes = new Uint8Array(await (await Packer.toBlob(file)).arrayBuffer());
  return { data: withPictureTypes(bytes, source.content), notices: writer.notices };
}

type Block = DocxParagraph | DocxTable;

class DocxWriter {
  readonly notices: Notice[] = [];
  readonly numbering: INumberingOptions["config"][number][] = [];
  readonly footnotes: Record<string, { children: readonly DocxParagraph[] }> = {};
  /** Whether the block that was made last is a table: what follows it stands a line apart. */
  #isAfterTable = false;
  #isInCell = false;
  #drawings = 0;

  readonly #orientation: Orientation;

  constructor(readonly source: WriteInput) {
    this.#orientation = orientationFor(source.content);
  }

  /** How the pages are turned, where they are not upright. */
  get pages(): Pick<ISectionOptions, "properties"> {
    if (this.#orientation === "portrait") return {};
    return { properties: { page: { size: { orientation: PageOrientation.LANDSCAPE } } } };
  }

  /**
   * The blocks of some flows.
   * @param options what each paragraph has besides its own
   * @param first what the first paragraph has instead, such as the number of an item
   */
  flows(content: Content, options: IParagraphOptions, first = options): Block[] {
    return content.flatMap((flow, index) => this.#flow(flow, options, index === 0 ? first : options));
  }

  #flow(flow: Flow, options: IParagraphOptions, first: IParagraphOptions): Block[] {
    switch (flow.type) {
      case "paragraph":
        return [this.#paragraph(flow.runs, { ...first, ...layout(flow) })];
      case "heading":
        return [
          this.#paragraph(flow.runs, { ...first, ...layout(flow), heading: HEADINGS[flow.level - 1]! }),
        ];
      case "list":
        return this.#list(flow, 0);
      case "table":
        return this.#table(flow, options);
      case "quote":
        return this.flows(flow.flows, { ...options, style: "Quotations" }, { ...first, style: "Quotations" });
      case "code":
        return flow.text.split("\n").map((text, index) =>
          this.#paragraph([{ type: "text", text }], {
            ...(index === 0 ? first : options),
            style: "CodeBlock",
          }),
        );
      case "picture":
        return [this.#paragraph([flow], first)];
      case "divider":
        return [this.#paragraph([], { border: { bottom: LINE } })];
    }
  }

  #paragraph(runs: readonly Run[], options: IParagraphOptions): DocxParagraph {
    const space = this.#isAfterTable ? { spacing: { before: SPACE } } : {};
    this.#isAfterTable = false;
    return new DocxParagraph({
      ...options,
      ...space,
      children: runs.map((run) => this.#run(run, options.bidirectional === true)),
    });
  }

  #run(run: Run, rightToLeft: boolean): ParagraphChild {
    if (run.type === "break") return new TextRun({ break: 1 });
    if (run.type === "picture") return this.#picture(run);
    if (run.type === "note") return this.#note(run);
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
    const link = picture.link && safeLink(picture.link);
    const run = this.#pictureRun(picture);
    return link === undefined ? run : new ExternalHyperlink({ link, children: [run] });
  }

  #pictureRun(picture: Picture): TextRun | ImageRun {
    const data = this.source.picture?.(picture.hash);
    const type = PICTURE_ENDINGS[picture.mediaType];
    if (!data || !type) {
      this.notices.push(pictureLeftOut(picture.alt));
      return new TextRun({ text: picture.alt || words.picture });
    }
    const { width = 300, height = 200, alt } = picture;
    const scale = Math.min(1, PICTURE_WIDTH / width);
    return new ImageRun({
      // The library writes a picture of any type, and knows the names of some.
      type: type as "png",
      data,
      transformation: { width: Math.round(width * scale), height: Math.round(height * scale) },
      // Each drawing has a number of its own (ECMA-376 part 1, 20.4.2.5).
      altText: { id: String(++this.#drawings), name: alt, description: alt, title: "" },
    });
  }

  /** A footnote (ECMA-376 part 1, 17.11). Word processors have no place for notes in notes. */
  #note({ flows }: NoteRun): ParagraphChild {
    const number = Object.keys(this.footnotes).length + 1;
    this.footnotes[number] = { children: [] };
    const blocks = this.#apart(() =>
      this.flows(afterSpace(withNotesInline(flows)), { style: "FootnoteText" }),
    );
    // Its number goes before the first paragraph.
    const children = blocks[0] instanceof DocxParagraph ? blocks : [new DocxParagraph({}), ...blocks];
    this.footnotes[number] = { children: children as DocxParagraph[] };
    return new FootnoteReferenceRun(number);
  }

  /** Makes blocks that stand apart from those being made: in a cell, or a note. */
  #apart(make: () => Block[]): Block[] {
    const isAfterTable = this.#isAfterTable;
    this.#isAfterTable = false;
    const blocks = make();
    this.#isAfterTable = isAfterTable;
    return blocks;
  }

  /** A list has a numbering of its own, so that it begins where it says. */
  #list(list: List, level: number): Block[] {
    const reference = `list-${this.numbering.length + 1}`;
    const at = Math.min(level, 8);
    const indent = { left: INDENT * (at + 1) };
    const { numbers, before = "", after = ".", bullet = usualBullet(at) } = list.marker ?? {};
    this.numbering.push({
      reference,
      levels: [
        {
          level: at,
          // Of the transitional schema (ECMA-376 part 4, 14.11.2), which has no `start`.
          alignment: AlignmentType.LEFT,
          format: list.ordered ? levelFormatOf(numbers) : LevelFormat.BULLET,
          text: list.ordered ? `${before}%${at + 1}${after}` : bullet,
          start: list.start ?? 1,
          style: { paragraph: { indent: { ...indent, hanging: 360 } } },
        },
      ],
    });
    const numbered = { numbering: { reference, level: at } };
    return list.items.flatMap(({ flows }) => {
      const [first] = flows;
      // What has no line to stand a number before gets one.
      const isLess = first === undefined || first.type === "table" || first.type === "divider";
      const blocks: Block[] = isLess ? [this.#paragraph([], numbered)] : [];
      for (const flow of flows) {
        if (flow.type === "list") blocks.push(...this.#list(flow, level + 1));
        else blocks.push(...this.#flow(flow, { indent }, flow === first ? numbered : { indent }));
      }
      return blocks;
    });
  }

  #table(table: Table, { indent }: IParagraphOptions): Block[] {
    const caption = table.caption ? [this.#paragraph(table.caption, { style: "Caption" })] : [];
    // Tables that touch would be one.
    const apart = this.#isAfterTable ? [new DocxParagraph({})] : [];
    const size = table.widths || this.#isInCell ? undefined : fittedTable(table, this.#orientation).size;
    const style = size === undefined ? {} : { style: smallerStyle(size) };
    const rows = withAlignedHeaders(table).rows.map(
      (row, index) =>
        new TableRow({
          ...(index < table.headerRows && { tableHeader: true }),
          children: row.map((cell) => this.#cell(cell, index < table.headerRows, style)),
        }),
    );
    if (rows.length === 0) return caption;
    this.#isAfterTable = true;
    const left = Number(indent?.left ?? 0);
    return [
      ...caption,
      ...apart,
      new DocxTable({
        rows,
        margins: { left: CELL_EDGE, right: CELL_EDGE, marginUnitType: WidthType.DXA },
        ...this.#widths(table),
        ...(left > 0 && { indent: { size: left, type: WidthType.DXA } }),
      }),
    ];
  }

  /** A table in a cell is as wide as the cell. */
  #widths(table: Table): Pick<ITableOptions, "columnWidths" | "width" | "layout"> {
    if (this.#isInCell && !table.widths) return { width: { size: 100, type: WidthType.PERCENTAGE } };
    const { widths } = table.widths ? { widths: table.widths } : fittedTable(table, this.#orientation);
    const columnWidths = widths.map((width) => Math.round(width * TWIPS));
    return {
      columnWidths,
      width: { size: columnWidths.reduce((sum, width) => sum + width, 0), type: WidthType.DXA },
      ...(table.widths && { layout: TableLayoutType.FIXED }),
    };
  }

  #cell(cell: Cell, header: boolean, style: IParagraphOptions): TableCell {
    const align = alignOf(cell);
    const own = { ...style, ...(align && { alignment: ALIGNS[align] }) };
    const isInCell = this.#isInCell;
    this.#isInCell = true;
    const children = this.#apart(() => this.flows(header ? emboldened(cell.flows) : cell.flows, own));
    this.#isInCell = isInCell;
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

/** The id of the style of letters in a table that is too wide for larger ones. */
function smallerStyle(size: number): string {
  return `TableText${size}`;
}

/** A note's flows with the space that parts its number from them. */
function afterSpace(flows: Content): Content {
  const [first, ...rest] = flows;
  if (first?.type !== "paragraph") return flows;
  return [{ ...first, runs: [{ type: "text", text: " " }, ...first.runs] }, ...rest];
}

function layout(flow: Paragraph | Heading): IParagraphOptions {
  const rightToLeft = directionOf(flow) === "rtl";
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
