import { content as words } from "../messages/en/content.js";
import type { Marks, NoteRun, Run } from "./model.js";

/**
 * The text of some runs: a line break is `\n`; a picture its alternative text, in square brackets where there is text
 * beside it; a note nothing, or what `called` says.
 * @param runs the runs of one line
 * @param called what stands where a note is called; nothing without it
 */
export function runsText(runs: readonly Run[], called?: (note: NoteRun) => string): string {
  let text = "";
  for (const run of runs) {
    if (run.type === "text") text += run.text;
    else if (run.type === "break") text += "\n";
    else if (run.type === "note") text += called?.(run) ?? "";
    else text += runs.length === 1 ? run.alt : `[${run.alt || words.picture}]`;
  }
  return text;
}

/** Whether a line holds nothing but breaks and spaces. */
export function blankRuns(runs: readonly Run[]): boolean {
  for (let at = 0; at < runs.length; at++) {
    const run = runs[at]!;
    if (run.type !== "break" && (run.type !== "text" || !isBlankText(run.text))) return false;
  }
  return true;
}

/** Whether a text holds nothing but spaces. Nearly all begin with a letter or a figure, so their first sign is looked at first. */
function isBlankText(text: string): boolean {
  const first = text.charCodeAt(0);
  return !(first > 0x20 && first < 0x7f) && !/\S/.test(text);
}

/** Whether two sets of marks look the same. */
export function sameMarks(a: Marks | undefined, b: Marks | undefined): boolean {
  if (a === b) return true;
  const left = (a ?? NO_MARKS) as Record<string, unknown>;
  const right = (b ?? NO_MARKS) as Record<string, unknown>;
  for (const name in left) if (left[name] !== right[name]) return false;
  for (const name in right) if (!(name in left)) return false;
  return true;
}

const NO_MARKS: Marks = {};

/** Joins neighbouring text runs that look the same, and leaves out empty ones. */
export function mergeRuns(runs: readonly Run[]): Run[] {
  let first = 0;
  while (first < runs.length && !isToMerge(runs[first]!, runs[first - 1])) first++;
  if (first === runs.length) return runs.slice();
  const merged = runs.slice(0, first);
  for (const run of runs.slice(first)) {
    const last = merged.at(-1);
    if (!isToMerge(run, last)) merged.push(run);
    else if (last?.type === "text" && run.type === "text" && run.text !== "")
      merged[merged.length - 1] = { ...last, text: last.text + run.text };
  }
  // Lines are kept by the thousand, and a list that has grown keeps room for more.
  return merged.slice();
}

/** Whether a run is no run of its own beside the one before it. */
function isToMerge(run: Run, before: Run | undefined): boolean {
  return (
    run.type === "text" &&
    (run.text === "" || (before?.type === "text" && sameMarks(before.marks, run.marks)))
  );
}
