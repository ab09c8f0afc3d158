import type { Content, Run } from "../../../content/model.js";
import { eachFlow, ownLine } from "../../../content/traverse.js";
import { writeText } from "../../../formats/text/write.js";

/** What an editor shows before a block is put into it, to be compared with what it shows after. */
export interface Shown {
  readonly words: ReadonlyMap<string, number>;
  /** How many lines have something on them. */
  readonly lines: number;
  readonly tables: number;
}

/** What an editor shows now. */
export function shownIn(host: HTMLElement): Shown {
  const lines = linesOf(host.innerText);
  return { words: counted(lines.flatMap(wordsOf)), lines: lines.length, tables: tablesIn(host) };
}

function tablesIn(host: HTMLElement): number {
  return host.querySelectorAll("table, [role=table]").length;
}

/** Whether the tables of a block are tables where it has landed. */
export function haveTablesLanded(content: Content, before: Shown, host: HTMLElement): boolean {
  return !content.some((flow) => flow.type === "table") || tablesIn(host) > before.tables;
}

/**
 * Whether the words of a block have landed whole, and apart where they were: an editor without tables runs their cells together.
 * The first and the last word may have joined what stood there.
 */
export function haveWordsLanded(content: Content, before: Shown, host: HTMLElement): boolean {
  const after = shownIn(host);
  const words = wordsIn(content).slice(1, -1);
  for (const [word, count] of counted(words))
    if ((after.words.get(word) ?? 0) - (before.words.get(word) ?? 0) < count) return false;
  let drawn = 0;
  eachFlow(content, ({ type }) => void ((type === "picture" || type === "divider") && drawn++));
  return after.lines - before.lines >= linesOf(writeText(content)).length - drawn - 1;
}

/** The words of content in order, without marks of lists, notes and pictures. */
function wordsIn(content: Content): string[] {
  const words: string[] = [];
  eachFlow(content, (flow) => {
    if (flow.type === "code") words.push(...wordsOf(flow.text));
    else words.push(...wordsOf((ownLine(flow) ?? []).map(textOf).join("")));
  });
  return words;
}

function textOf(run: Run): string {
  return run.type === "text" ? run.text : " ";
}

function linesOf(text: string): string[] {
  return text.split("\n").filter((line) => line.trim() !== "");
}

function wordsOf(line: string): string[] {
  return line.split(/\s+/).filter((word) => word !== "");
}

function counted(words: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  return counts;
}
