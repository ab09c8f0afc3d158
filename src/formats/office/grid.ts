import { type Address, safeLink } from "../../content/address.js";
import { withFigures } from "../../content/figures.js";
import type { Cell, CellValue, Content, Marks, Table } from "../../content/model.js";
import { withNotesAtEnd } from "../../content/notes.js";
import { notice, type Notice } from "../../content/notice.js";
import { mapRows } from "../../content/spans.js";
import { addressesOf } from "../../content/traverse.js";
import { formatNotices } from "../../messages/en/formats.js";
import { flowsInRows } from "../flows-in-rows.js";
import { cellText, writeText } from "../text/write.js";
import { withAlignedHeaders } from "./alignment.js";

/** A cell of a sheet that is to be written. */
export interface GridCell {
  readonly column: number;
  /** What it shows. */
  readonly text: string;
  readonly value: CellValue | undefined;
  readonly cell: Cell;
  readonly bold: boolean;
  readonly italic: boolean;
  readonly color: string | undefined;
  /** How many lines it takes, as wide as a column may be. */
  readonly lines: number;
  /** The address that its text links to, or a part of it: a sheet's cell is one link, or none. */
  readonly link: Address | undefined;
}

/** A sheet that is to be written: its rows, and the widths of its columns in characters. */
export interface SheetToWrite {
  readonly rows: readonly (readonly GridCell[])[];
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
  const content = flowsInRows(withNotesAtEnd(whole));
  let rows: GridCell[][] = [];
  const notices: Notice[] = [];
  for (const flow of content) {
    if (flow.type === "table") tableRows(flow, rows);
    else rows.push([gridCell({ flows: [flow] }, 0, false)]);
  }
  if (content.some((flow) => flow.type === "picture"))
    notices.push(notice(formatNotices, "not-shown/pictures-in-cells", {}));
  const linking = rows.flat().filter(({ cell, link }) => !link && addressesOf(cell.flows).length > 1).length;
  if (linking > 0) notices.push(notice(formatNotices, "not-shown/links-in-cell", { count: linking }));
  const long = rows.flat().filter(({ text }) => text.length > most).length;
  if (long > 0) {
    notices.push(notice(formatNotices, "not-shown/long-cells", { count: long, most }));
    rows = rows.map((row) => row.map((cell) => ({ ...cell, text: cutAt(cell.text, most) })));
  }
  const widths: number[] = [];
  for (const row of rows) {
    for (const { column, text, cell } of row) {
      if ((cell.colspan ?? 1) > 1) continue;
      const longest = text.split("\n").reduce((most, line) => Math.max(most, line.length), 0);
      widths[column] = Math.min(WIDTHS.most, Math.max(widths[column] ?? WIDTHS.least, longest + 2));
    }
  }
  const [only, ...others] = content;
  const headerRows = only?.type === "table" && others.length === 0 && !only.caption ? only.headerRows : 0;
  return { rows, headerRows, widths: Array.from(widths, (width) => width ?? WIDTHS.least), notices };
}

/** The beginning of a text, without half a sign at its end. */
function cutAt(text: string, most: number): string {
  return text.length > most ? text.slice(0, most).replace(/[\uD800-\uDBFF]$/, "") : text;
}

function tableRows(given: Table, rows: GridCell[][]): void {
  const table = withAlignedHeaders(withFigures(given));
  if (table.caption) rows.push([gridCell({ flows: [{ type: "paragraph", runs: table.caption }] }, 0, false)]);
  const lines = mapRows(table.rows, (cells, columns, index) =>
    cells.map((cell, at) => gridCell(cell, columns[at]!, index < table.headerRows)),
  );
  for (const line of lines) rows.push(line);
}

function gridCell(cell: Cell, column: number, header: boolean): GridCell {
  const marks = commonMarks(cell.flows);
  const [address, ...others] = addressesOf(cell.flows);
  const text =
    cell.flows.length === 1 && cell.flows[0]!.type !== "paragraph"
      ? writeText(cell.flows)
      : cellText(cell.flows);
  return {
    column,
    text,
    lines: text.includes("\n") ? linesIn(text) : 1,
    value: cell.value,
    cell,
    bold: header || marks.bold === true,
    italic: marks.italic === true,
    color: marks.color,
    link: others.length === 0 && address !== undefined ? safeLink(address) : undefined,
  };
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
