import { makeCell, makeTable } from "../../content/make-table.js";
import type { Cell, Content, Row, Run, Table } from "../../content/model.js";
import { attributeOf, childrenOf, type Element } from "../office/xml.js";
import type { OdfStyles } from "./styles.js";

/**
 * Reads a table, with its merged and repeated cells.
 * @param flowsOf reads what stands in a cell
 */
export function readTable(
  element: Element,
  styles: OdfStyles,
  caption: readonly Run[] | undefined,
  flowsOf: (cell: Element) => Content,
): Table {
  const rows: Row[] = [];
  const widths: number[] = [];
  let headerRows = 0;
  const visit = (parent: Element, header: boolean): void => {
    for (const child of childrenOf(parent)) {
      if (child.localName === "table-column") {
        const { width } = styles.get("table-column", attributeOf(child, "style-name"));
        const times = Math.min(1000, Number(attributeOf(child, "number-columns-repeated") ?? 1));
        for (let i = 0; width && i < times; i++) widths.push(width);
      } else if (child.localName === "table-row") {
        rows.push(readRow(child, styles, flowsOf));
        if (header) headerRows++;
      } else if (child.localName === "table-header-rows") visit(child, true);
      else if (/^table-(rows|row-group|columns|header-columns|column-group)$/.test(child.localName))
        visit(child, header);
    }
  };
  visit(element, false);
  return makeTable(rows, headerRows, { widths, ...(caption && { caption }) });
}

function readRow(row: Element, styles: OdfStyles, flowsOf: (cell: Element) => Content): Row {
  const cells: Cell[] = [];
  for (const element of childrenOf(row)) {
    if (element.localName !== "table-cell") continue;
    const count = (name: string, most: number) =>
      Math.min(most, Math.max(1, Number(attributeOf(element, name) ?? 1)));
    const colspan = count("number-columns-spanned", 1000);
    const rowspan = count("number-rows-spanned", 65534);
    const { background } = styles.get("table-cell", attributeOf(element, "style-name"));
    const cell = makeCell(flowsOf(element), {
      ...(colspan > 1 && { colspan }),
      ...(rowspan > 1 && { rowspan }),
      ...(background && background !== "#ffffff" && { background }),
    });
    for (let i = count("number-columns-repeated", 1000); i > 0; i--) cells.push(cell);
  }
  return cells;
}
