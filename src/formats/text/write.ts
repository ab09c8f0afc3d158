import { markText } from "../../content/marker.js";
import type { Content, Flow, List, NoteRun, Table } from "../../content/model.js";
import { NoteNumbers } from "../../content/notes.js";
import { runsText } from "../../content/runs.js";
import { mapRows } from "../../content/spans.js";

/**
 * Writes content as plain text, `\n` between lines and none at the end: a paragraph is a line, a list item a line with
 * its bullet or number, a table row a line whose cells are parted by tabs (line ends inside a cell become spaces, so
 * that the rows stay rows; {@link writeDelimited} keeps them). A blank line parts two numbered lists that follow each
 * other, which would read as one. A picture within a line is its description in square brackets; notes are a numbered
 * list at the end.
 */
export function writeText(content: Content): string {
  const lines: string[] = [];
  const notes = new NoteNumbers();
  const called: Called = (note) => `[${notes.numberOf(note)}]`;
  flowsLines(content, lines, called);
  let number = 1;
  for (const flows of notes.bodies()) {
    if (number === 1 && isNumbered(content.at(-1))) lines.push("");
    itemLines(`${number++}. `, flows, lines, called);
  }
  return lines.join("\n");
}

/** What stands in a line where a note is called. */
type Called = (note: NoteRun) => string;

function flowsLines(content: Content, lines: string[], called: Called): void {
  let before: Flow | undefined;
  for (const flow of content) {
    if (isNumbered(before) && isNumbered(flow)) lines.push("");
    flowLines(flow, lines, called);
    before = flow;
  }
}

function isNumbered(flow: Flow | undefined): boolean {
  return flow?.type === "list" && flow.ordered;
}

function flowLines(flow: Flow, lines: string[], called: Called): void {
  switch (flow.type) {
    case "paragraph":
    case "heading":
      lines.push(runsText(flow.runs, called));
      break;
    case "list":
      listLines(flow, lines, called);
      break;
    case "table":
      tableLines(flow, lines, called);
      break;
    case "quote":
      flowsLines(flow.flows, lines, called);
      break;
    case "code":
      lines.push(flow.text);
      break;
    case "picture":
      lines.push(flow.alt);
      break;
    case "divider":
      lines.push("———");
      break;
    default:
      flow satisfies never;
  }
}

function listLines(list: List, lines: string[], called: Called): void {
  for (const [at, item] of list.items.entries())
    itemLines(`${markText(list, at)} `, item.flows, lines, called);
}

function itemLines(mark: string, flows: Content, lines: string[], called: Called): void {
  const indent = " ".repeat(mark.length);
  const inner: string[] = [];
  flowsLines(flows, inner, called);
  if (inner.length === 0) inner.push("");
  inner.forEach((line, index) => {
    lines.push((index === 0 ? mark : indent) + line.replaceAll("\n", "\n" + indent));
  });
}

function tableLines(table: Table, lines: string[], called: Called): void {
  if (table.caption) lines.push(runsText(table.caption, called));
  const rows = mapRows(table.rows, (cells, columns) => {
    const line: string[] = [];
    for (const [at, cell] of cells.entries()) {
      while (line.length < columns[at]!) line.push("");
      line.push(cellText(cell.flows, called).replace(/[\t\n]+/g, " "));
      for (let i = 1; i < (cell.colspan ?? 1); i++) line.push("");
    }
    return line.join("\t");
  });
  for (const row of rows) lines.push(row);
}

/**
 * The text of a cell: what it shows, its lines parted by `\n`.
 * @param called what stands where a note is called; without it they are left out, or, where the cell is more than a line,
 * stand at its end
 */
export function cellText(flows: Content, called?: (note: NoteRun) => string): string {
  const only = flows.length === 1 ? flows[0]! : undefined;
  if (only?.type === "paragraph") return runsText(only.runs, called);
  if (!called) return writeText(flows);
  const lines: string[] = [];
  flowsLines(flows, lines, called);
  return lines.join("\n");
}
