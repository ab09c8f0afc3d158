import type { ActionSummary } from "../messages/en/operations.js";
import { summaryOf, type Change, type OperationName } from "./model/change.js";

/** What was done in a drawer: an operation, whether it was written as one change or as many. */
export interface LoggedAction {
  /** The id of the change that it began with. */
  readonly id: string;
  /** When it began; ISO 8601, in UTC. */
  readonly at: string;
  readonly operation: OperationName;
  /** For an undo or a redo: the operation that it takes back, or does again. */
  readonly undoneOperation?: OperationName;
  readonly summary: ActionSummary;
  /** Whether it stands: it is no undo, and was not undone. Undoing takes those that stand back, the latest first. */
  readonly stands: boolean;
}

/**
 * The latest acts of a log.
 * @param log a drawer's changes, the newest first
 * @param limit how many at most
 */
export async function latestActions(log: AsyncIterable<Change>, limit: number): Promise<LoggedAction[]> {
  const acts: { change: Change; count: number; stands: boolean }[] = [];
  const known = new Map<string, number>();
  /** Acts of which there is more to come. */
  const open = new Set<string>();
  /** How many operations are undone by what came later: undos and redos pair up like brackets. */
  let undone = 0;
  for await (const change of log) {
    const at = known.get(change.groupId ?? "");
    if (at !== undefined) {
      if (change.part === 1) open.delete(change.groupId!);
      const { change: last, count } = acts[at]!;
      // An undo is written from the last change back, so its newest change is of what was first.
      const first = change.operation === "undo" ? last : change;
      acts[at] = { ...acts[at]!, change: first, count: count + change.edits.length };
      continue;
    }
    if (acts.length === limit) {
      if (open.size === 0) break;
      continue;
    }
    if (change.groupId !== undefined) {
      known.set(change.groupId, acts.length);
      if (change.part !== 1) open.add(change.groupId);
    }
    const isUndo = change.operation === "undo";
    const stands = !isUndo && undone === 0;
    undone += isUndo ? 1 : undone > 0 ? -1 : 0;
    acts.push({ change, count: change.edits.length, stands });
  }
  return acts.map(({ change, count, stands }) => ({
    ...{ id: change.id, at: change.at, operation: change.operation, stands },
    ...(change.undoneOperation && { undoneOperation: change.undoneOperation }),
    summary: summaryOf(change, change.groupId === undefined ? undefined : count),
  }));
}
