import type { Content, Row, Table } from "../../content/model.js";
import { columnsOf } from "../../content/spans.js";
import { content as words } from "../../messages/en/content.js";
import { withoutNotices, type LaidOut, type Layout, type LayoutOptions, type Piece } from "../layout.js";
import { BLANK, blanks, filled, gridOf, hasSources, lineCell, textCell } from "./grid.js";
import { beginsWithNames, withHeaders } from "./headers.js";

/**
 * The pieces side by side in one table: a table gives its columns, anything else a column of its lines. Headers stand in
 * one row, where any piece has one; a piece without takes its label for it. Captions stand above.
 */
export const columns: Layout = {
  lay: layColumns,
  isTable: true,
  between: "none",
  renamesColumns: false,
};

function layColumns(given: readonly Piece[], options: LayoutOptions): LaidOut {
  const pieces = withHeaders(given, options);
  const captions: Content[] = [];
  const withSources = hasSources(pieces);
  const tables = pieces.map((piece) => {
    const grid = gridOf(piece.content);
    captions.push(grid.captions);
    const table = withLabel(grid.table, piece);
    return withSources ? withSource(table, piece) : table;
  });
  const headerRows = tables.reduce((most, table) => Math.max(most, table.headerRows), 0);
  const parts = tables.map((table) => {
    const width = columnsOf(table);
    // A first row that looks like names stands beside the headers of others.
    const missing = beginsWithNames(table) ? 0 : headerRows - table.headerRows;
    const above = Array.from({ length: missing }, () => blanks(width));
    return { width, rows: [...above, ...filled(table.rows, width)] };
  });
  const height = parts.reduce((most, { rows }) => Math.max(most, rows.length), 0);
  const rows = Array.from({ length: height }, (_, index) =>
    parts.flatMap(({ width, rows: own }) => own[index] ?? blanks(width)),
  );
  return withoutNotices([
    ...captions.flat(),
    ...(height === 0 ? [] : [{ type: "table" as const, headerRows, rows }]),
  ]);
}

/** A table without a header takes the piece's label for one. */
function withLabel(table: Table, { label }: Piece): Table {
  if (label === undefined || table.headerRows > 0) return table;
  const head: Row = [textCell(label), ...blanks(columnsOf(table) - 1)];
  return { ...table, headerRows: 1, rows: [head, ...table.rows] };
}

/** The table with one column more, in which its source stands beside each of its rows. */
function withSource(table: Table, { source = [] }: Piece): Table {
  const cell = lineCell(source);
  const head = textCell(words.source);
  const rows = filled(table.rows).map((row, index) => {
    if (index >= table.headerRows) return [...row, cell];
    return [...row, index === table.headerRows - 1 ? head : BLANK];
  });
  return { ...table, rows };
}
