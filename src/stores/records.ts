import type { Hash } from "../content/encode.js";
import type { Change } from "../drawer/change.js";
import { hashesOf, type Entry } from "../drawer/entry.js";
import type { EntryQuery } from "../drawer/store.js";

/** Whether an entry is one that a query asks for, by what it says of itself. */
export function matches(entry: Entry, query: Omit<EntryQuery, "drawer" | "offset" | "limit">): boolean {
  const { kind, document, kept, content, ids } = query;
  return (
    (kind === undefined || entry.kind === kind) &&
    (document === undefined || entry.origin.document === document) &&
    (kept === undefined || entry.kept === kept) &&
    (content === undefined || entry.content === content) &&
    (ids === undefined || ids.includes(entry.id))
  );
}

/** The contents that come with a change and belong to private snippets: their names, and the snippets' ids. */
export function secretsOf(
  change: Change,
  contents: ReadonlyMap<Hash, unknown>,
): { id: string; name: Hash }[] {
  return change.edits.flatMap(({ id, after }) =>
    after?.private ? hashesOf(after).flatMap((name) => (contents.has(name) ? [{ id, name }] : [])) : [],
  );
}
