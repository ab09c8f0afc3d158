import type { Rectangle } from "./cells.js";
import type { Cell, Row, Table } from "./model.js";
import { isBlank } from "./traverse.js";

/** Where the cells of a table stand, for cells that span rows or columns move those after them. */

/** A cell, and the column it begins in, counting from 0. */
export interface PlacedCell {
  readonly cell: Cell;
  readonly column: number;
}

/**
 * A row's cells with the column each begins in, counting from 0; `covered` carries, from row to row, how many more
 * rows each column is covered from above. Pass the same array for each row of a table, beginning with an empty one.
 */
export function placeCells(row: Row, covered: number[]): PlacedCell[] {
  const columns = columnsIn(row, covered);
  return row.map((cell, index) => ({ cell, column: columns[index]! }));
}

/** The columns in which the cells of a row begin. */
function columnsIn(row: Row, covered: number[]): number[] {
  const columns: number[] = [];
  let column = 0;
  for (const cell of row) {
    while ((covered[column] ?? 0) > 0) column++;
    columns.push(column);
    column += cell.colspan ?? 1;
  }
  for (let i = 0; i < covered.length; i++) if (covered[i]! > 0) covered[i]!--;
  row.forEach((cell, index) => {
    const down = (cell.rowspan ?? 1) - 1;
    if (down > 0) for (let i = 0; i < (cell.colspan ?? 1); i++) covered[columns[index]! + i] = down;
  });
  return columns;
}

/** 0, 1, 2…: where cells begin in a table without spans. It is made longer as wider tables come. */
const IN_TURN: number[] = [];

/** The rows of a table one by one, each with the columns in which its cells begin. */
export function* placedRows(
  rows: Table["rows"],
): Generator<readonly [row: Row, columns: readonly number[], index: number], void> {
  if (hasSpans(rows)) {
    const covered: number[] = [];
    for (const [index, row] of rows.entries()) yield [row, columnsIn(row, covered), index];
    return;
  }
  const columns = inTurn(rows);
  for (const [index, row] of rows.entries()) yield [row, columns, index];
}

function inTurn(rows: Table["rows"]): readonly number[] {
  for (const { length } of rows) while (IN_TURN.length < length) IN_TURN.push(IN_TURN.length);
  return IN_TURN;
}

/**
 * What `make` makes of each row of a table.
 * @param make is given the row, the column in which each of its cells begins, and its index
 */
export function mapRows<T>(
  rows: Table["rows"],
  make: (row: Row, columns: readonly number[], index: number) => T,
): T[] {
  const covered: number[] = [];
  const columns = hasSpans(rows) ? undefined : inTurn(rows);
  return rows.map((row, index) => make(row, columns ?? columnsIn(row, covered), index));
}

/** A table as a full grid: what `show` makes of each cell stands where the cell begins, and `blank` everywhere else. */
export function fillGrid<T>(
  table: Table,
  blank: T,
  show: (cell: Cell, column: number, row: number) => T,
): T[][] {
  const width = columnsOf(table);
  return mapRows(table.rows, (cells, columns, row) => {
    const line = new Array<T>(width).fill(blank);
    for (let at = 0; at < cells.length; at++) line[columns[at]!] = show(cells[at]!, columns[at]!, row);
    return line;
  });
}

/** Whether any cell spans more than its own place. Nearly no table has one that does. */
export function hasSpans(rows: Table["rows"]): boolean {
  // By index, as all cells of a table are asked, and by nearly every act.
  for (let at = 0; at < rows.length; at++) {
    const row = rows[at]!;
    for (let column = 0; column < row.length; column++) {
      const { colspan, rowspan } = row[column]!;
      if (colspan !== undefined || rowspan !== undefined) return true;
    }
  }
  return false;
}

/** How many columns a table has, counting spans. */
export function columnsOf({ rows }: Table): number {
  let width = 0;
  if (!hasSpans(rows)) {
    for (const row of rows) if (row.length > width) width = row.length;
    return width;
  }
  const covered: number[] = [];
  for (const row of rows) {
    for (const { cell, column } of placeCells(row, covered))
      width = Math.max(width, column + (cell.colspan ?? 1));
  }
  return width;
}

/** The smallest rectangle of a table that holds all cells which show something; nothing when none does. */
export function usedRange(rows: Table["rows"]): Rectangle | undefined {
  return hasSpans(rows) ? usedRangeOfSpans(rows) : usedRangeOfCells(rows);
}

function usedRangeOfSpans(rows: Table["rows"]): Rectangle | undefined {
  const covered: number[] = [];
  let used: Rectangle | undefined;
  rows.forEach((row, index) => {
    for (const { cell, column } of placeCells(row, covered)) {
      if (isBlank(cell.flows)) continue;
      const { top, left, bottom, right } = used ?? { top: index, left: column, bottom: index, right: column };
      used = {
        top,
        left: Math.min(left, column),
        bottom: Math.max(bottom, Math.min(rows.length, index + (cell.rowspan ?? 1)) - 1),
        right: Math.max(right, column + (cell.colspan ?? 1) - 1),
      };
    }
  });
  return used;
}

/** Only what could widen the rectangle is looked at, so that a long table costs little. */
function usedRangeOfCells(rows: Table["rows"]): Rectangle | undefined {
  const top = rows.findIndex(isUsedRow);
  if (top < 0) return undefined;
  const bottom = rows.findLastIndex(isUsedRow);
  let left = Infinity;
  let right = -1;
  for (let index = top; index <= bottom; index++) {
    const row = rows[index]!;
    for (let column = 0; column < Math.min(left, row.length); column++)
      if (!isBlank(row[column]!.flows)) left = column;
    for (let column = row.length - 1; column > right; column--)
      if (!isBlank(row[column]!.flows)) right = column;
  }
  return { top, left, bottom, right };
}

function isUsedRow(row: Row): boolean {
  return row.some((cell) => !isBlank(cell.flows));
}
