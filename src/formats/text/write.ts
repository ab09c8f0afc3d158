import { mapRows } from "../../content/spans.js";
import type { Content, Flow, List, Table } from "../../content/model.js";
import { markText } from "../../content/marker.js";
import { withNotesAtEnd } from "../../content/notes.js";
import { runsText } from "../../content/runs.js";

/**
 * Writes content as plain text, `\n` between lines and none at the end: a paragraph is a line, a list item a line with
 * its bullet or number, a table row a line whose cells are parted by tabs (line ends inside a cell become spaces, so
 * that the rows stay rows; {@link writeDelimited} keeps them). A blank line parts two numbered lists that follow each
 * other, which would read as one. A picture within a line is its description in square brackets; notes are a numbered
 * list at the end.
 */
export function writeText(content: Content): string {
  const lines: string[] = [];
  flowsLines(withNotesAtEnd(content), lines);
  return lines.join("\n");
}

function flowsLines(content: Content, lines: string[]): void {
  let before: Flow | undefined;
  for (const flow of content) {
    if (isNumbered(before) && isNumbered(flow)) lines.push("");
    flowLines(flow, lines);
    before = flow;
  }
}

function isNumbered(flow: Flow | undefined): boolean {
  return flow?.type === "list" && flow.ordered;
}

function flowLines(flow: Flow, lines: string[]): void {
  switch (flow.type) {
    case "paragraph":
    case "heading":
      lines.push(runsText(flow.runs));
      break;
    case "list":
      listLines(flow, lines);
      break;
    case "table":
      tableLines(flow, lines);
      break;
    case "quote":
      flowsLines(flow.flows, lines);
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

function listLines(list: List, lines: string[]): void {
  for (const [at, item] of list.items.entries()) {
    const mark = `${markText(list, at)} `;
    const indent = " ".repeat(mark.length);
    const inner: string[] = [];
    flowsLines(item.flows, inner);
    if (inner.length === 0) inner.push("");
    inner.forEach((line, index) => {
      lines.push((index === 0 ? mark : indent) + line.replaceAll("\n", "\n" + indent));
    });
  }
}

function tableLines(table: Table, lines: string[]): void {
  if (table.caption) lines.push(runsText(table.caption));
  const rows = mapRows(table.rows, (cells, columns) => {
    const line: string[] = [];
    for (const [at, cell] of cells.entries()) {
      while (line.length < columns[at]!) line.push("");
      line.push(cellText(cell.flows).replace(/[\t\n]+/g, " "));
      for (let i = 1; i < (cell.colspan ?? 1); i++) line.push("");
    }
    return line.join("\t");
  });
  for (const row of rows) lines.push(row);
}

/** The text of a cell: what it shows, its lines parted by `\n`. */
export function cellText(flows: Content): string {
  const only = flows.length === 1 ? flows[0]! : undefined;
  if (only?.type === "paragraph") return runsText(only.runs);
  return writeText(flows);
}
