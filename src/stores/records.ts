import { decodeContent, type Hash } from "../content/encode.js";
import { writeText } from "../content/write/text.js";
import type { Change, Edit } from "../drawer/change.js";
import { hashesOf, type Entry } from "../drawer/entry.js";
import { searchedText } from "../drawer/find.js";
import type { DrawerSize } from "../drawer/store.js";

/** All that is searched of an entry: from its content, or, where that is missing, from the beginning it carries. */
export function searchedOf(entry: Entry, content: Uint8Array | undefined): string {
  const text = content ? writeText(decodeContent(content)) : entry.text;
  return searchedText(text, entry.label, entry.origin);
}

/** By how much edits change what drawers hold, drawer by drawer; those that hold as much as before are left out. */
export function sizeChanges(edits: readonly Edit[]): DrawerSize[] {
  const sums = new Map<string, DrawerSize>();
  const add = (entry: Entry | null, sign: 1 | -1) => {
    if (!entry) return;
    const { drawer } = entry;
    const { count, bytes } = sums.get(drawer) ?? { count: 0, bytes: 0 };
    sums.set(drawer, { drawer, count: count + sign, bytes: bytes + sign * entry.bytes });
  };
  for (const { before, after } of edits) {
    add(before, -1);
    add(after, 1);
  }
  return [...sums.values()].filter(({ count, bytes }) => count !== 0 || bytes !== 0);
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

/** Whether a change speaks of one of these, which are ids of snippets or of acts, or hashes of contents. */
export function speaksOf({ edits, act = "" }: Change, about: ReadonlySet<string>): boolean {
  const speaks = (entry: Entry | null): boolean =>
    entry !== null &&
    (about.has(entry.id) || about.has(entry.content) || (entry.parts?.some(speaks) ?? false));
  return (
    about.has(act) || edits.some(({ id, before, after }) => about.has(id) || speaks(before) || speaks(after))
  );
}

/** Whether an edit makes an entry as young as a new one: it was collected again. */
export function hasComeAgain(before: Entry | null, after: Entry): boolean {
  return before !== null && before.collectedAt !== after.collectedAt;
}
