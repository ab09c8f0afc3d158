import { columnsOf, placeCells } from "../measure.js";
import type { Content, Table } from "../model.js";
import type { Notice } from "../notice.js";
import { cellText, writeText } from "./text.js";

/** Delimited text, and what it could not say. */
export interface Delimited {
  readonly text: string;
  readonly notices: readonly Notice[];
}

/** What parts the columns: a comma for CSV (RFC 4180), a tab for TSV. */
export type Separator = "," | "\t";

/**
 * Writes content as rows: each table's rows as they are, each other flow as a row of one cell. Cells that hold the
 * separator, a quotation mark or a line end are quoted. Rows end with `\n`, the last one too. A cell that spans gives
 * its text once, in its first place; the other places stay blank.
 */
export function writeDelimited(content: Content, separator: Separator): Delimited {
  const rows: string[] = [];
  for (const flow of content) {
    if (flow.type === "table") tableRows(flow, separator, rows);
    else rows.push(quote(writeText([flow]), separator));
  }
  return { text: rows.map((row) => row + "\n").join(""), notices: [] };
}

function tableRows(table: Table, separator: Separator, rows: string[]): void {
  const covered: number[] = [];
  const width = columnsOf(table);
  for (const row of table.rows) {
    const line: string[] = [];
    for (const { cell, column } of placeCells(row, covered)) {
      while (line.length < column) line.push("");
      line.push(quote(cellText(cell.flows), separator));
      for (let i = 1; i < (cell.colspan ?? 1); i++) line.push("");
    }
    while (line.length < width) line.push("");
    rows.push(line.join(separator));
  }
}

function quote(text: string, separator: Separator): string {
  return text.includes(separator) || /["\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
