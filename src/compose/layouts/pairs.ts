import { columnsOf } from "../../content/measure.js";
import { paragraph, type Cell, type Row, type Table } from "../../content/model.js";
import { shown, type Layout, type Piece } from "../layout.js";

/**
 * Labels and their values, a row each. A snippet with a label is a pair; a table of two columns gives a pair a row;
 * snippets without either pair up in turn: a label, then its value. A label that is left over stands by itself.
 */
export const pairs: Layout = (pieces) => {
  const rows: Row[] = [];
  let waiting: Cell | undefined;
  const flush = () => {
    if (waiting) rows.push([waiting, { flows: [] }]);
    waiting = undefined;
  };
  for (const piece of pieces) {
    const table = tableOfTwo(piece);
    const cell: Cell = { flows: piece.content };
    if (table) {
      flush();
      for (const row of table.rows) rows.push(row);
    } else if (piece.label !== undefined) {
      flush();
      rows.push([{ flows: [paragraph(piece.label)] }, cell]);
    } else if (waiting) {
      rows.push([waiting, cell]);
      waiting = undefined;
    } else waiting = cell;
  }
  flush();
  return shown(rows.length === 0 ? [] : [{ type: "table", headerRows: 0, rows }]);
};

function tableOfTwo({ content }: Piece): Table | undefined {
  const only = content.length === 1 ? content[0]! : undefined;
  return only?.type === "table" && !only.caption && columnsOf(only) === 2 ? only : undefined;
}
