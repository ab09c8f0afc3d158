import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { changeOf, untilItStands } from "./act.js";
import { isSameAct, lastStanding, lastUndone, reversed, reversedValues, type Change } from "./change.js";
import { hiddenTraces } from "./hidden.js";
import { deedOf } from "./saying.js";
import { Conflict, type Commit, type Store } from "./store.js";
import { veiled } from "./traces.js";

/** A drawer's changes, the newest first, as they may be shown: of what is private now they tell nothing. */
export async function* shownLogOf(store: Store, drawer: string): AsyncGenerator<Change> {
  const traces = await hiddenTraces(store);
  for await (const change of logOf(store, drawer)) yield traces ? veiled(change, traces) : change;
}

/** A drawer's changes, the newest first. */
export async function* logOf(store: Store, drawer: string): AsyncGenerator<Change> {
  // One act is looked for first; who reads on wants many.
  for (let offset = 0, limit = 4; ; offset += limit, limit = 50) {
    const page = await store.changes({ drawer, offset, limit });
    yield* page;
    if (page.length < limit) return;
  }
}

/** Takes back the last act that still stands, or does again what was last undone. */
export async function turnBack(store: Store, drawer: string, what: "undo" | "redo"): Promise<Notice[]> {
  let message = "";
  let stuckAt: string | undefined;
  const shown = async (change: Change) => {
    const traces = await hiddenTraces(store);
    return traces ? veiled(change, traces) : change;
  };
  await untilItStands(drawer, async () => {
    const log = logOf(store, drawer);
    const target = await (what === "undo" ? lastStanding(log) : lastUndone(log));
    if (!target)
      throw new DrawerError(
        "nothing",
        what === "undo" ? "There is nothing to undo." : "There is nothing to do again.",
      );
    const turned: { count: number; last: Change } = { count: 0, last: target };
    try {
      await store.commit(turnedBack(store, target, what, turned));
    } catch (error) {
      if (error instanceof Conflict && stuckAt === target.id) throw stuck(await shown(target), what);
      stuckAt = target.id;
      throw error;
    }
    const deed = deedOf(await shown(turned.last), target.act === undefined ? undefined : turned.count);
    message = what === "undo" ? `Undone: ${deed}.` : `Done again: ${deed}.`;
  });
  return [{ code: what === "undo" ? "undone" : "redone", message }];
}

/** What takes an act back, change by change; `turned` tells how many snippets it is about, and its first change. */
async function* turnedBack(
  store: Store,
  target: Change,
  what: "undo" | "redo",
  turned: { count: number; last: Change | undefined },
): AsyncGenerator<Commit> {
  const act = target.act === undefined ? undefined : changeOf(target.drawer, what).id;
  let part = 0;
  for await (const change of target.act === undefined ? [target] : changesOf(store, target)) {
    turned.count += change.edits.length;
    // An undo is written from the last change back, so its newest change is of what was first.
    if (change.what !== "undo") turned.last = change;
    const deed = change.deed ?? change.what;
    const values = change.values && { values: reversedValues(change.values) };
    yield {
      change: {
        ...changeOf(change.drawer, what),
        ...(act !== undefined && { act, part: ++part }),
        deed,
        edits: reversed(change.edits),
        ...values,
      },
      contents: new Map(),
    };
  }
}

/** All changes of an act, the newest first. */
async function* changesOf(store: Store, target: Change): AsyncGenerator<Change> {
  for await (const change of logOf(store, target.drawer)) {
    if (!isSameAct(change, target)) continue;
    yield change;
    if (change.part === 1) return;
  }
}

/**
 * Takes back what was done of an act that could not be done whole.
 * @returns how many snippets that were
 */
export async function takeBack(store: Store, drawer: string, act: string): Promise<number> {
  const turned: { count: number; last: Change | undefined } = { count: 0, last: undefined };
  await untilItStands(drawer, async () => {
    Object.assign(turned, { count: 0, last: undefined });
    for await (const change of logOf(store, drawer)) {
      if (change.act !== act) continue;
      await store.commit(turnedBack(store, change, "undo", turned));
      return;
    }
  });
  return turned.count;
}

/** What was done in one drawer is in the way of what was done in another. */
function stuck(target: Change, what: "undo" | "redo"): DrawerError {
  const others = [...new Set(target.edits.flatMap(({ before, after }) => [before?.drawer, after?.drawer]))];
  const where = others
    .filter((name) => name !== undefined && name !== target.drawer)
    .map((name) => `“${name}”`);
  const there = where.length > 0 ? ` in the drawer ${where.join(", ")}` : "";
  return new DrawerError(
    "conflict",
    `This cannot be ${what === "undo" ? "undone" : "done again"}: ${deedOf(target)}. It has been changed since${there}; undo that first.`,
  );
}
