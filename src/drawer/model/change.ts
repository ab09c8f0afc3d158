import { defined } from "../../content/defined.js";
import type { ActionSummary, operations } from "../../messages/en/operations.js";
import type { Entry } from "./entry.js";
import { newId } from "./ids.js";
import { decodeRules, RULE_NAMES } from "./rules.js";
import { VALUES } from "./values.js";

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

/** The name of an operation, as the log keeps it; what people read for it stands in `messages`. */
export type OperationName = keyof typeof operations;

/** What the user did, or a part of it: all its edits are done, or none. */
export interface Change {
  /** UUID version 7. */
  readonly id: string;
  /** The drawer in whose log it stands. */
  readonly drawer: string;
  /** ISO 8601, in UTC. */
  readonly at: string;
  readonly operation: OperationName;
  /** For an undo or a redo: the operation that it takes back, or does again. */
  readonly undoneOperation?: OperationName;
  /**
   * For an operation that is too large for one change: the same for all its changes. Others may have written their own
   * between them.
   */
  readonly groupId?: string;
  /** The number of this change among those of its group, from 1. */
  readonly part?: number;
  readonly edits: readonly Edit[];
  readonly values?: readonly ValueEdit[];
}

/** A change as it begins: an id, the time, and what it is for. */
export function changeOf(drawer: string, operation: OperationName): Omit<Change, "edits"> {
  return { id: newId(), drawer, at: new Date().toISOString(), operation };
}

/** Whether two changes are of one group. */
export function isSameGroup(one: Change, other: Change): boolean {
  return one.groupId !== undefined && one.groupId === other.groupId;
}

/**
 * Whether what this change takes out of the drawer has left it, and can be brought back; what is merged or split lives
 * on in other snippets.
 */
export function isLeaving({ operation, undoneOperation = operation }: Change): boolean {
  return undoneOperation !== "merge" && undoneOperation !== "split";
}

/** Operations that take out what a person said. */
const TAKING_OUT: readonly OperationName[] = ["discard", "empty", "merge", "split"];

/** Whether what this change takes out was taken out by a person; any other lets go of it, by limits or age. */
export function isTakingOut({ operation, undoneOperation = operation }: Change): boolean {
  return operation === "undo" || TAKING_OUT.includes(undoneOperation);
}

/** All entries that a change mentions, as they were and as they became. */
export function entriesIn({ edits }: Change): Entry[] {
  return edits.flatMap(({ before, after }) => [before, after].filter((entry) => entry !== null));
}

/** An edit of a small value from what it was to what it becomes. */
export function valueEdit(name: string, before: string | undefined, after: string | undefined): ValueEdit {
  return { name, ...defined({ before, after }) };
}

/** The edits that take these back. */
export function reversed(edits: readonly Edit[]): Edit[] {
  return edits.map(({ id, before, after }) => ({ id, before: after, after: before })).reverse();
}

/** The edits of values that take these back. */
export function reversedValues(edits: readonly ValueEdit[]): ValueEdit[] {
  return edits.map(({ name, before, after }) => valueEdit(name, after, before)).reverse();
}

/** One change of each group of a log, the newest. */
async function* groups(log: AsyncIterable<Change>): AsyncGenerator<Change> {
  const seen = new Set<string>();
  for await (const change of log) {
    if (change.groupId === undefined || !seen.has(change.groupId)) yield change;
    if (change.groupId !== undefined) seen.add(change.groupId);
  }
}

/**
 * Finds in a log, read from the newest change back, what `undo` would take back: the last operation that still stands, by its
 * newest change. Undos and redos pair up like brackets.
 */
export async function lastStanding(log: AsyncIterable<Change>): Promise<Change | undefined> {
  let undone = 0;
  for await (const change of groups(log)) {
    if (change.operation === "undo") undone++;
    else if (undone > 0) undone--;
    else return change;
  }
  return undefined;
}

/** Finds in a log, read from the newest change back, the undo that `redo` would take back; none after a new operation. */
export async function lastUndone(log: AsyncIterable<Change>): Promise<Change | undefined> {
  let redone = 0;
  for await (const change of groups(log)) {
    if (change.operation === "redo") redone++;
    else if (change.operation !== "undo") return undefined;
    else if (redone > 0) redone--;
    else return change;
  }
  return undefined;
}

/**
 * What a change did, as it is told.
 * @param total how many snippets the whole group is about, when the change is only a part of it
 */
export function summaryOf(change: Change, total?: number): ActionSummary {
  const operation = change.undoneOperation ?? change.operation;
  const isUndo = change.operation === "undo";
  const [value] = isUndo ? reversedValues(change.values ?? []) : (change.values ?? []);
  if (value) return { operation, snippets: [], settings: settingsOf(value) };
  const edits = (isUndo ? reversed(change.edits) : change.edits).filter((edit) => isTold(operation, edit));
  const snippets = edits.map(({ before, after }) => (operation === "split" ? before : (after ?? before))!);
  return { operation, snippets, ...defined({ total }) };
}

/** A merge is called by what came of it, a split by what it was made of, collecting by what came in. */
function isTold(operation: OperationName, { before, after }: Edit): boolean {
  if (operation === "merge" || operation === "collect" || operation === "import") return after !== null;
  return operation === "split" ? before !== null : true;
}

function settingsOf({ name, before, after }: ValueEdit): NonNullable<ActionSummary["settings"]> {
  if (name.startsWith(VALUES.recipe)) return { recipe: name.slice(VALUES.recipe.length) };
  const [old, fresh] = [decodeRules(before), decodeRules(after)];
  const changed = RULE_NAMES.filter((rule) => old[rule] !== fresh[rule]);
  if (changed.join() === "collecting") return { collecting: fresh.collecting };
  return { rules: changed };
}
