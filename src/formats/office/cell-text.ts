import type { Content, Marks, Run } from "../../content/model.js";
import { someRun } from "../../content/traverse.js";

/** Marks of emphasis that a part of a cell's text may have in a sheet. */
const EMPHASIS = ["bold", "italic", "underline", "strike", "sub", "sup"] as const;
/** All marks that it may have there. */
const IN_CELLS = [...EMPHASIS, "color"] as const;
/** How a part of a cell's text looks. */
export type CellMarks = Pick<Marks, (typeof IN_CELLS)[number]>;

/** A part of a cell's text, which looks one way. Line ends are `\n`. */
export interface CellPart {
  readonly text: string;
  readonly marks: CellMarks;
}

/**
 * The parts of a cell's text by how they look; nothing where all of it looks the same, and a cell's own look says how.
 * @param text the text of the cell; one of which more than its paragraphs is made has no parts
 */
export function cellParts(flows: Content, text: string): readonly CellPart[] | undefined {
  if (!someRun(flows, (run) => hasAny(run, IN_CELLS))) return undefined;
  const parts: { text: string; marks: CellMarks; key: string }[] = [];
  const add = (more: string, marks: CellMarks | undefined) => {
    const key = marks ? IN_CELLS.map((name) => marks[name] ?? "").join() : parts.at(-1)?.key;
    const last = parts.at(-1);
    if (last && last.key === key) last.text += more;
    else parts.push({ text: more, marks: marks ?? NO_MARKS, key: key ?? "" });
  };
  for (const [index, flow] of flows.entries()) {
    if (flow.type !== "paragraph") return undefined;
    if (index > 0) add("\n", undefined);
    for (const run of flow.runs) {
      if (run.type !== "text" && run.type !== "break") return undefined;
      add(run.type === "text" ? run.text : "\n", run.type === "text" ? (run.marks ?? NO_MARKS) : undefined);
    }
  }
  if (parts.map((part) => part.text).join("") !== text) return undefined;
  const [only, ...others] = parts;
  const { underline, strike, sub, sup } = only!.marks;
  return others.length > 0 || underline || strike || sub || sup ? parts : undefined;
}

const NO_MARKS: CellMarks = {};

/** Whether a run is set off by more than a colour. */
export function isEmphasised(run: Run): boolean {
  return hasAny(run, EMPHASIS);
}

function hasAny(run: Run, names: readonly (typeof IN_CELLS)[number][]): boolean {
  return run.type === "text" && run.marks !== undefined && names.some((name) => run.marks![name]);
}
