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
  return runs.every((run) => run.type === "break" || (run.type === "text" && run.text.trim() === ""));
}

/** Whether two sets of marks look the same. */
export function sameMarks(a: Marks | undefined, b: Marks | undefined): boolean {
  if (a === b) return true;
  const left = (a ?? {}) as Record<string, unknown>;
  const right = (b ?? {}) as Record<string, unknown>;
  for (const name in left) if (left[name] !== right[name]) return false;
  for (const name in right) if (!(name in left)) return false;
  return true;
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
  // Lines are kept by the thousand, and a list that has grown keeps room for more.
  return merged.slice();
}
