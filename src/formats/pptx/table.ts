import { makeCell, makeTable } from "../../content/make-table.js";
import type { Content, Row, Table } from "../../content/model.js";
import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** So many rows or columns at most a cell goes over. */
const MOST_SPANNED = 1000;

/**
 * Reads a table (ECMA-376 part 1, 21.1.3), with its merged cells.
 * @param flowsOf reads what stands in a cell
 */
export function readTable(table: Element, flowsOf: (cell: Element) => Content): Table {
  const isOn = (value: string | undefined) => value === "1" || value === "true";
  const span = (cell: Element, name: string) =>
    Math.min(MOST_SPANNED, Math.max(1, Number(attributeOf(cell, name) ?? 1) || 1));
  const rows: Row[] = [];
  for (const row of childrenOf(table)) {
    if (row.localName !== "tr") continue;
    const cells = [...childrenOf(row)].filter(
      (cell) =>
        cell.localName === "tc" && !isOn(attributeOf(cell, "hMerge")) && !isOn(attributeOf(cell, "vMerge")),
    );
    rows.push(
      cells.map((cell) => {
        const [colspan, rowspan] = [span(cell, "gridSpan"), span(cell, "rowSpan")];
        return makeCell(flowsOf(cell), { ...(colspan > 1 && { colspan }), ...(rowspan > 1 && { rowspan }) });
      }),
    );
  }
  const hasHeader = isOn(attributeOf(childOf(table, "tblPr"), "firstRow"));
  return makeTable(rows, hasHeader && rows.length > 1 ? 1 : 0);
}
