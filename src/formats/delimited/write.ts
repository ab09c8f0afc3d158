import { guardFormula } from "./formula.js";
import { columnsOf, hasSpans, placeCells } from "../../content/measure.js";
import {
  runsText,
  textRun,
  type Cell,
  type Content,
  type Flow,
  type List,
  type Table,
} from "../../content/model.js";
import type { Notice } from "../../content/notice.js";
import { cellText, writeText } from "../text/write.js";

/** Delimited text, and what it could not say. */
export interface Delimited {
  readonly text: string;
  readonly notices: readonly Notice[];
}

/** How delimited text is to be written. */
export interface DelimitedWriteOptions {
  /**
   * Whether what a sheet would run as a formula gets an apostrophe before it, by which sheets know text; on when it is
   * left out. Reading takes it off again.
   */
  readonly guard?: boolean;
}

/** What parts the columns: a comma for CSV (RFC 4180), a tab for TSV. */
export type Separator = "," | "\t";

/**
 * Writes content as rows: each table's rows as they are, below its caption; each item of a list, and each other flow, as
 * a row of one cell. Cells that hold the
 * separator, a quotation mark or a line end are quoted. Rows end with `\n`, the last one too. A cell that spans gives
 * its text once, in its first place; the other places stay blank. What a sheet would run as a formula is guarded (see
 * {@link DelimitedWriteOptions}).
 */
export function writeDelimited(
  content: Content,
  separator: Separator,
  options: DelimitedWriteOptions = {},
): Delimited {
  const rows: string[] = [];
  const { guard = true } = options;
  const quote = (text: string) => quoted(guard ? guardFormula(text) : text, separator);
  const add = (flow: Flow): void => {
    if (flow.type === "table") tableRows(flow, separator, quote, rows);
    else if (flow.type === "list") for (const item of numbered(flow)) item.forEach(add);
    else if (flow.type === "quote") flow.flows.forEach(add);
    else rows.push(quote(writeText([flow])));
  };
  content.forEach(add);
  return { text: rows.map((row) => row + "\n").join(""), notices: [] };
}

/** The flows of a list's items; those of a numbered list begin with their numbers. */
function numbered({ ordered, start = 1, items }: List): Content[] {
  if (!ordered) return items.map(({ flows }) => flows);
  return items.map(({ flows }, index) => {
    const number = textRun(`${start + index}. `);
    const [first, ...rest] = flows;
    if (first?.type !== "paragraph") return [{ type: "paragraph", runs: [number] }, ...flows];
    return [{ ...first, runs: [number, ...first.runs] }, ...rest];
  });
}

function tableRows(
  table: Table,
  separator: Separator,
  quote: (text: string) => string,
  rows: string[],
): void {
  if (table.caption && table.caption.length > 0) rows.push(quote(runsText(table.caption)));
  const covered: number[] = [];
  const width = columnsOf(table);
  const written = (cell: Cell) =>
    cell.value ? quoted(cellText(cell.flows), separator) : quote(cellText(cell.flows));
  if (!hasSpans(table.rows)) {
    for (const row of table.rows) {
      const line = row.map(written);
      while (line.length < width) line.push("");
      rows.push(line.join(separator));
    }
    return;
  }
  for (const row of table.rows) {
    const line: string[] = [];
    for (const { cell, column } of placeCells(row, covered)) {
      while (line.length < column) line.push("");
      line.push(written(cell));
      for (let i = 1; i < (cell.colspan ?? 1); i++) line.push("");
    }
    while (line.length < width) line.push("");
    rows.push(line.join(separator));
  }
}

function quoted(text: string, separator: Separator): string {
  return text.includes(separator) || /["\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
