import { columnsOf, isBlank } from "../content/measure.js";
import type { Content, Flow, Row, Run, Table } from "../content/model.js";

/**
 * Takes the blank lines, rows and columns off a piece's edges, so that none are left where pieces meet. What is inside
 * is left alone; and so are the columns where they must go on standing under each other: in a single row, which is
 * part of something wider, and wherever `keepColumns` says so.
 */
export function tidyEdges(content: Content, keepColumns = false): Content {
  let from = 0;
  let to = content.length;
  while (from < to && isBlankEdge(content[from]!)) from++;
  while (to > from && isBlankEdge(content[to - 1]!)) to--;
  const flows = content.slice(from, to);
  if (flows.length > 0) {
    flows[0] = tidyFlow(flows[0]!, true, flows.length === 1, keepColumns);
    if (flows.length > 1) flows[flows.length - 1] = tidyFlow(flows.at(-1)!, false, true, keepColumns);
  }
  return flows;
}

function isBlankEdge(flow: Flow): boolean {
  return flow.type !== "code" && isBlank([flow]);
}

function tidyFlow(flow: Flow, first: boolean, last: boolean, keepColumns: boolean): Flow {
  if (flow.type === "paragraph") return { ...flow, runs: tidyRuns(flow.runs, first, last) };
  return flow.type === "table" ? tidyTable(flow, keepColumns) : flow;
}

function tidyRuns(runs: readonly Run[], first: boolean, last: boolean): readonly Run[] {
  let from = 0;
  let to = runs.length;
  if (first) while (from < to && runs[from]!.type === "break") from++;
  if (last) while (to > from && runs[to - 1]!.type === "break") to--;
  return from === 0 && to === runs.length ? runs : runs.slice(from, to);
}

/** A table without the blank rows and columns at its edges. Tables with merged cells keep their columns. */
function tidyTable(table: Table, keepColumns: boolean): Table {
  const blankRow = (row: Row) => row.every((cell) => isBlank(cell.flows) && (cell.rowspan ?? 1) === 1);
  let top = 0;
  let bottom = table.rows.length;
  const spansDown = table.rows.some((row) => row.some((cell) => (cell.rowspan ?? 1) > 1));
  if (!spansDown) {
    while (top < bottom && blankRow(table.rows[top]!)) top++;
    while (bottom > top && blankRow(table.rows[bottom - 1]!)) bottom--;
  }
  const rows = table.rows.slice(top, bottom);
  const headerRows = Math.max(0, Math.min(rows.length, table.headerRows - top));
  const { widths, ...rest } = table;
  const spans = spansDown || rows.some((row) => row.some((cell) => (cell.colspan ?? 1) > 1));
  if (spans || keepColumns || rows.length < 2) return { ...table, rows, headerRows };
  const blankColumn = (column: number) => rows.every((row) => isBlank(row[column]?.flows ?? []));
  let left = 0;
  let right = columnsOf(table);
  while (left < right && blankColumn(left)) left++;
  while (right > left && blankColumn(right - 1)) right--;
  return {
    ...rest,
    headerRows,
    rows: rows.map((row) => row.slice(left, right)),
    ...(widths && { widths: widths.slice(left, right) }),
  };
}
