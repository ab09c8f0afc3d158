import { defined } from "../content/defined.js";
import { decodeContent, type Hash } from "../content/encode.js";
import { searchedText } from "../drawer/find.js";
import type { Change } from "../drawer/model/change.js";
import type { Entry } from "../drawer/model/entry.js";
import {
  matches,
  type ChangeQuery,
  type DrawerSize,
  type EntryQuery,
  type FindQuery,
  type Gone,
  type OldestQuery,
  type Positioned,
  type PrivateEntry,
} from "../drawer/store.js";
import { writeText } from "../formats/text/write.js";
import { ask, type Bounds, type Job, type Range } from "./engine.js";
import { columnsOf, type EntryRow, type TableName, type Tables } from "./schema.js";

/** How many rows are read at once. */
const PAGE = 500;

/** The entry of a row. */
export function entryOf({ entry }: { readonly entry: string }): Entry {
  return JSON.parse(entry) as Entry;
}

/** The change of a row. */
export function changeIn({ change }: { readonly change: string }): Change {
  return JSON.parse(change) as Change;
}

/** All that is searched of an entry: from its content, or, where that is missing, from the beginning it carries. */
export function searchedOf(entry: Entry, content: Uint8Array | undefined): string {
  const text = content ? writeText(decodeContent(content)) : entry.text;
  return searchedText(text, entry.label, entry.origin);
}

/** Whether a change mentions one of these, which are ids of snippets or of groups, or hashes of contents. */
export function mentions({ edits, groupId = "" }: Change, words: ReadonlySet<string>): boolean {
  const mentionedBy = (entry: Entry | null): boolean =>
    entry !== null &&
    (words.has(entry.id) || words.has(entry.content) || (entry.parts?.some(mentionedBy) ?? false));
  return (
    words.has(groupId) ||
    edits.some(({ id, before, after }) => words.has(id) || mentionedBy(before) || mentionedBy(after))
  );
}

/**
 * Calls `use` with each row of a range, read page by page, until it returns false. The range must end in a column
 * whose values differ.
 */
export function* each<Name extends TableName, Column extends keyof Tables[Name] = keyof Tables[Name]>(
  range: Omit<Range<Name, Column>, "offset" | "limit">,
  use: (row: Pick<Tables[Name], Column>) => boolean | undefined,
  pageSize = PAGE,
): Job<void> {
  const { table, index, equal = [], reverse = false } = range;
  const column = columnsOf(table, index)[equal.length] as Column;
  for (let page = { ...range, limit: pageSize } as Range<Name, Column>; ;) {
    const rows = yield* ask((all) => all.range(page));
    for (const row of rows) if (use(row) === false) return;
    if (rows.length < pageSize) return;
    const last = rows.at(-1)![column] as string | number;
    page = { ...page, ...(reverse ? { before: last } : { from: undefined, after: last }) } as typeof page;
  }
}

/** A whole number from 0 on; infinity stays. */
function wholeNumber(value: number): number {
  return value > 0 ? Math.floor(value) : 0;
}

/** The entries that match, in order. */
export function* entries(query: EntryQuery): Job<Positioned[]> {
  const { ids, ...others } = query;
  const { drawer, kind, document, kept, content } = others;
  const last = query.last === undefined ? undefined : wholeNumber(query.last);
  const offset = last === undefined ? wholeNumber(query.offset ?? 0) : 0;
  const limit = last === undefined ? wholeNumber(query.limit ?? Infinity) : Infinity;
  if (limit === 0 || last === 0) return [];
  const part = (found: Entry[]): Entry[] =>
    last === undefined ? found.slice(offset, offset + limit) : found.slice(-last);
  if (ids) return yield* positioned(part(yield* entriesById(ids, others)));
  const where: Partial<EntryRow> = {
    ...defined({ kind, document }),
    ...(kept !== undefined && { kept: kept ? 1 : 0 }),
  };
  if (Object.keys(where).length === 0 && content === undefined)
    return yield* window(drawer, offset, limit, last);
  const found: Entry[] = [];
  const holding = content === undefined ? undefined : [content];
  yield* each(
    {
      table: "entries",
      index: "inOrder",
      equal: [drawer],
      columns: ["order", "entry"],
      where,
      ...(holding && { holding }),
    },
    (row) => {
      const entry = entryOf(row);
      if (matches(entry, query)) found.push(entry);
      return found.length < offset + limit;
    },
  );
  return yield* positioned(part(found));
}

/** Entries by where they stand, counted from the nearer end. */
function* window(drawer: string, offset: number, limit: number, last: number | undefined): Job<Positioned[]> {
  const { count } = yield* size(drawer);
  const from = last === undefined ? Math.min(offset, count) : Math.max(0, count - last);
  const to = Math.min(count, from + limit);
  if (from === to) return [];
  const reverse = from > count / 2;
  const rows = yield* ask((all) =>
    all.range({
      table: "entries",
      index: "inOrder",
      equal: [drawer],
      columns: ["entry"],
      reverse,
      offset: reverse ? count - to : from,
      limit: to - from,
    }),
  );
  if (reverse) rows.reverse();
  return rows.map((row, index) => ({ position: from + index + 1, entry: entryOf(row) }));
}

/** The entries with these ids that match the rest of a query, in order. */
function* entriesById(ids: readonly string[], query: Omit<EntryQuery, "ids">): Job<Entry[]> {
  const keys = [...new Set(ids)].map((id) => [id]);
  const rows = yield* ask((all) => all.get("entries", keys, "byId", ["entry"]));
  return rows
    .flatMap((row) => (row ? [entryOf(row)] : []))
    .filter((entry) => entry.drawer === query.drawer && matches(entry, query))
    .sort((a, b) => (a.order < b.order ? -1 : 1));
}

function* positioned(found: readonly Entry[]): Job<Positioned[]> {
  const places = yield* positions(found);
  return found.map((entry) => ({ position: places.get(entry.id)!, entry }));
}

/** The positions of entries that are there, by id. Counts from one to the next, from the last back: each is counted once. */
export function* positions(asked: readonly Entry[]): Job<Map<string, number>> {
  const found = new Map<string, number>();
  const distinct = [...new Map(asked.map((entry) => [entry.id, entry])).values()];
  for (const drawer of new Set(distinct.map((entry) => entry.drawer))) {
    const own = distinct
      .filter((entry) => entry.drawer === drawer)
      .sort((a, b) => (a.order < b.order ? 1 : -1));
    let position = (yield* size(drawer)).count + 1;
    const counts = yield* ask((all) =>
      all.count(
        own.map(({ order }, index): Bounds => {
          const after = own[index - 1]?.order;
          const range = { table: "entries", index: "inOrder", equal: [drawer], from: order } as const;
          return after === undefined ? range : { ...range, before: after };
        }),
      ),
    );
    const rows = yield* ask((all) =>
      all.get(
        "entries",
        own.map(({ order }) => [drawer, order]),
        "inOrder",
        ["id"],
      ),
    );
    own.forEach(({ id }, index) => {
      position -= counts[index]!;
      if (rows[index]?.id === id) found.set(id, position);
    });
  }
  return found;
}

const SIZE = ["count", "bytes"] as const;

/** How many entries a drawer holds, and the bytes of their contents. */
export function* size(drawer: string): Job<DrawerSize> {
  const [row] = yield* ask((all) => all.get("sizes", [[drawer]], undefined, SIZE));
  return { drawer, count: row?.count ?? 0, bytes: row?.bytes ?? 0 };
}

/** All drawers that hold something, or have values or a log; by name. */
export function* drawers(): Job<DrawerSize[]> {
  const names = new Set<string>();
  yield* each({ table: "sizes" }, ({ drawer, count }) => void (count > 0 && names.add(drawer)));
  yield* eachDrawerOf({ table: "values" }, names);
  yield* eachDrawerOf({ table: "changes", index: "ofDrawer" }, names);
  const sizes: DrawerSize[] = [];
  for (const name of [...names].sort()) sizes.push(yield* size(name));
  return sizes;
}

/** Adds the drawers of a table, going from one to the next. */
function* eachDrawerOf(table: Range<"values" | "changes", "drawer">, names: Set<string>): Job<void> {
  for (let after = ""; ;) {
    const [row] = yield* ask((all) => all.range({ ...table, after, limit: 1 }));
    if (!row) return;
    names.add((after = row.drawer));
  }
}

type AgedRow = Pick<EntryRow, "number" | "came" | "entry">;

/** The entries that came first of those that are not kept. */
export function* oldest({ drawer, picture, cameBefore = Infinity, limit }: OldestQuery): Job<Entry[]> {
  const found: AgedRow[] = [];
  for (const age of picture === undefined ? [0, 1] : [Number(picture)]) {
    let count = 0;
    const take = (row: AgedRow): boolean => {
      if (row.came >= cameBefore) return false;
      found.push(row);
      return ++count < limit;
    };
    const pageSize = Math.max(1, Math.min(limit, PAGE));
    const columns = ["number", "came", "entry"] as const;
    yield* each({ table: "entries", index: "byAge", equal: [drawer, age], columns }, take, pageSize);
  }
  return found
    .sort((a, b) => a.number! - b.number!)
    .slice(0, limit)
    .map(entryOf);
}

/** The entries that hold all of the terms, those that came last first. */
export function* find(query: FindQuery): Job<Entry[]> {
  const indexed = yield* ask((all) => all.search?.find(query));
  if (indexed) return indexed.map(entryOf);
  const { drawer, terms, limit } = query;
  const found: Entry[] = [];
  const candidates: Entry[] = [];
  yield* each({ table: "entries", reverse: true, where: { drawer } }, (row) => {
    const entry = entryOf(row);
    if (entry.drawer === drawer && !entry.private && matches(entry, query)) candidates.push(entry);
  });
  for (const entry of candidates) {
    if (found.length >= limit) break;
    const [content] = yield* ask((all) => all.get("contents", [[entry.content]]));
    const text = searchedOf(entry, content?.bytes);
    if (terms.every((term) => text.includes(term))) found.push(entry);
  }
  return found;
}

/** What has left a drawer and was not forgotten, in the order of leaving. */
export function* gone(drawer: string): Job<Gone[]> {
  const found: Gone[] = [];
  yield* each({ table: "gone", index: "ofDrawer", equal: [drawer] }, ({ at, by, entry }) => {
    found.push({ at, by, entry: entryOf({ entry }) });
  });
  return found;
}

/** The private snippets of all drawers. */
export function* privateEntries(): Job<PrivateEntry[]> {
  const came = new Map<string, number>();
  const columns = ["id", "came"] as const;
  for (const { id, came: since } of yield* ask((all) => all.range({ table: "secrets", columns })))
    came.set(id, Math.min(since, came.get(id) ?? Infinity));
  if (came.size === 0) return [];
  const keys = [...came.keys()].map((id) => [id]);
  const here = yield* ask((all) => all.get("entries", keys, "byId", ["entry"]));
  const left = yield* ask((all) => all.get("gone", keys, "byId", ["entry"]));
  return keys.flatMap(([id], index) => {
    const row = here[index] ?? left[index];
    const entry = row && entryOf(row);
    if (!entry?.private) return [];
    const { drawer, content, kept, privateAge } = entry;
    return [{ id: id!, drawer, content, kept, came: came.get(id!)!, ...defined({ privateAge }) }];
  });
}

/** The bytes stored under these hashes. A hash that is not there is left out. */
export function* contents(hashes: readonly Hash[]): Job<Map<Hash, Uint8Array>> {
  const found = new Map<Hash, Uint8Array>();
  const rows = yield* ask((all) =>
    all.get(
      "contents",
      hashes.map((hash) => [hash]),
      undefined,
      ["bytes"],
    ),
  );
  rows.forEach((row, index) => row && found.set(hashes[index]!, row.bytes));
  const missing = hashes.filter((hash) => !found.has(hash));
  for (const hash of missing) {
    const [row] = yield* ask((all) =>
      all.range({ table: "secrets", index: "byName", equal: [hash], limit: 1 }),
    );
    if (row) found.set(hash, row.bytes);
  }
  return found;
}

/** So many words are more than an engine looks for by itself. */
const MANY = 20;

/** The changes that match, the newest first. */
export function* changes({ drawer, about, ...query }: ChangeQuery): Job<Change[]> {
  const offset = wholeNumber(query.offset ?? 0);
  const limit = wholeNumber(query.limit ?? Infinity);
  if (limit === 0) return [];
  const ofDrawer = drawer === undefined ? {} : { index: "ofDrawer", equal: [drawer] };
  const range = { table: "changes", ...ofDrawer, reverse: true } as const;
  if (!about) {
    const columns = ["change"] as const;
    const rows = yield* ask((all) => all.range({ ...range, columns, offset, limit }));
    return rows.map(changeIn);
  }
  const words = new Set(about);
  const found: Change[] = [];
  // Looking for many words in every row takes longer than reading every row.
  const holding = about.length <= MANY ? { holding: about } : {};
  yield* each({ ...range, columns: ["number", "change"], ...holding }, (row) => {
    const change = changeIn(row);
    if (mentions(change, words)) found.push(change);
    return found.length < offset + limit;
  });
  return found.slice(offset);
}

/** A small value of a drawer; undefined when it was never kept. */
export function* value(drawer: string, name: string): Job<string | undefined> {
  const [row] = yield* ask((all) => all.get("values", [[drawer, name]], undefined, ["value"]));
  return row?.value;
}

/** The names of a drawer's values that begin with these letters, in order. */
export function* valueNames(drawer: string, beginning: string): Job<string[]> {
  const names: string[] = [];
  yield* each({ table: "values", equal: [drawer], from: beginning }, ({ name }) => {
    if (!name.startsWith(beginning)) return false;
    names.push(name);
    return true;
  });
  return names;
}
