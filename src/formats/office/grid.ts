import { type Address, safeLink } from "../../content/address.js";
import { withFigures } from "../../content/figures.js";
import type { Cell, CellValue, Content, Marks, TextRun } from "../../content/model.js";
import { withNotesAtEnd } from "../../content/notes.js";
import { notice, type Notice } from "../../content/notice.js";
import { placedRows } from "../../content/spans.js";
import { addressesOf } from "../../content/traverse.js";
import { formatNotices } from "../../messages/en/formats.js";
import { flowsInRows } from "../flows-in-rows.js";
import { cellText, writeText } from "../text/write.js";
import { withAlignedHeaders } from "./alignment.js";
import { type CellPart, cellParts } from "./cell-text.js";

/** A cell of a sheet that is to be written. */
export interface GridCell {
  readonly column: number;
  /** What it shows. */
  readonly text: string;
  /** Whether it says more than a cell can hold. */
  readonly isCut: boolean;
  readonly value: CellValue | undefined;
  readonly cell: Cell;
  readonly bold: boolean;
  readonly italic: boolean;
  readonly color: string | undefined;
  /** The parts of a text that do not all look as its cell does. */
  readonly parts: readonly CellPart[] | undefined;
  /** How many lines it takes, as wide as a column may be. */
  readonly lines: number;
  /** The address that its text links to, or a part of it: a sheet's cell is one link, or none. */
  readonly link: Address | undefined;
  /** How many addresses there are in it. */
  readonly links: number;
}

/** A sheet that is to be written: its rows, and the widths of its columns in characters. */
export interface SheetToWrite {
  /** Its rows one by one, made anew each time, for a large sheet has many cells. */
  rows(): Iterable<readonly GridCell[]>;
  readonly rowCount: number;
  /** How many rows at the top name the columns of all that follows. */
  readonly headerRows: number;
  readonly widths: readonly number[];
  readonly notices: readonly Notice[];
}

/** The narrowest and the widest column, in characters. */
const WIDTHS = { least: 8, most: 60 };

/**
 * Content as the rows of one sheet: tables as they are, each item of a list and each other flow as a row of one cell of text. What has a
 * typed value carries it, as have the figures of tables whose sources know no types; all other text stays text, whatever it looks like.
 *
 * @param most how many characters a cell can hold; what is longer is cut, and said
 */
export function sheetToWrite(whole: Content, most = Infinity): SheetToWrite {
  const content = flowsInRows(withNotesAtEnd(whole)).map((flow) =>
    flow.type === "table" ? withAlignedHeaders(withFigures(flow)) : flow,
  );
  const rows = () => rowsOf(content, most);
  const widths: number[] = [];
  let [rowCount, linking, long] = [0, 0, 0];
  for (const row of rows()) {
    rowCount++;
    for (const { column, text, cell, links, isCut } of row) {
      if (links > 1) linking++;
      if (isCut) long++;
      if ((cell.colspan ?? 1) > 1) continue;
      const longest = text.includes("\n")
        ? text.split("\n").reduce((widest, line) => Math.max(widest, line.length), 0)
        : text.length;
      widths[column] = Math.min(WIDTHS.most, Math.max(widths[column] ?? WIDTHS.least, longest + 2));
    }
  }
  const [only, ...others] = content;
  return {
    ...{ rows, rowCount },
    headerRows: only?.type === "table" && others.length === 0 && !only.caption ? only.headerRows : 0,
    widths: Array.from(widths, (width) => width ?? WIDTHS.least),
    notices: [
      ...(content.some((flow) => flow.type === "picture")
        ? [notice(formatNotices, "not-shown/pictures-in-cells", {})]
        : []),
      ...(linking > 0 ? [notice(formatNotices, "not-shown/links-in-cell", { count: linking })] : []),
      ...(long > 0 ? [notice(formatNotices, "not-shown/long-cells", { count: long, most })] : []),
    ],
  };
}

function* rowsOf(content: Content, most: number): Generator<GridCell[], void> {
  for (const flow of content) {
    if (flow.type !== "table") {
      yield [gridCell({ flows: [flow] }, 0, false, most)];
      continue;
    }
    if (flow.caption)
      yield [gridCell({ flows: [{ type: "paragraph", runs: flow.caption }] }, 0, false, most)];
    for (const [cells, columns, index] of placedRows(flow.rows))
      yield cells.map((cell, at) => gridCell(cell, columns[at]!, index < flow.headerRows, most));
  }
}

/** The beginning of a text, without half a sign at its end. */
function cutAt(text: string, most: number): string {
  return text.slice(0, most).replace(/[\uD800-\uDBFF]$/, "");
}

function gridCell(cell: Cell, column: number, header: boolean, most: number): GridCell {
  const { flows, value } = cell;
  const plain = plainRun(flows);
  const whole = plain
    ? plain.text
    : flows.length === 1 && flows[0]!.type !== "paragraph"
      ? writeText(flows)
      : cellText(flows);
  const marks: Marks = plain ? (plain.marks ?? PLAIN) : commonMarks(flows);
  const addresses = plain ? undefined : addressesOf(flows);
  const address = addresses === undefined ? marks.link : addresses.length === 1 ? addresses[0] : undefined;
  const isCut = whole.length > most;
  const text = isCut ? cutAt(whole, most) : whole;
  return {
    column,
    text,
    isCut,
    lines: text.includes("\n") ? linesIn(text) : 1,
    value,
    cell,
    bold: header || marks.bold === true,
    italic: marks.italic === true,
    color: marks.color,
    parts: value || isCut ? undefined : cellParts(flows, text),
    link: address === undefined ? undefined : safeLink(address),
    links: addresses?.length ?? (marks.link === undefined ? 0 : 1),
  };
}

const PLAIN: Marks = {};

/** The only run of a cell that holds one line of text that looks one way, as most cells do. */
function plainRun(flows: Content): TextRun | undefined {
  const only = flows.length === 1 ? flows[0]! : undefined;
  const run = only?.type === "paragraph" && only.runs.length === 1 ? only.runs[0]! : undefined;
  return run?.type === "text" ? run : undefined;
}

/** How many lines a text of several takes in a cell, where each breaks at the widest that a column may be. */
function linesIn(text: string): number {
  return text.split("\n").reduce((sum, line) => sum + Math.max(1, Math.ceil(line.length / WIDTHS.most)), 0);
}

/** The marks that all text of a cell has: a sheet's cell looks one way throughout. */
function commonMarks(flows: Content): Marks {
  const only = flows.length === 1 ? flows[0]! : undefined;
  const [first, ...rest] = only?.type === "paragraph" ? only.runs.filter((run) => run.type === "text") : [];
  if (!first || first.type !== "text") return {};
  const { bold, italic, color } = first.marks ?? {};
  const all = (name: keyof Marks) =>
    rest.every((run) => run.type === "text" && run.marks?.[name] === first.marks?.[name]);
  return {
    ...(bold && all("bold") && { bold }),
    ...(italic && all("italic") && { italic }),
    ...(color && all("color") && { color }),
  };
}
