import type { Align, Cell, Content, Flow, Item, List, Table } from "../../content/model.js";
import { NoteNumbers } from "../../content/notes.js";
import { blankRuns } from "../../content/runs.js";
import { columnsOf, fillGrid } from "../../content/spans.js";
import { isBlank, eachFlow, ownLine } from "../../content/traverse.js";
import type { LineOptions, MarkdownOptions } from "./options.js";
import { spansMarkdown } from "./write-line.js";

/**
 * Writes content as Markdown (CommonMark with GitHub's tables, strikethrough and footnotes), without a line end at the end.
 * Underline, sub and sup are written as the HTML elements that Markdown allows; what Markdown has no form for (colour,
 * font, size, alignment outside tables, merged cells, empty paragraphs) is left out.
 * @param content what is written
 * @param options where pictures are to be found
 */
export function writeMarkdown(content: Content, options: MarkdownOptions = {}): string {
  const notes = new NoteNumbers();
  const parts = [blocks(content, { ...options, notes })];
  for (const body of notes.bodies()) {
    parts.push(`[^${parts.length}]: ${blocks(body, { ...options, notes }).replace(/\n(?!\n|$)/g, "\n    ")}`);
  }
  return parts.join("\n\n");
}

/** Flows parted by blank lines; lists of one sort that follow each other get different bullets, or they would join. */
function blocks(content: Content, options: LineOptions): string {
  const parts: string[] = [];
  let before: Flow | undefined;
  let turn = 0;
  for (const flow of content) {
    if (flow.type === "paragraph" && blankRuns(flow.runs)) continue;
    turn = flow.type === "list" && before?.type === "list" && before.ordered === flow.ordered ? 1 - turn : 0;
    parts.push(block(flow, turn, options));
    before = flow;
  }
  return parts.join("\n\n");
}

function block(flow: Flow, turn: number, options: LineOptions): string {
  switch (flow.type) {
    case "paragraph":
      return spansMarkdown(flow.runs, "lines", options);
    case "heading":
      return `${"#".repeat(flow.level)} ${spansMarkdown(flow.runs, "heading", options)}`.trimEnd();
    case "list":
      return list(flow, turn, options);
    case "table":
      return table(flow, options);
    case "quote":
      return blocks(flow.flows, options).replace(/^/gm, "> ").replace(/ +$/gm, "");
    case "code":
      return code(flow.text, flow.language);
    case "picture":
      return spansMarkdown([flow], "lines", options);
    case "divider":
      return "***";
  }
}

function code(text: string, language = ""): string {
  const longest = text.match(/`{3,}/g)?.reduce((most, ticks) => Math.max(most, ticks.length), 0) ?? 2;
  const fence = "`".repeat(longest + 1);
  return `${fence}${language}\n${text}${text === "" ? "" : "\n"}${fence}`;
}

function list(flow: List, turn: number, options: LineOptions): string {
  let number = Math.min(flow.start ?? 1, 999_999_999 - flow.items.length);
  const mark = () => (flow.ordered ? `${number++}${turn ? ")" : "."} ` : turn ? "+ " : "- ");
  const items = flow.items.map((item) => indent(itemBlocks(item, options), mark()));
  return items.join("\n");
}

/** The line and a list under it stand together; other flows of an item are parted by blank lines. */
function itemBlocks(item: Item, options: LineOptions): string {
  const [first, ...rest] = item.flows;
  const [under] = rest;
  if (
    first?.type === "paragraph" &&
    rest.every((flow) => flow.type === "list") &&
    under &&
    mayInterrupt(under)
  ) {
    return `${block(first, 0, options)}\n${blocks(rest, options)}`;
  }
  return blocks(item.flows, options);
}

/** Whether a list may follow a line without a blank one between them (CommonMark 5.3). */
function mayInterrupt(list: Flow): boolean {
  return (
    list.type === "list" && (!list.ordered || (list.start ?? 1) === 1) && !isBlank(list.items[0]?.flows ?? [])
  );
}

function indent(text: string, mark: string): string {
  const margin = " ".repeat(mark.length);
  return (mark + text.replace(/\n(?!\n|$)/g, "\n" + margin)).trimEnd();
}

function table(flow: Table, options: LineOptions): string {
  const aligns: (Align | undefined)[] = [];
  const grid = fillGrid(flow, "", (cell, column, row) => {
    if (row >= flow.headerRows) aligns[column] ??= cell.align ?? "left";
    return cellMarkdown(cell, options);
  });
  const head = flow.headerRows > 0 ? grid.shift()! : Array.from({ length: columnsOf(flow) }, () => "");
  const rule = head.map((_, column) => RULES[aligns[column] ?? "left"]);
  const caption = flow.caption ? `${spansMarkdown(flow.caption, "lines", options)}\n\n` : "";
  return caption + [head, rule, ...grid].map((line) => `| ${line.join(" | ")} |`).join("\n");
}

const RULES: Readonly<Record<Align, string>> = { left: "---", center: ":-:", right: "--:", justify: "---" };

/** A cell on one line: its lines are parted by `<br>`, its structure below the line is given up. */
function cellMarkdown(cell: Cell, options: LineOptions): string {
  const lines: string[] = [];
  eachFlow(cell.flows, (flow) => {
    const line = flow.type === "code" ? codeRuns(flow.text) : ownLine(flow);
    if (line) lines.push(spansMarkdown(line, "cell", options));
  });
  return lines.join("<br>");
}

function codeRuns(text: string) {
  return text
    .split("\n")
    .flatMap((line, index) => [
      ...(index > 0 ? [{ type: "break" } as const] : []),
      { type: "text", text: line, marks: { code: true } } as const,
    ]);
}
