import type { Rectangle } from "./cells.js";
import { isBlank, placeCells, usedRange } from "./measure.js";
import {
  sameMarks,
  type Cell,
  type Content,
  type Flow,
  type Row,
  type Run,
  type Table,
  type TextRun,
} from "./model.js";

/** What the readers of tables share: how cells are made, how a header is recognised, how a part is cut out. */

/**
 * Makes a cell of its flows: one that shows nothing holds nothing, and an alignment that its only paragraph has is the
 * cell's.
 */
export function makeCell(flows: Content, facts: Omit<Cell, "flows">): Cell {
  const shown = flows.length === 1 && isBlank(flows) ? [] : flows;
  const only = shown.length === 1 ? shown[0]! : undefined;
  const align = facts.align ?? (only?.type === "paragraph" ? only.align : undefined);
  const { value, ...rest } = facts;
  return {
    flows: align ? shown.map((flow) => unaligned(flow, align)) : shown,
    ...rest,
    ...(align && { align }),
    ...(value && shown.length > 0 && { value }),
  };
}

function unaligned(flow: Flow, align: Cell["align"]): Flow {
  if (flow.type !== "paragraph" || flow.align !== align) return flow;
  const { align: _, ...rest } = flow;
  return rest;
}

/**
 * Makes a table. Where its source named no header rows, a first row that alone is bold throughout is taken for one;
 * blank rows above it and blank columns at the edges do not count. Header cells are bold by being headers, so the mark
 * is taken off them.
 */
export function makeTable(
  rows: readonly Row[],
  headerRows: number,
  facts: Pick<Table, "caption" | "widths"> = {},
): Table {
  const found = headerRows > 0 || rows.length < 2 ? headerRows : boldHeaderRows(rows);
  return {
    type: "table",
    headerRows: found,
    rows: found === 0 ? rows : rows.map((row, index) => (index < found ? row.map(unbold) : row)),
    ...(facts.caption && facts.caption.length > 0 && { caption: facts.caption }),
    ...(facts.widths && facts.widths.length > 0 && { widths: facts.widths }),
  };
}

/** How many rows go as far as a first row that alone is bold: 0 when there is none. */
function boldHeaderRows(rows: readonly Row[]): number {
  const first = rows.findIndex((row) => row.some(({ flows }) => flows.length > 0));
  if (first < 0 || !rows[first]!.some((cell) => isBoldRow([cell]))) return 0;
  const used = usedRange(rows)!;
  const inside = (index: number) => {
    const row = rows[index];
    return row && (row.length > used.right ? row.slice(used.left, used.right + 1) : row);
  };
  const next = inside(used.top + 1);
  return next && isBoldRow(inside(used.top)!) && !isBoldRow(next) ? used.top + 1 : 0;
}

/** Whether every cell of a row shows text, all of it bold. */
function isBoldRow(row: Row): boolean {
  const isBold = ({ flows, value }: Cell) =>
    !value && flows.length > 0 && flows.every((flow) => textRuns(flow).every((run) => run.marks?.bold));
  return row.length > 0 && row.every(isBold);
}

function textRuns(flow: Flow): TextRun[] {
  return flow.type === "paragraph" ? flow.runs.filter((run) => run.type === "text") : [];
}

function unbold(cell: Cell): Cell {
  return {
    ...cell,
    flows: cell.flows.map((flow) =>
      flow.type === "paragraph" ? { ...flow, runs: mergeRuns(flow.runs.map(unboldRun)) } : flow,
    ),
  };
}

/** The flows of a header's cell as formats without headers want them: bold. */
export function emboldened(flows: Content): Content {
  const bold = (run: Run): Run =>
    run.type === "text" ? { ...run, marks: { ...run.marks, bold: true } } : run;
  return flows.map((flow) => (flow.type === "paragraph" ? { ...flow, runs: flow.runs.map(bold) } : flow));
}

function unboldRun(run: Run): Run {
  if (run.type !== "text" || !run.marks?.bold) return run;
  const { bold: _, ...marks } = run.marks;
  return Object.keys(marks).length > 0 ? { ...run, marks } : { type: "text", text: run.text };
}

/**
 * Content whose tables have the header that somebody has said: none, or their first row, where more than it stands there.
 * A row alone is a header only when it `isFirst`.
 */
export function withHeader(content: Content, header: boolean, isFirst: boolean): Content {
  return content.map((flow, index) => {
    if (flow.type !== "table") return flow;
    if (!header) return { ...flow, headerRows: 0 };
    const isNamed = flow.rows.length > 1 || (isFirst && index === 0);
    return isNamed && flow.headerRows === 0 ? { ...flow, headerRows: 1 } : flow;
  });
}

/** Joins neighbouring text runs that look the same, and leaves out empty ones. */
export function mergeRuns(runs: readonly Run[]): Run[] {
  const merged: Run[] = [];
  for (const run of runs) {
    const last = merged.at(-1);
    if (run.type === "text" && run.text === "") continue;
    if (run.type === "text" && last?.type === "text" && sameMarks(last.marks, run.marks)) {
      merged[merged.length - 1] = { ...last, text: last.text + run.text };
    } else merged.push(run);
  }
  return merged;
}

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
  return {
    type: "table",
    headerRows: Math.max(0, Math.min(rows.length, table.headerRows - top)),
    rows,
    ...(table.widths && { widths: table.widths.slice(left, right + 1) }),
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
