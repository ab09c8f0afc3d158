import { safeLink } from "../../content/address.js";
import { directionOf } from "../../content/direction.js";
import { markText } from "../../content/marker.js";
import type { Align, Content, Flow, List, Marks, NoteRun, Picture, Run, Table } from "../../content/model.js";
import { withNotesInline } from "../../content/notes.js";
import type { Notice } from "../../content/notice.js";
import { content as words } from "../../messages/en/content.js";
import { orientationFor, type Orientation } from "../office/column-widths.js";
import { pictureLeftOut } from "../office/document.js";
import type { WriteInput, WriteResult } from "../write-input.js";
import type { Block, Surroundings } from "./block.js";
import { escapeText } from "./escape.js";
import { HANGING, INDENT, MONO, type StyleName, styleWords, WrittenHead } from "./write-head.js";
import { pictureGroup } from "./write-picture.js";
import { type TableHost, tableBlock } from "./write-table.js";

/** A page of A4, upright and turned, in twentieths of a point. */
const PAGES: Readonly<Record<Orientation, string>> = {
  portrait: "\\paperw11906\\paperh16838\\margl1440\\margr1440\\margt1440\\margb1440",
  landscape: "\\paperw16838\\paperh11906\\landscape\\margl1440\\margr1440\\margt1440\\margb1440",
};

const ALIGNS: Readonly<Record<Align, string>> = {
  left: "\\ql",
  center: "\\qc",
  right: "\\qr",
  justify: "\\qj",
};

/**
 * Writes content as Rich Text Format (its specification 1.9.1), in ASCII alone: headings, paragraphs, lists with their numbers, tables with
 * merged cells and with tables in them, links, pictures and notes.
 */
export function writeRtf(source: WriteInput): WriteResult {
  const writer = new RtfWriter(source);
  const blocks = writer.flows(source.content, { style: "normal" });
  const body = blocks.map(({ text, isTable }) => (isTable ? text : `${text}\\par\n`)).join("");
  // A text ends with a paragraph.
  const end = blocks.at(-1)?.isTable === true ? "\\pard\\plain\\par\n" : "";
  const head = writer.head.written(source.title);
  const page = PAGES[writer.orientation];
  return {
    data: `{\\rtf1\\ansi\\ansicpg1252\\uc1\\deff0\n${head}\n${page}\\viewkind1\n${body}${end}}\n`,
    notices: writer.notices,
  };
}

class RtfWriter implements TableHost {
  readonly head = new WrittenHead();
  readonly notices: Notice[] = [];
  readonly orientation: Orientation;
  /** How deep in tables what is written now stands, and how wide the cell is, in twentieths of a point. */
  depth = 0;
  cellWidth = 0;

  constructor(readonly source: WriteInput) {
    this.orientation = orientationFor(source.content);
  }

  /**
   * The blocks of some flows.
   * @param first what the first of them has instead, such as the mark of an item
   */
  flows(content: Content, around: Surroundings, first = around): Block[] {
    return content.flatMap((flow, index) => this.#flow(flow, index === 0 ? first : around));
  }

  #flow(flow: Flow, around: Surroundings): Block[] {
    switch (flow.type) {
      case "paragraph":
        return [
          this.paragraph(flow.runs, { ...around, align: flow.align ?? around.align }, directionOf(flow)),
        ];
      case "heading": {
        const style: StyleName = `heading${flow.level}`;
        const own = { ...around, style, align: flow.align ?? around.align };
        return [this.paragraph(flow.runs, own, directionOf(flow))];
      }
      case "list":
        return this.#list(flow, 0, around);
      case "table":
        return this.#table(flow, around);
      case "quote":
        return this.flows(flow.flows, { ...around, style: "quote" });
      case "code":
        return flow.text
          .split("\n")
          .map((text) => this.paragraph([{ type: "text", text }], { ...around, style: "code" }));
      case "picture":
        return [this.paragraph([flow], around)];
      case "divider":
        return [this.paragraph([], { ...around, style: "rule" })];
    }
  }

  /** A paragraph, up to where it ends. */
  paragraph(runs: readonly Run[], around: Surroundings, direction?: "ltr" | "rtl"): Block {
    const { paragraph, letters } = styleWords(around.style);
    const way = direction === undefined ? "" : `\\${direction}par`;
    // Without a word it would stand on the left.
    const side = around.align ?? (direction === "rtl" ? "right" : undefined);
    const align = side === undefined ? "" : ALIGNS[side];
    const cell = this.depth === 0 ? "" : `\\intbl\\itap${this.depth}`;
    const indent = around.indent === undefined ? "" : `\\li${around.indent}`;
    const layout = `${cell}${paragraph}${way}${align}${around.item ?? ""}${indent}`;
    const start = `\\pard\\plain${layout}${letters}${around.letters ?? ""}`;
    return { text: `${start} ${around.mark ?? ""}${this.runs(runs)}`, isTable: false };
  }

  runs(runs: readonly Run[]): string {
    return runs.map((run) => this.#run(run)).join("");
  }

  #run(run: Run): string {
    switch (run.type) {
      case "text":
        return this.#text(run.text, run.marks ?? {});
      case "break":
        return "\\line ";
      case "picture":
        return linked(this.#picture(run), run.link);
      case "note":
        return this.#note(run);
    }
  }

  #text(text: string, { link, ...marks }: Marks): string {
    const look = this.#look(marks);
    const way = directionOf({ runs: [{ type: "text", text }] }) === "rtl" ? "\\rtlch" : "";
    const written = escapeText(text);
    return linked(look + way === "" ? written : `{${look}${way} ${written}}`, link);
  }

  /** What is said of letters; of those from right to left it is said in words of their own. */
  #look(marks: Omit<Marks, "link">): string {
    const { bold, italic, underline, strike, sub, sup, code, color, background, font, size } = marks;
    const half = size === undefined ? undefined : Math.round(size * 2);
    const face = font === undefined ? (code ? MONO : undefined) : this.head.font(font);
    const back = background === undefined ? undefined : this.head.color(background);
    return [
      bold && "\\b\\ab",
      italic && "\\i\\ai",
      underline && "\\ul",
      strike && "\\strike",
      sub && "\\sub",
      sup && "\\super",
      face !== undefined && `\\f${face}\\af${face}`,
      half !== undefined && `\\fs${half}\\afs${half}`,
      color !== undefined && `\\cf${this.head.color(color)}`,
      back !== undefined && `\\chshdng0\\chcbpat${back}\\cb${back}`,
    ]
      .filter((word) => typeof word === "string")
      .join("");
  }

  #picture(picture: Picture): string {
    const bytes = this.source.picture?.(picture.hash);
    const group = bytes && pictureGroup(picture, bytes);
    if (group !== undefined) return group;
    this.notices.push(pictureLeftOut(picture.alt));
    return escapeText(picture.alt || words.picture);
  }

  /** A footnote. Word processors have no place for notes in notes. */
  #note({ flows }: NoteRun): string {
    const { depth } = this;
    this.depth = 0;
    const around: Surroundings = { style: "note" };
    const blocks = this.flows(withNotesInline(flows), around, { ...around, mark: "{\\super\\chftn} " });
    this.depth = depth;
    const text = blocks
      .map((block, at) => (block.isTable || at === blocks.length - 1 ? block.text : `${block.text}\\par\n`))
      .join("");
    return `{\\super\\chftn{\\footnote ${text}}}`;
  }

  /** A list is one of its own, so that it begins where it says. */
  #list(list: List, level: number, around: Surroundings): Block[] {
    const at = Math.min(level, 8);
    const number = this.head.list(list, at);
    const own = { ...around, indent: INDENT * (at + 1) };
    return list.items.flatMap(({ flows }, index) => {
      const shown = escapeText(list.marker?.bullet ?? (list.ordered ? markText(list, index) : "•"));
      const marked: Surroundings = {
        ...own,
        item: `\\ls${number}\\ilvl${at}\\fi-${HANGING}`,
        mark: `{\\listtext\\pard\\plain ${shown}\\tab}`,
      };
      const [first] = flows;
      // What has no line to stand a mark before gets one.
      const isLess =
        first === undefined || first.type === "table" || first.type === "divider" || first.type === "list";
      const blocks: Block[] = isLess ? [this.paragraph([], marked)] : [];
      for (const flow of flows) {
        if (flow.type === "list") blocks.push(...this.#list(flow, level + 1, around));
        else blocks.push(...this.flows([flow], own, flow === first ? marked : own));
      }
      return blocks;
    });
  }

  #table(table: Table, around: Surroundings): Block[] {
    const caption = table.caption ? [this.paragraph(table.caption, { style: "caption" })] : [];
    const block = tableBlock(this, table, around.indent ?? 0);
    return block ? [...caption, block] : caption;
  }
}

/** Something as a link, where its address is one. */
function linked(text: string, address: string | undefined): string {
  const link = address === undefined ? undefined : safeLink(address);
  if (link === undefined) return text;
  const quoted = escapeText(link.replaceAll('"', "%22"));
  return `{\\field{\\*\\fldinst{HYPERLINK "${quoted}"}}{\\fldrslt{${text}}}}`;
}
