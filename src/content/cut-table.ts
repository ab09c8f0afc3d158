import type { Rectangle } from "./cells.js";
import type { Cell, Row, Table } from "./model.js";
import { placeCells } from "./spans.js";

/**
 * Cuts a rectangle out of a table. A merged cell whose first place lies inside is cut to what lies inside; of one whose
 * first place lies outside, the places inside are blank. Rows cut from below the header carry no header.
 */
export function cutTable(table: Table, { top, left, bottom, right }: Rectangle): Table {
  const covered: number[] = [];
  const rows: Row[] = [];
  table.rows.forEach((row, index) => {
    const above = covered.map((rowsLeft, column) => (rowsLeft > 0 ? column : -1));
    const placed = placeCells(row, covered);
    if (index < top || index > bottom) return;
    const cells: { column: number; cell: Cell }[] = [];
    for (const { cell, column } of placed) {
      if (column > right || column + (cell.colspan ?? 1) <= left) continue;
      if (column >= left) cells.push({ column, cell: clip(cell, right - column + 1, bottom - index + 1) });
      else
        for (let at = left; at < Math.min(right + 1, column + cell.colspan!); at++)
          cells.push({ column: at, cell: { flows: [] } });
    }
    if (index === top)
      for (const column of above)
        if (column >= left && column <= right) cells.push({ column, cell: { flows: [] } });
    rows.push(cells.sort((a, b) => a.column - b.column).map(({ cell }) => cell));
  });
  const { caption: _, widths, ...rest } = table;
  return {
    ...rest,
    headerRows: Math.max(0, Math.min(rows.length, table.headerRows - top)),
    rows,
    ...(widths && { widths: widths.slice(left, right + 1) }),
  };
}

function clip(cell: Cell, columns: number, rows: number): Cell {
  const { colspan = 1, rowspan = 1, ...rest } = cell;
  return {
    ...rest,
    ...(Math.min(colspan, columns) > 1 && { colspan: Math.min(colspan, columns) }),
    ...(Math.min(rowspan, rows) > 1 && { rowspan: Math.min(rowspan, rows) }),
  };
}
