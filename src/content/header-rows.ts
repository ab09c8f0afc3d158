import type { Cell, Row, Table } from "./model.js";
import { isFigure } from "./number.js";
import { runsText } from "./runs.js";
import { columnsOf } from "./spans.js";
import { isBlank } from "./traverse.js";

/** Where the rows at the top of a table that has no header yet may be one. */

/** The rows at the top of a table. */
export interface TopRows {
  /** The first row that may name columns; below 0 when all rows are blank. */
  readonly first: number;
  /** How many rows above it say, in a single cell, what the table is about. */
  readonly titles: number;
  /** Whether it leaves columns out or stands over several, and a row stands below it, which may name them. */
  readonly isUpper: boolean;
}

/** Finds them. */
export function topRowsOf(table: Table): TopRows {
  const { rows } = table;
  let first = -1;
  let titles = 0;
  const isWide = columnsOf(table) > 1;
  for (let at = 0; at < rows.length; at++) {
    if (!isFilled(rows[at]!)) continue;
    // What was taken for the first row that may name columns stands alone above another.
    if (first >= 0) titles++;
    first = at;
    if (!isWide || !isTitle(rows[at]!)) break;
  }
  const isUpper = first >= 0 && first + 1 < rows.length && isPartial(rows[first]!);
  return { first, titles, isUpper };
}

/** Whether something stands in a row. */
export function isFilled(row: Row): boolean {
  return row.some((cell) => !isBlank(cell.flows));
}

/** Whether a row is one text alone: a paragraph, which a caption can hold. */
export function isTitle(row: Row): boolean {
  const [only, ...others] = row.filter((cell) => !isBlank(cell.flows));
  if (!only || others.length > 0) return false;
  return !isOfFigure(only) && only.flows.length === 1 && only.flows[0]!.type === "paragraph";
}

/** Whether a row has a blank cell between others, or one that spans several columns. */
export function isPartial(row: Row): boolean {
  const first = row.findIndex((cell) => !isBlank(cell.flows));
  const last = row.findLastIndex((cell) => !isBlank(cell.flows));
  return row.slice(first, last + 1).some(({ flows, colspan = 1 }) => isBlank(flows) || colspan > 1);
}

/** Whether a cell holds a figure: a typed value, or a single text that looks like one. */
export function isOfFigure({ value, flows: [only, ...others] }: Cell): boolean {
  if (value !== undefined) return true;
  return only?.type === "paragraph" && others.length === 0 && isFigure(runsText(only.runs).trim());
}

/** How many rows the header has of a table that is said to have one: two, where the upper one leaves the columns to another of texts. */
export function headerRowsSaid(table: Table): number {
  const { first, isUpper } = topRowsOf(table);
  if (first < 0) return 1;
  const filled = (row: number) => table.rows[row]!.filter((cell) => !isBlank(cell.flows));
  const isJoined =
    isUpper && filled(first + 1).length > filled(first).length && !filled(first + 1).some(isOfFigure);
  return first + (isJoined ? 2 : 1);
}
