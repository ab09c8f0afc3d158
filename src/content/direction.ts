import type { Direction, Run } from "./model.js";

/** Letters of scripts that are written from right to left. */
const RIGHT_TO_LEFT =
  /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Adlam}\p{Script=Mandaic}\p{Script=Samaritan}]/u;
const LETTER = /\p{L}/u;
/** Whether a text has letters beyond those of Latin, Greek and Cyrillic; most have none, which is quickly seen. */
const BEYOND = /[\u0590-\u08ff\ud83a\ufb1d-\ufefc]/;

/** The direction of a line: as it says, or, where it does not, from right to left where its first letter is (Unicode UAX #9, P2). */
export function directionOf(line: {
  readonly direction?: Direction;
  readonly runs: readonly Run[];
}): Direction | undefined {
  if (line.direction) return line.direction;
  if (!hasBeyond(line.runs)) return undefined;
  for (const run of line.runs) {
    const first = run.type === "text" ? LETTER.exec(run.text)?.[0] : undefined;
    if (first !== undefined) return RIGHT_TO_LEFT.test(first) ? "rtl" : undefined;
  }
  return undefined;
}

function hasBeyond(runs: readonly Run[]): boolean {
  for (const run of runs) if (run.type === "text" && BEYOND.test(run.text)) return true;
  return false;
}
