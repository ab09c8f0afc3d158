import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { actErrors, actNotices } from "../messages/en/acts.js";
import { lastStanding, lastUndone, summaryOf, type Change } from "./model/change.js";
import { privateTraces } from "./private-traces.js";
import { Conflict, type Store } from "./store.js";
import { maskedChange } from "./traces.js";
import { retryOnConflict, type Context } from "./transaction.js";

/** A drawer's changes, the newest first, as they may be shown: of what is private now they tell nothing. */
export async function* shownLogOf(store: Store, drawer: string): AsyncGenerator<Change> {
  const traces = await privateTraces(store);
  for await (const change of logOf(store, drawer)) yield traces ? maskedChange(change, traces) : change;
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

/**
 * Undoes the last operation that still stands, or does again what was last undone.
 * @throws DrawerError `nothing`, `conflict`
 */
export async function undoOrRedo({ store, drawer }: Context, operation: "undo" | "redo"): Promise<Notice[]> {
  let stuckAt: string | undefined;
  const shown = async (change: Change) => {
    const traces = await privateTraces(store);
    return traces ? maskedChange(change, traces) : change;
  };
  return retryOnConflict(drawer, async () => {
    const log = logOf(store, drawer);
    const target = await (operation === "undo" ? lastStanding(log) : lastUndone(log));
    if (!target) throw new DrawerError(actErrors, operation === "undo" ? "nothing/undo" : "nothing/redo", {});
    try {
      const { count, first } = await store.revert(target, operation);
      const done = summaryOf(await shown(first), target.groupId === undefined ? undefined : count);
      return [notice(actNotices, operation === "undo" ? "undone" : "redone", { done })];
    } catch (error) {
      if (error instanceof Conflict && stuckAt === target.id) throw stuck(await shown(target), operation);
      stuckAt = target.id;
      throw error;
    }
  });
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
  const others = target.edits.flatMap(({ before, after }) => [before?.drawer, after?.drawer]);
  const drawers = [...new Set(others)].filter(
    (name) => name !== undefined && name !== target.drawer,
  ) as string[];
  return new DrawerError(actErrors, "conflict/undo", { operation, done: summaryOf(target), drawers });
}
