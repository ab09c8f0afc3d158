import type { Rectangle } from "../../content/cells.js";
import { attributeAt, childPlaces, type XmlPlace } from "../office/xml-text.js";

/** The cells of a table that lie in a rectangle and begin in it, row by row; those that a merged cell covers are no cells of their own. */
export function cellsIn(text: string, table: XmlPlace, { top, bottom, left, right }: Rectangle): XmlPlace[] {
  const found: XmlPlace[] = [];
  let row = 0;
  for (const each of rowsIn(text, table)) {
    const [first, rows] = [row, repeated(text, each, "rows")];
    row += rows;
    if (first + rows <= top || first > bottom) continue;
    let column = 0;
    for (const cell of childPlaces(text, each)) {
      const at = column;
      column += repeated(text, cell, "columns");
      if (cell.name === "table-cell" && at >= left && at <= right) found.push(cell);
    }
  }
  return found;
}

/** The rows of a table, those of its head too; one that is there several times is one. */
export function rowsIn(text: string, parent: XmlPlace): XmlPlace[] {
  return childPlaces(text, parent).flatMap((child) => {
    if (child.name === "table-row") return [child];
    return /^(table-header-rows|table-rows|table-row-group)$/.test(child.name) ? rowsIn(text, child) : [];
  });
}

/** How often a row, or a cell, stands there. */
export function repeated(text: string, place: XmlPlace, what: "rows" | "columns"): number {
  return Math.max(1, Number(attributeAt(text, place, `table:number-${what}-repeated`) ?? 1));
}
