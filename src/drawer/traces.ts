import type { Hash } from "../content/encode.js";
import { MASK } from "./mask.js";
import type { Change, Edit } from "./model/change.js";
import { hashesOf, type Entry } from "./model/entry.js";

/**
 * By what the traces of private snippets are known, in logs and among what has left: the ids of the snippets and of the
 * pieces they were made of, and the contents that were theirs while they could still be seen.
 */
export interface Traces {
  readonly ids: ReadonlySet<string>;
  readonly contents: ReadonlySet<Hash>;
}

/**
 * The traces of snippets as far as these changes tell. The changes may tell of further pieces, whose own changes are to
 * be looked at as well: ask again with the changes that speak of the traces found, until no more are found.
 */
export function tracesOf(secrets: Iterable<string>, changes: readonly Change[]): Traces {
  const ids = new Set(secrets);
  const contents = new Set<Hash>();
  const addPieces = (entry: Entry): void => {
    ids.add(entry.id);
    if (!entry.private) contents.add(entry.content);
    entry.parts?.forEach(addPieces);
  };
  for (let known = -1; known !== ids.size;) {
    known = ids.size;
    for (const { edits } of changes)
      for (const { id, before, after } of edits)
        if (ids.has(id)) for (const entry of [before, after]) if (entry) addPieces(entry);
  }
  return { ids, contents };
}

/** Whether an entry is a trace: one of the snippets, a piece of one, or made of one. */
export function isTrace(entry: Entry | null, traces: Traces): boolean {
  if (!entry) return false;
  return (
    traces.ids.has(entry.id) ||
    traces.contents.has(entry.content) ||
    (entry.parts?.some((part) => isTrace(part, traces)) ?? false)
  );
}

/** The traces without contents that other snippets, which can be seen, have as well. */
export function withoutOpen(traces: Traces, open: Iterable<Entry>): Traces {
  const contents = new Set(traces.contents);
  for (const entry of open) if (!entry.private) for (const hash of hashesOf(entry)) contents.delete(hash);
  return { ids: traces.ids, contents };
}

/** An entry as it may be shown when it is a trace: nothing of what it says. */
export function maskedEntry(entry: Entry, traces: Traces): Entry {
  if (!isTrace(entry, traces)) return entry;
  const { parts: _, pictures: __, ...rest } = entry;
  return { ...rest, text: MASK, content: "", private: true };
}

/** A change as it may be shown: of traces nothing of what they say. */
export function maskedChange(change: Change, traces: Traces): Change {
  const mask = (entry: Entry | null) => entry && maskedEntry(entry, traces);
  return {
    ...change,
    edits: change.edits.map(({ id, before, after }) => ({ id, before: mask(before), after: mask(after) })),
  };
}

/** The snippets that stay, and whose changes these traces stand in: their other changes are needed to mend their history. */
export function survivorsOf(changes: readonly Change[], traces: Traces): Set<string> {
  const survivors = new Set<string>();
  for (const change of changes)
    for (const edit of change.edits)
      if (isStruck(change, edit, traces) && !traces.ids.has(edit.id)) survivors.add(edit.id);
  return survivors;
}

/**
 * Takes traces out of changes. Of a snippet that stays, the edit before a gap goes as far as the gap did, so that its
 * history still leads to what it is.
 *
 * @param changes from the oldest on: all that speak of the traces, and of {@link survivorsOf}
 * @returns each change that becomes another, and what it becomes; nothing when nothing of it is left
 */
export function strike(changes: readonly Change[], traces: Traces): Map<Change, Change | undefined> {
  const edited = new Map<Change, Edit[]>(changes.map((change) => [change, []]));
  const touched = new Set<Change>();
  /** The last edit of each snippet that stays in the log. */
  const last = new Map<string, { change: Change; at: number }>();
  for (const change of changes) {
    for (const edit of change.edits) {
      if (!isStruck(change, edit, traces)) {
        last.set(edit.id, { change, at: edited.get(change)!.push(edit) - 1 });
        continue;
      }
      touched.add(change);
      const before = last.get(edit.id);
      if (!before) continue;
      const edits = edited.get(before.change)!;
      const after = isTrace(edit.after, traces) ? edits[before.at]!.after : edit.after;
      edits[before.at] = { ...edits[before.at]!, after };
      touched.add(before.change);
    }
  }
  const struck = new Map<Change, Change | undefined>();
  for (const change of touched) {
    const edits = edited.get(change)!.filter(({ before, after }) => before !== null || after !== null);
    const isEmpty = edits.length === 0 && !change.values?.length;
    struck.set(change, isEmpty ? undefined : { ...change, edits });
  }
  return struck;
}

/** A merge or a split that speaks of a trace means nothing without it. */
function isStruck(change: Change, edit: Edit, traces: Traces): boolean {
  const speaks = ({ before, after }: Edit) => isTrace(before, traces) || isTrace(after, traces);
  const what = change.undoneOperation ?? change.operation;
  return what === "merge" || what === "split" ? change.edits.some(speaks) : speaks(edit);
}
