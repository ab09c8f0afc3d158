import type { IDBPDatabase, IDBPTransaction } from "idb";
import { matches, type FindQuery } from "../../drawer/store.js";
import type { Bounds, FoundRow, IndexedRow, Range, Rows, SearchIndex } from "../engine.js";
import { entryOf, searchedOf } from "../queries.js";
import {
  columnsOf,
  isNumbered,
  SCHEMA,
  type EntryRow,
  type Key,
  type TableName,
  type Tables,
} from "../schema.js";
import { TEXTS, type TextRow } from "./tables.js";
import type { Texts } from "./texts.js";

/** A transaction over all tables. */
export type IdbTransaction = IDBPTransaction<unknown, string[], "readonly" | "readwrite">;

/** The rows of a database in one transaction. */
export class IdbRows implements Rows {
  readonly search: SearchIndex;
  /** The next number of each table, as far as it was looked up. */
  readonly #next = new Map<TableName, number>();

  constructor(
    readonly transaction: IdbTransaction,
    database: IDBPDatabase,
    texts: (drawer: string) => Texts,
  ) {
    this.search = new TextIndex(transaction, database, texts);
  }

  async get<Name extends TableName>(table: Name, keys: readonly (readonly Key[])[], index?: string) {
    const source = this.#source(table, index);
    const wanted = keys.map(valid);
    const rows =
      (await this.#getTogether(table, wanted, index)) ??
      (await Promise.all(wanted.map((key) => source.get(key))));
    return rows as (Tables[Name] | undefined)[];
  }

  /**
   * Many rows that lie nearly alone between the first and the last of them, read at once: that takes two thirds of the time of
   * asking for each. Nothing when they are few, or too much else lies between.
   */
  async #getTogether(
    table: TableName,
    keys: readonly IDBValidKey[],
    index: string | undefined,
  ): Promise<unknown[] | undefined> {
    if (keys.length < MANY) return undefined;
    let [first, last] = [keys[0]!, keys[0]!];
    for (const key of keys) {
      if (isBefore(key, first)) first = key;
      else if (isBefore(last, key)) last = key;
    }
    const names = keys.map(nameOfKey);
    const most = Math.ceil(new Set(names).size * 1.25);
    const between = await this.#source(table, index).getAll(IDBKeyRange.bound(first, last), most + 1);
    if (between.length > most) return undefined;
    const columns = columnsOf(table, index);
    const rows = new Map<unknown, unknown>();
    for (const row of between as Record<string, Key>[])
      rows.set(nameOfKey(valid(columns.map((column) => row[column]!))), row);
    return names.map((name) => rows.get(name));
  }

  async range<Name extends TableName, Column extends keyof Tables[Name]>(
    range: Range<Name, Column>,
  ): Promise<Tables[Name][]> {
    const { table, index, reverse = false, offset = 0, limit = Infinity } = range;
    if (limit <= 0) return [];
    const source = this.#source(table, index);
    const within = keysOf(range);
    const most = Number.isFinite(limit) ? limit : undefined;
    if (offset === 0 && !reverse) return (await source.getAll(within, most)) as Tables[Name][];
    // A cursor goes to the ends of what is wanted, and all in between is read at once.
    let cursor = await source.openKeyCursor(within, reverse ? "prev" : "next");
    if (cursor && offset > 0) cursor = await cursor.advance(offset);
    if (!cursor) return [];
    const start = cursor.key;
    if (!reverse) {
      const from = IDBKeyRange.bound(start, within?.upper ?? END, false, within?.upperOpen ?? false);
      return (await source.getAll(from, most)) as Tables[Name][];
    }
    if (most !== undefined && most > 1) cursor = await cursor.advance(most - 1);
    else if (most === undefined) cursor = null;
    const end = cursor?.key ?? within?.lower ?? BEGINNING;
    const isOpen = cursor === null && (within?.lowerOpen ?? false);
    const rows = (await source.getAll(IDBKeyRange.bound(end, start, isOpen, false))) as Tables[Name][];
    return rows.reverse();
  }

  count(bounds: readonly Bounds[]): Promise<number[]> {
    return Promise.all(bounds.map((each) => this.#source(each.table, each.index).count(keysOf(each))));
  }

  async put<Name extends TableName>(table: Name, row: Tables[Name]): Promise<number> {
    const store = this.transaction.objectStore(table);
    const given = row as { number?: number };
    if (!isNumbered(table)) {
      await store.put!(row);
      return 0;
    }
    const number = given.number ?? (await this.#nextNumber(table));
    await store.put!({ ...row, number });
    return number;
  }

  async #nextNumber(table: TableName): Promise<number> {
    const store = this.transaction.objectStore(table);
    const next =
      this.#next.get(table) ?? (((await store.openKeyCursor(null, "prev"))?.key as number) ?? 0) + 1;
    this.#next.set(table, next + 1);
    return next;
  }

  async putIfAbsent<Name extends TableName>(table: Name, row: Tables[Name]): Promise<void> {
    const key = SCHEMA[table].key.map((column) => (row as unknown as Record<string, Key>)[column]!);
    if ((await this.transaction.objectStore(table).getKey(valid(key))) === undefined)
      await this.put(table, row);
  }

  async delete(table: TableName, key: readonly Key[]): Promise<void> {
    await this.transaction.objectStore(table).delete!(valid(key));
  }

  async clear(table: TableName): Promise<void> {
    await this.transaction.objectStore(table).clear!();
  }

  #source(table: TableName, index: string | undefined) {
    const store = this.transaction.objectStore(table);
    return index === undefined ? store : store.index(index);
  }
}

/** How many rows are worth being read together. */
const MANY = 100;

/** Whether a key is before another in a table. Strings are compared there as they are here. */
function isBefore(key: IDBValidKey, other: IDBValidKey): boolean {
  if (typeof key === "string" && typeof other === "string") return key < other;
  return indexedDB.cmp(key, other) < 0;
}

/** What tells a key from others in a map. */
const nameOfKey = (key: IDBValidKey) => (Array.isArray(key) ? JSON.stringify(key) : key);

/** A key as IndexedDB takes it: one column by itself, several as an array. */
function valid(key: readonly Key[]): IDBValidKey {
  return key.length === 1 ? key[0]! : [...key];
}

/** Before and after all keys there are: a number is before every string, an array after. */
const BEGINNING = -Infinity;
const END: IDBValidKey = [[]];

function keysOf({ table, index, equal = [], from, after, before }: Bounds): IDBKeyRange | undefined {
  const isArray = columnsOf(table, index).length > 1;
  if (equal.length === 0 && from === undefined && after === undefined && before === undefined)
    return undefined;
  if (!isArray) {
    if (equal.length > 0) return IDBKeyRange.only(equal[0]);
    const lower = from ?? after ?? BEGINNING;
    return IDBKeyRange.bound(
      lower,
      before ?? END,
      from === undefined && after !== undefined,
      before !== undefined,
    );
  }
  // A shorter array sorts before all that begin with it, and an array within one after all else in its place.
  const lower =
    from !== undefined ? [...equal, from] : after !== undefined ? [...equal, after, []] : [...equal];
  const upper = before !== undefined ? [...equal, before] : [...equal, []];
  return IDBKeyRange.bound(lower, upper, false, true);
}

/** What is searched, as rows of a table of their own; they are looked through in memory. */
class TextIndex implements SearchIndex {
  constructor(
    readonly transaction: IdbTransaction,
    readonly database: IDBPDatabase,
    readonly texts: (drawer: string) => Texts,
  ) {}

  async add(row: IndexedRow): Promise<void> {
    const entry = entryOf(row);
    const content = (await this.transaction.objectStore("contents").get(entry.content)) as
      { bytes: Uint8Array } | undefined;
    const text: TextRow = {
      drawer: row.drawer,
      number: row.number!,
      id: row.id,
      text: searchedOf(entry, content?.bytes),
    };
    await this.transaction.objectStore(TEXTS).put!(text);
  }

  async remove(row: Pick<IndexedRow, "number" | "drawer">): Promise<void> {
    if (row.number !== undefined) await this.transaction.objectStore(TEXTS).delete!([row.drawer, row.number]);
  }

  /** Reads through transactions of its own: the texts are read in slices, so that a page stays awake. */
  async find({ drawer, terms, limit, ...filter }: FindQuery): Promise<FoundRow[]> {
    const isFiltered = Object.values(filter).some((value) => value !== undefined);
    const ids: string[] = [];
    const found: FoundRow[] = [];
    const read = (ids: readonly string[]): Promise<(EntryRow | undefined)[]> => {
      const entries = this.database.transaction("entries").store.index("byId");
      return Promise.all(ids.map((id) => entries.get(id)));
    };
    await this.texts(drawer).find(terms, async (id, count) => {
      if (!isFiltered) {
        ids.push(id);
        return count >= limit;
      }
      const [row] = await read([id]);
      if (row && matches(entryOf(row), filter)) found.push(row);
      return found.length >= limit;
    });
    for (const row of await read(ids)) if (row) found.push(row);
    return found;
  }
}
