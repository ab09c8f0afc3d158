import type { Content } from "../../content/model.js";
import { columnsOf, fillGrid } from "../../content/spans.js";
import { cellText } from "../../formats/text/write.js";

/** The first rows and columns of a table, as texts. */
export interface SmallGrid {
  readonly rows: readonly (readonly string[])[];
  readonly headerRows: number;
  /** Whether there are more columns. */
  readonly isCut: boolean;
}

/** How many rows and columns are drawn, and how many characters of a cell. */
const ROWS = 3;
const COLUMNS = 4;
const LENGTH = 40;

/** The beginning of the table that some content is; nothing when it is something else. */
export function smallGrid(content: Content): SmallGrid | undefined {
  const [table, ...others] = content;
  if (table?.type !== "table" || others.length > 0 || table.rows.length === 0) return undefined;
  const width = columnsOf(table);
  const first = { ...table, rows: table.rows.slice(0, ROWS) };
  const rows = fillGrid(first, "", (cell, column) =>
    column < COLUMNS ? cellText(cell.flows).replace(/\s+/g, " ").slice(0, LENGTH) : "",
  ).map((row) => row.slice(0, COLUMNS));
  return { rows, headerRows: table.headerRows, isCut: width > COLUMNS };
}
