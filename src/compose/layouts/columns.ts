import { columnsOf } from "../../content/measure.js";
import type { Cell, Content, Row, Table } from "../../content/model.js";
import { shown, type Layout } from "../layout.js";
import { linesOf } from "./lines-of.js";

const BLANK: Cell = { flows: [] };

/**
 * The pieces side by side in one table: a table gives its columns, anything else a column of its lines. Headers stand in
 * one row, where any piece has one; a piece without takes its label for it.
 */
export const columns: Layout = (pieces) => {
  const tables = pieces.map(({ content, label }) => asTable(content, label));
  const headerRows = tables.reduce((most, table) => Math.max(most, table.headerRows), 0);
  const parts = tables.map((table) => {
    const width = columnsOf(table);
    const above = Array.from({ length: headerRows - table.headerRows }, () => blanks(width));
    return { width, rows: [...above, ...table.rows.map((row) => filled(row, table, width))] };
  });
  const height = parts.reduce((most, { rows }) => Math.max(most, rows.length), 0);
  const rows = Array.from({ length: height }, (_, index) =>
    parts.flatMap(({ width, rows: own }) => own[index] ?? blanks(width)),
  );
  return shown(height === 0 ? [] : [{ type: "table", headerRows, rows }]);
};

function blanks(count: number): Cell[] {
  return Array.from({ length: count }, () => BLANK);
}

/** Cells filled up to the width of their table; where cells span down, what is missing lies under them. */
function filled(cells: readonly Cell[], table: Table, width: number): readonly Cell[] {
  const own = cells.reduce((sum, { colspan = 1 }) => sum + colspan, 0);
  const spans = table.rows.some((row) => row.some(({ rowspan = 1 }) => rowspan > 1));
  return spans || own >= width ? cells : [...cells, ...blanks(width - own)];
}

function asTable(content: Content, label: string | undefined): Table {
  const only = content.length === 1 ? content[0]! : undefined;
  if (only?.type === "table" && !only.caption) return only;
  const head: Row[] =
    label === undefined ? [] : [[{ flows: [{ type: "paragraph", runs: [{ type: "text", text: label }] }] }]];
  const lines = content.some((flow) => flow.type === "table")
    ? [{ flows: content }]
    : linesOf(content).map((line) => ({ flows: [line] }));
  return { type: "table", headerRows: head.length, rows: [...head, ...lines.map((cell): Row => [cell])] };
}
