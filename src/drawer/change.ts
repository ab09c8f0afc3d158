import type { Entry } from "./entry.js";

/** What one edit did to one entry: `before` is null for one that came, `after` for one that left. */
export interface Edit {
  readonly id: string;
  readonly before: Entry | null;
  readonly after: Entry | null;
}

/** What a change was for. */
export type What = "collect" | "append" | "merge" | "split" | "move" | "discard" | "undo" | "redo";

/** One act of the user: all its edits are done, or none. */
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
  readonly edits: readonly Edit[];
}

/** The edits that take these back. */
export function reversed(edits: readonly Edit[]): Edit[] {
  return edits.map(({ id, before, after }) => ({ id, before: after, after: before })).reverse();
}

/**
 * Finds in a log, read from the newest change back, what `undo` would take back: the last change that still stands.
 * Undos and redos pair up like brackets.
 */
export async function lastStanding(log: AsyncIterable<Change>): Promise<Change | undefined> {
  let undone = 0;
  for await (const change of log) {
    if (change.what === "undo") undone++;
    else if (undone > 0) undone--;
    else return change;
  }
  return undefined;
}

/** Finds in a log, read from the newest change back, the undo that `redo` would take back; none after a new change. */
export async function lastUndone(log: AsyncIterable<Change>): Promise<Change | undefined> {
  let redone = 0;
  for await (const change of log) {
    if (change.what === "redo") redone++;
    else if (change.what !== "undo") return undefined;
    else if (redone > 0) redone--;
    else return change;
  }
  return undefined;
}
