import type { Rectangle } from "./cells.js";
import { withoutControls } from "./controls.js";
import { runsText, type Cell, type Content, type Flow, type Picture, type Run, type Table } from "./model.js";

/** What sort of thing a snippet is, in one word. */
export type Kind = (typeof KINDS)[number];

/** The kinds there are. */
export const KINDS = ["text", "table", "picture", "link"] as const;

/**
 * Tells what sort of thing some content is: a lone picture, a lone table or a lone link is named for what it is;
 * anything else is text.
 */
export function kindOf(content: Content): Kind {
  const flows = content.filter((flow) => !isBlank([flow]));
  const only = flows.length === 1 ? flows[0] : undefined;
  if (!only) return "text";
  if (only.type === "table" || only.type === "picture") return only.type;
  if (only.type !== "paragraph") return "text";
  if (only.runs.length > 0 && only.runs.every((run) => run.type === "picture")) return "picture";
  return linkOf(only.runs) === undefined ? "text" : "link";
}

/** The one address that all of these runs link to, if they are one link and nothing else. */
function linkOf(runs: readonly Run[]): string | undefined {
  let link: string | undefined;
  for (const run of runs) {
    if (run.type === "text" && run.text.trim() === "") continue;
    if (run.type !== "text" || !run.marks?.link || (link !== undefined && link !== run.marks.link))
      return undefined;
    link = run.marks.link;
  }
  return link;
}

/** Whether there is nothing to see in the content: no letter, no picture, no line. */
export function isBlank(content: Content): boolean {
  return content.every((flow) => {
    switch (flow.type) {
      case "paragraph":
      case "heading":
        return blankRuns(flow.runs);
      case "list":
        return flow.items.every((item) => isBlank(item.flows));
      case "quote":
        return isBlank(flow.flows);
      case "table":
        return (
          flow.rows.every((row) => row.every((cell) => isBlank(cell.flows))) && blankRuns(flow.caption ?? [])
        );
      case "code":
        return flow.text.trim() === "";
      case "picture":
      case "divider":
        return false;
    }
  });
}

/** Whether a line holds nothing but breaks and spaces. */
export function blankRuns(runs: readonly Run[]): boolean {
  return runs.every((run) => run.type === "break" || (run.type === "text" && run.text.trim() === ""));
}

/**
 * The beginning of the content as one line of text, for lists and messages: line ends become spaces, flows are parted by
 * ` · `, cells by ` | `, rows by ` / `. Stops reading once it has `length` characters, so it is quick on content of any size.
 */
export function beginning(content: Content, length: number): string {
  let text = "";
  let between = "";
  const add = (more: string) => {
    const next = withoutControls(more).replace(/\s+/g, " ").trim();
    if (next !== "") {
      text += text === "" ? next : between + next;
      between = " · ";
    }
    return text.length > length;
  };
  const visit = (flow: Flow): boolean => {
    switch (flow.type) {
      case "paragraph":
      case "heading":
        return add(runsText(flow.runs));
      case "list":
        return flow.items.some((item) => item.flows.some(visit));
      case "quote":
        return flow.flows.some(visit);
      case "code":
        return add(flow.text);
      case "picture":
        return add(flow.alt === "" ? "picture" : flow.alt);
      case "divider":
        return add("—");
      case "table":
        return add(runsText(flow.caption ?? [])) || flow.rows.some(visitRow);
    }
  };
  const visitRow = (row: readonly Cell[], index: number): boolean => {
    if (index > 0) between = " / ";
    return row.some((cell, column) => {
      if (column > 0 && between !== " / ") between = " | ";
      return cell.flows.some(visit);
    });
  };
  content.some(visit);
  if (text.length <= length) return text;
  const cut = text.slice(0, length - 1).replace(/[\uD800-\uDBFF]$/, "");
  return cut.trimEnd() + "…";
}

/** Calls `visit` with every flow, those in items, quotes and cells included, in reading order. */
export function eachFlow(content: Content, visit: (flow: Flow) => void): void {
  for (const flow of content) {
    visit(flow);
    if (flow.type === "list") for (const item of flow.items) eachFlow(item.flows, visit);
    else if (flow.type === "quote") eachFlow(flow.flows, visit);
    else if (flow.type === "table") {
      for (const row of flow.rows) for (const cell of row) eachFlow(cell.flows, visit);
    }
  }
}

/** The pictures of the content, in reading order. */
export function picturesOf(content: Content): Picture[] {
  const pictures: Picture[] = [];
  eachFlow(content, (flow) => {
    if (flow.type === "picture") pictures.push(flow);
    else if (flow.type === "paragraph" || flow.type === "heading") {
      for (const run of flow.runs) if (run.type === "picture") pictures.push(run);
    }
  });
  return pictures;
}

/**
 * A row's cells with the column each begins in, counting from 0; `covered` carries, from row to row, how many more
 * rows each column is covered from above. Pass the same array for each row of a table, beginning with an empty one.
 */
export function placeCells(row: readonly Cell[], covered: number[]): { cell: Cell; column: number }[] {
  const placed: { cell: Cell; column: number }[] = [];
  let column = 0;
  for (const cell of row) {
    while ((covered[column] ?? 0) > 0) column++;
    placed.push({ cell, column });
    column += cell.colspan ?? 1;
  }
  for (let i = 0; i < covered.length; i++) if (covered[i]! > 0) covered[i]!--;
  for (const { cell, column: from } of placed) {
    const down = (cell.rowspan ?? 1) - 1;
    if (down > 0) for (let i = 0; i < (cell.colspan ?? 1); i++) covered[from + i] = down;
  }
  return placed;
}

/** Whether any cell spans more than its own place. Nearly no table has one that does. */
export function hasSpans(rows: Table["rows"]): boolean {
  for (const row of rows)
    for (const cell of row) if (cell.colspan !== undefined || cell.rowspan !== undefined) return true;
  return false;
}

/** How many columns a table has, counting spans. */
export function columnsOf(table: Table): number {
  const covered: number[] = [];
  let width = 0;
  if (!hasSpans(table.rows)) {
    for (const row of table.rows) if (row.length > width) width = row.length;
    return width;
  }
  for (const row of table.rows) {
    for (const { cell, column } of placeCells(row, covered))
      width = Math.max(width, column + (cell.colspan ?? 1));
  }
  return width;
}

/** The smallest rectangle of a table that holds all cells which show something; nothing when none does. */
export function usedRange(rows: Table["rows"]): Rectangle | undefined {
  const covered: number[] = [];
  const spans = hasSpans(rows);
  let top = -1;
  let bottom = -1;
  let left = Infinity;
  let right = -1;
  rows.forEach((row, index) => {
    const placed = spans ? placeCells(row, covered) : undefined;
    const use = (cell: Cell, column: number) => {
      if (top < 0) top = index;
      bottom = Math.max(bottom, Math.min(rows.length, index + (cell.rowspan ?? 1)) - 1);
      left = Math.min(left, column);
      right = Math.max(right, column + (cell.colspan ?? 1) - 1);
    };
    if (placed) {
      for (const { cell, column } of placed) if (!isBlank(cell.flows)) use(cell, column);
      return;
    }
    // Only what could widen the rectangle is looked at, so that a long table costs little.
    const first = row.findIndex((cell) => !isBlank(cell.flows));
    if (first < 0) return;
    use(row[first]!, first);
    for (let column = row.length - 1; column > right; column--)
      if (!isBlank(row[column]!.flows)) use(row[column]!, column);
  });
  return top < 0 ? undefined : { top, left, bottom, right };
}
