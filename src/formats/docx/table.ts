import { makeCell, makeTable } from "../../content/make-table.js";
import type { Cell, Content, Row, Run, Table } from "../../content/model.js";
import { parseColor } from "../html/css-values.js";
import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/**
 * Reads a table, with its merged cells.
 * @param flowsOf reads what stands in a cell
 */
export function readTable(
  element: Element,
  caption: readonly Run[] | undefined,
  flowsOf: (cell: Element) => Content,
): Table {
  const rows: {
    cells: { cell: Cell; column: number; span: number; merge: "restart" | "continue" | undefined }[];
    header: boolean;
  }[] = [];
  for (const row of rowsOf(element)) {
    const trPr = childOf(row, "trPr");
    const skipped = Math.min(1000, Number(attributeOf(childOf(trPr, "gridBefore"), "val") ?? 0));
    let column = skipped;
    const header = childOf(trPr, "tblHeader");
    const cells = cellsOf(row).map((tc) => {
      const tcPr = childOf(tc, "tcPr");
      const span = Math.min(1000, Math.max(1, Number(attributeOf(childOf(tcPr, "gridSpan"), "val") ?? 1)));
      const vMerge = childOf(tcPr, "vMerge");
      const merge =
        vMerge && (attributeOf(vMerge, "val") === "restart" ? ("restart" as const) : ("continue" as const));
      const background = parseColor(attributeOf(childOf(tcPr, "shd"), "fill") ?? "");
      const cell = makeCell(flowsOf(tc), {
        ...(span > 1 && { colspan: span }),
        ...(background && background !== "#ffffff" && { background }),
      });
      column += span;
      return { cell, column: column - span, span, merge };
    });
    if (skipped > 0) {
      const blank: Cell = { flows: [], ...(skipped > 1 && { colspan: skipped }) };
      cells.unshift({ cell: blank, column: 0, span: skipped, merge: undefined });
    }
    rows.push({
      cells,
      header: header !== undefined && !/^(0|false|off)$/.test(attributeOf(header, "val") ?? "1"),
    });
  }
  let headerRows = 0;
  while (headerRows < rows.length && rows[headerRows]!.header) headerRows++;
  const spanned: Row[] = rows.map(({ cells }, index) =>
    cells
      .filter(({ merge }) => merge !== "continue")
      .map(({ cell, column, merge }) => {
        if (merge !== "restart") return cell;
        let down = 1;
        while (
          rows[index + down]?.cells.some((below) => below.column === column && below.merge === "continue")
        )
          down++;
        return down > 1 ? { ...cell, rowspan: down } : cell;
      }),
  );
  // Only a fixed layout means its widths; otherwise they are what some program last worked out.
  const isFixed = attributeOf(childOf(childOf(element, "tblPr"), "tblLayout"), "type") === "fixed";
  const grid = childOf(element, "tblGrid");
  const widths = grid
    ? [...childrenOf(grid)].map((column) => Number(attributeOf(column, "w") ?? 0) / 20)
    : [];
  return makeTable(spanned, headerRows, {
    ...(isFixed && widths.every((width) => width > 0) && { widths }),
    ...(caption && { caption }),
  });
}

function rowsOf(table: Element): Element[] {
  return [...unwrapped(table, "tr")];
}

function cellsOf(row: Element): Element[] {
  return [...unwrapped(row, "tc")];
}

/** Children of that name, those inside content controls and insertions too. */
function* unwrapped(parent: Element, name: string): Generator<Element> {
  for (const child of childrenOf(parent)) {
    if (child.localName === name) yield child;
    else if (/^(sdt|sdtContent|ins|customXml)$/.test(child.localName)) yield* unwrapped(child, name);
  }
}
