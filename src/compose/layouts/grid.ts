import {
  type Cell,
  type Content,
  type Flow,
  paragraph,
  type Row,
  type Run,
  type Table,
} from "../../content/model.js";
import { columnsOf, hasSpans, placeCells } from "../../content/spans.js";
import type { Piece } from "../layout.js";
import { linesOf, unaligned } from "./lines-of.js";

/** What the layouts that make tables share. */

/** A cell in which nothing stands. */
export const BLANK: Cell = { flows: [] };

/** So many blank cells. */
export function blanks(count: number): Cell[] {
  return Array.from({ length: Math.max(0, count) }, () => BLANK);
}

/** A cell with a text. */
export function textCell(text: string): Cell {
  return { flows: text === "" ? [] : [paragraph(text)] };
}

/** A cell with a line of runs, such as a source. */
export function lineCell(runs: readonly Run[]): Cell {
  return { flows: runs.length === 0 ? [] : [{ type: "paragraph", runs }] };
}

/** Content as one grid, and the captions of its tables, which stand above it. */
export interface Grid {
  readonly table: Table;
  readonly captions: Content;
}

/**
 * Content as one grid: the rows of tables as they are, each other line a row of one cell. The header is that of a table
 * which stands first.
 */
export function gridOf(content: Content): Grid {
  const rows: Row[] = [];
  const captions: Flow[] = [];
  let headerRows = 0;
  for (const flow of content) {
    if (flow.type === "table") {
      if (rows.length === 0) headerRows = flow.headerRows;
      if (flow.caption && flow.caption.length > 0) captions.push(captionLine(flow.caption));
      for (const row of flow.rows) rows.push(row);
    } else
      for (const line of linesOf(unaligned([flow])))
        rows.push([{ flows: line.runs.length === 0 ? [] : [line] }]);
  }
  return { table: { type: "table", headerRows, rows }, captions };
}

/** A caption as a line of its own. */
export function captionLine(runs: NonNullable<Table["caption"]>): Flow {
  return { type: "paragraph", runs };
}

/** Rows filled up with blank cells to the same width; that of the widest when none is given. */
export function filled(
  rows: readonly Row[],
  width = columnsOf({ type: "table", headerRows: 0, rows }),
): Row[] {
  if (!hasSpans(rows))
    return rows.map((row) => (row.length < width ? [...row, ...blanks(width - row.length)] : row));
  const covered: number[] = [];
  return rows.map((row) => {
    const before = covered.filter((left) => left > 0).length;
    const own = placeCells(row, covered).reduce((sum, { cell }) => sum + (cell.colspan ?? 1), 0);
    const missing = width - own - before;
    return missing > 0 ? [...row, ...blanks(missing)] : row;
  });
}

/** Whether any of the pieces has a source to be shown in a column. */
export function hasSources(pieces: readonly Piece[]): boolean {
  return pieces.some(({ source }) => source !== undefined);
}
