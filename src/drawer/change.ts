import type { Entry } from "./entry.js";

/** What one edit did to one entry: `before` is null for one that came, `after` for one that left. */
export interface Edit {
  readonly id: string;
  readonly before: Entry | null;
  readonly after: Entry | null;
}

/** What one edit did to one of the drawer's small named values, as JSON text; nothing for one that is not there. */
export interface ValueEdit {
  readonly name: string;
  readonly before?: string;
  readonly after?: string;
}

/** What a change was for. */
export type What =
  | "collect"
  | "import"
  | "append"
  | "merge"
  | "split"
  | "move"
  | "copy"
  | "label"
  | "keep"
  | "release"
  | "hide"
  | "unhide"
  | "discard"
  | "empty"
  | "age"
  | "restore"
  | "rule"
  | "recipe"
  | "undo"
  | "redo";

/** What the user did, or a part of it: all its edits are done, or none. */
export interface Change {
  /** UUID version 7. */
  readonly id: string;
  /** The drawer in whose log it stands. */
  readonly drawer: string;
  /** ISO 8601, in UTC. */
  readonly at: string;
  readonly what: What;
  /** For an undo or a redo: what the change that it takes back, or does again, was for. */
  readonly deed?: What;
  /**
   * For an act that is too large for one change: the same for all its changes. Others may have written their own
   * between them.
   */
  readonly act?: string;
  /** The number of this change among those of its act, from 1. */
  readonly part?: number;
  readonly edits: readonly Edit[];
  readonly values?: readonly ValueEdit[];
}

/** Whether two changes are of one act. */
export function isSameAct(one: Change, other: Change): boolean {
  return one.act !== undefined && one.act === other.act;
}

/**
 * Whether what this change takes out of the drawer has left it, and can be brought back; what is merged or split lives
 * on in other snippets.
 */
export function isLeaving({ what, deed = what }: Change): boolean {
  return deed !== "merge" && deed !== "split";
}

/** The edits that take these back. */
export function reversed(edits: readonly Edit[]): Edit[] {
  return edits.map(({ id, before, after }) => ({ id, before: after, after: before })).reverse();
}

/** The edits of values that take these back. */
export function reversedValues(edits: readonly ValueEdit[]): ValueEdit[] {
  return edits
    .map(({ name, before, after }) => ({
      name,
      ...(after !== undefined && { before: after }),
      ...(before !== undefined && { after: before }),
    }))
    .reverse();
}

/** One change of each act of a log, the newest. */
async function* acts(log: AsyncIterable<Change>): AsyncGenerator<Change> {
  const seen = new Set<string>();
  for await (const change of log) {
    if (change.act === undefined || !seen.has(change.act)) yield change;
    if (change.act !== undefined) seen.add(change.act);
  }
}

/**
 * Finds in a log, read from the newest change back, what `undo` would take back: the last act that still stands, by its
 * newest change. Undos and redos pair up like brackets.
 */
export async function lastStanding(log: AsyncIterable<Change>): Promise<Change | undefined> {
  let undone = 0;
  for await (const change of acts(log)) {
    if (change.what === "undo") undone++;
    else if (undone > 0) undone--;
    else return change;
  }
  return undefined;
}

/** Finds in a log, read from the newest change back, the undo that `redo` would take back; none after a new act. */
export async function lastUndone(log: AsyncIterable<Change>): Promise<Change | undefined> {
  let redone = 0;
  for await (const change of acts(log)) {
    if (change.what === "redo") redone++;
    else if (change.what !== "undo") return undefined;
    else if (redone > 0) redone--;
    else return change;
  }
  return undefined;
}
