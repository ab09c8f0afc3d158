import { headerRowsSaid } from "./header-rows.js";
import { textRun, type Cell, type Content, type Flow, type Row, type Run, type Table } from "./model.js";
import { mergeRuns } from "./runs.js";
import { usedRange } from "./spans.js";
import { isBlank, mapContent, someRun } from "./traverse.js";

/** What the readers of tables share: how cells are made, and how a header is recognised. */

/**
 * Makes a cell of its flows: one that shows nothing holds nothing, and an alignment that its only paragraph has is the
 * cell's.
 */
export function makeCell(flows: Content, facts: Omit<Cell, "flows">): Cell {
  const shown = flows.length === 1 && isBlank(flows) ? [] : flows;
  const only = shown.length === 1 ? shown[0]! : undefined;
  const align = facts.align ?? (only?.type === "paragraph" ? only.align : undefined);
  const cell: { -readonly [K in keyof Cell]: Cell[K] } = {
    flows: align ? shown.map((flow) => unaligned(flow, align)) : shown,
    ...facts,
  };
  if (align) cell.align = align;
  if (cell.value && shown.length === 0) delete cell.value;
  return cell;
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
    !value && flows.length > 0 && !someRun(flows, (run) => run.type === "text" && !run.marks?.bold);
  return row.length > 0 && row.every(isBold);
}

function unbold(cell: Cell): Cell {
  return { ...cell, flows: mapContent(cell.flows, { runs: (line) => mergeRuns(line.map(unboldRun)) }) };
}

function unboldRun(run: Run): Run {
  if (run.type !== "text" || !run.marks?.bold) return run;
  const { bold: _, ...marks } = run.marks;
  return textRun(run.text, marks);
}

/** The flows of a header's cell as formats without headers want them: bold. */
export function emboldened(flows: Content): Content {
  const bold = (run: Run): Run =>
    run.type === "text" ? { ...run, marks: { ...run.marks, bold: true } } : run;
  return mapContent(flows, { runs: (line) => line.map(bold) });
}

/**
 * Content whose tables have the header that somebody has said: none, or their first row that says more than a title (or two, where
 * the upper one leaves columns to the lower), where more than it stands there. A row alone is a header only when it `isFirst`.
 */
export function withHeader(content: Content, header: boolean, isFirst: boolean): Content {
  return content.map((flow, index) => {
    if (flow.type !== "table") return flow;
    if (!header) return { ...flow, headerRows: 0 };
    const isNamed = flow.rows.length > 1 || (isFirst && index === 0);
    return isNamed && flow.headerRows === 0 ? { ...flow, headerRows: headerRowsSaid(flow) } : flow;
  });
}
