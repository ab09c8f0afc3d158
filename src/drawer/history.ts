import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { retryOnConflict } from "./act.js";
import { lastStanding, lastUndone, type Change } from "./change.js";
import { hiddenTraces } from "./hidden.js";
import { deedOf } from "./saying.js";
import { Conflict, type Store } from "./store.js";
import { veiled } from "./traces.js";

/** A drawer's changes, the newest first, as they may be shown: of what is private now they tell nothing. */
export async function* shownLogOf(store: Store, drawer: string): AsyncGenerator<Change> {
  const traces = await hiddenTraces(store);
  for await (const change of logOf(store, drawer)) yield traces ? veiled(change, traces) : change;
}

/** A drawer's changes, the newest first. */
export async function* logOf(store: Store, drawer: string): AsyncGenerator<Change> {
  // One operation is looked for first; who reads on wants many.
  for (let offset = 0, limit = 4; ; offset += limit, limit = 50) {
    const page = await store.changes({ drawer, offset, limit });
    yield* page;
    if (page.length < limit) return;
  }
}

/** Undoes the last operation that still stands, or does again what was last undone. */
export async function undoOrRedo(
  store: Store,
  drawer: string,
  operation: "undo" | "redo",
): Promise<Notice[]> {
  let message = "";
  let stuckAt: string | undefined;
  const shown = async (change: Change) => {
    const traces = await hiddenTraces(store);
    return traces ? veiled(change, traces) : change;
  };
  await retryOnConflict(drawer, async () => {
    const log = logOf(store, drawer);
    const target = await (operation === "undo" ? lastStanding(log) : lastUndone(log));
    if (!target)
      throw new DrawerError(
        "nothing",
        operation === "undo" ? "There is nothing to undo." : "There is nothing to do again.",
      );
    try {
      const { count, first } = await store.revert(target, operation);
      const done = deedOf(await shown(first), target.groupId === undefined ? undefined : count);
      message = operation === "undo" ? `Undone: ${done}.` : `Done again: ${done}.`;
    } catch (error) {
      if (error instanceof Conflict && stuckAt === target.id) throw stuck(await shown(target), operation);
      stuckAt = target.id;
      throw error;
    }
  });
  return [{ code: operation === "undo" ? "undone" : "redone", message }];
}

/**
 * Reverts what was written of a group that could not be written whole.
 * @returns how many snippets that were
 */
export async function revertGroup(store: Store, drawer: string, groupId: string): Promise<number> {
  let count = 0;
  await retryOnConflict(drawer, async () => {
    count = 0;
    for await (const change of logOf(store, drawer)) {
      if (change.groupId !== groupId) continue;
      count = (await store.revert(change, "undo")).count;
      return;
    }
  });
  return count;
}

/** What was done in one drawer is in the way of what was done in another. */
function stuck(target: Change, operation: "undo" | "redo"): DrawerError {
  const others = [...new Set(target.edits.flatMap(({ before, after }) => [before?.drawer, after?.drawer]))];
  const where = others
    .filter((name) => name !== undefined && name !== target.drawer)
    .map((name) => `“${name}”`);
  const there = where.length > 0 ? ` in the drawer ${where.join(", ")}` : "";
  return new DrawerError(
    "conflict",
    `This cannot be ${operation === "undo" ? "undone" : "done again"}: ${deedOf(target)}. It has been changed since${there}; undo that first.`,
  );
}
