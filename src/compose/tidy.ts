import { cutTable } from "../content/cut-table.js";
import type { Content, Flow, List, Run, Table } from "../content/model.js";
import { columnsOf, usedRange } from "../content/spans.js";
import { isBlank, mapContent } from "../content/traverse.js";
import type { Tidying } from "./options.js";
import { rejoined } from "./rejoin.js";

/** What each way of tidying does in a piece, in the order in which they are done. */
const TIDYING: Readonly<
  Record<Exclude<Tidying, "tables">, (content: Content, keepColumns: boolean) => Content>
> = {
  rejoin: rejoined,
  spaces: (content) => mapContent(content, { runs: singleSpaces }),
  lines: withoutBlankLines,
  repeats: withoutRepeats,
  edges: tidyEdges,
};

/**
 * What tidies pieces in the ways that are named: their `edges`; blank `lines` and rows inside; runs of `spaces`; `repeats` of the
 * line before; and `rejoin`, which puts lines that were broken by hard ends back into paragraphs.
 *
 * @param keepColumns whether columns must go on standing under each other
 */
export function tidier(ways: readonly Tidying[], keepColumns: boolean): (content: Content) => Content {
  const steps = Object.entries(TIDYING).filter(([way]) => ways.includes(way as Tidying));
  return (content) => {
    let tidy = content;
    for (const [, step] of steps) tidy = step(tidy, keepColumns);
    return tidy;
  };
}

function withoutBlankLines(content: Content): Content {
  return content
    .filter((flow) => flow.type === "code" || !isBlank([flow]))
    .map((flow) =>
      flow.type === "table" && flow.rows.every((row) => row.every(({ rowspan = 1 }) => rowspan === 1))
        ? {
            ...flow,
            rows: flow.rows.filter(
              (row, index) => index < flow.headerRows || row.some((cell) => !isBlank(cell.flows)),
            ),
          }
        : flow,
    );
}

/** Without each flow, item and row that only says again what the one before it said. */
function withoutRepeats(content: Content): Content {
  const once = <Part>(parts: readonly Part[]) =>
    parts.filter((part, index) => index === 0 || JSON.stringify(part) !== JSON.stringify(parts[index - 1]));
  return once(content).map((flow) => {
    if (flow.type === "list") return { ...flow, items: once(flow.items) };
    if (flow.type === "table" && flow.rows.every((row) => row.every(({ rowspan = 1 }) => rowspan === 1))) {
      const head = flow.rows.slice(0, flow.headerRows);
      return { ...flow, rows: [...head, ...once(flow.rows.slice(flow.headerRows))] };
    }
    return flow;
  });
}

function singleSpaces(runs: readonly Run[]): readonly Run[] {
  return runs.map((run) =>
    run.type === "text" && !run.marks?.code ? { ...run, text: run.text.replace(/[ \t]{2,}/g, " ") } : run,
  );
}

/**
 * Takes the blank lines, rows and columns off a piece's edges, and the levels of a list on which nothing stands, so that
 * none are left where pieces meet. What is inside is left alone; and so are the columns where they must go on standing under each other: in a single row, which is
 * part of something wider, and wherever `keepColumns` says so.
 */
export function tidyEdges(content: Content, keepColumns = false): Content {
  if (content.length > 0 && isTidy(content[0]!) && isTidy(content.at(-1)!)) return content;
  let from = 0;
  let to = content.length;
  while (from < to && isBlankEdge(content[from]!)) from++;
  while (to > from && isBlankEdge(content[to - 1]!)) to--;
  const flows = content.slice(from, to);
  if (flows[0]?.type === "list") flows.splice(0, 1, ...withoutBareLevels(flows[0]));
  if (flows.length > 0) {
    flows[0] = tidyFlow(flows[0]!, true, flows.length === 1, keepColumns);
    if (flows.length > 1) flows[flows.length - 1] = tidyFlow(flows.at(-1)!, false, true, keepColumns);
  }
  return flows;
}

/**
 * A list whose first items stood deeper where they were taken, without the levels above them that came along and say nothing: what
 * stood beside those goes on after them, in the same list, or, where that is marked otherwise, in its own.
 */
function withoutBareLevels(list: List): Flow[] {
  const [first, ...items] = list.items;
  const inner = first?.flows.length === 1 ? first.flows[0]! : undefined;
  if (inner?.type !== "list") return [list];
  const deeper = withoutBareLevels(inner);
  if (items.length === 0) return deeper;
  const last = deeper.at(-1)!;
  if (last.type === "list" && !last.ordered && !list.ordered)
    return [...deeper.slice(0, -1), { ...list, items: [...last.items, ...items] }];
  return [...deeper, { ...list, items, ...(list.ordered && { start: (list.start ?? 1) + 1 }) }];
}

/** Whether a flow is a line that begins and ends with text, as nearly all are: there is nothing to take off. */
function isTidy(flow: Flow): boolean {
  if (flow.type !== "paragraph") return false;
  const first = flow.runs[0];
  const last = flow.runs.at(-1);
  return first?.type === "text" && last?.type === "text" && isSeen(first.text) && last.text !== "";
}

/** Whether anything but white space stands in a text; most begin with a letter, which is quickly seen. */
function isSeen(text: string): boolean {
  const first = text.charCodeAt(0);
  return (first > 0x20 && first < 0x80) || /\S/.test(text);
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

/** A table without the blank rows at its edges, and, unless they must stay, the blank columns. */
function tidyTable(table: Table, keepColumns: boolean): Table {
  const used = usedRange(table.rows);
  if (!used) return table;
  const width = columnsOf(table);
  const { top, bottom } = used;
  const keepsColumns = keepColumns || bottom === top;
  const left = keepsColumns ? 0 : used.left;
  const right = keepsColumns ? width - 1 : used.right;
  if (top === 0 && bottom === table.rows.length - 1 && left === 0 && right === width - 1) return table;
  const cut = cutTable(table, { top, bottom, left, right });
  return table.caption ? { ...cut, caption: table.caption } : cut;
}
