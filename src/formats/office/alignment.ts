import type { Align, Cell, Table } from "../../content/model.js";
import { mapRows } from "../../content/spans.js";

/** Where the text of a cell stands: figures and dates on the right, as in the sheet that they come from. */
export function alignOf({ align, value }: Cell): Align | undefined {
  return align ?? (value && value.type !== "boolean" ? "right" : undefined);
}

/** A table whose headers stand on the right where all that is below them does. */
export function withAlignedHeaders(table: Table): Table {
  const { headerRows, rows } = table;
  if (headerRows === 0) return table;
  const isRight: boolean[] = [];
  mapRows(rows, (row, columns, index) => {
    if (index < headerRows) return;
    for (const [at, cell] of row.entries()) {
      const column = columns[at]!;
      if (cell.flows.length > 0) isRight[column] = (isRight[column] ?? true) && alignOf(cell) === "right";
    }
  });
  const aligned = mapRows(rows, (row, columns, index) =>
    index >= headerRows
      ? row
      : row.map((cell, at) =>
          cell.flows.length > 0 &&
          isRight[columns[at]!] &&
          cell.colspan === undefined &&
          cell.align === undefined
            ? { ...cell, align: "right" as const }
            : cell,
        ),
  );
  return { ...table, rows: aligned };
}
