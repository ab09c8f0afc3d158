import type { IDBPDatabase } from "idb";
import type { Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import type { Change } from "../drawer/change.js";
import type { Entry } from "../drawer/entry.js";
import {
  Conflict,
  matches,
  type ChangeQuery,
  type Commit,
  type DrawerSize,
  type EntryQuery,
  type FindQuery,
  type Forgetting,
  type Gone,
  type OldestQuery,
  type Positioned,
  type Secret,
  type Store,
} from "../drawer/store.js";
import { entryOf, openTables, TABLES, type Row, type Tables, type Writing } from "./indexeddb/tables.js";
import { Texts } from "./indexeddb/texts.js";
import { forget, FORGOTTEN, write, writeValue } from "./indexeddb/writing.js";
import { Listeners } from "./listeners.js";
import { speaksOf } from "./records.js";

/**
 * Opens a store in the browser's IndexedDB. Tabs of one origin share it, and each hears of the others' changes.
 *
 * @param name the name of the database
 * @throws DrawerError `store` when the browser does not allow it, or it was written by a newer Drawer
 */
export async function openIndexedDb(name = "drawer"): Promise<IndexedDbStore> {
  try {
    return new IndexedDbStore(await openTables(name), name);
  } catch (error) {
    const told =
      (error as DOMException | null)?.name === "VersionError"
        ? "The drawers in this browser were written by a newer Drawer, and were left as they are. Load this page again to get it."
        : `This browser does not let the drawers be opened (${message(error)}). Private windows often refuse it.`;
    throw new DrawerError("store", told, { cause: error });
  }
}

/** A store in IndexedDB. Made by {@link openIndexedDb}. */
export class IndexedDbStore implements Store {
  readonly #database: IDBPDatabase<Tables>;
  readonly #tabs: BroadcastChannel;
  readonly #listeners = new Listeners();
  readonly #texts = new Map<string, Texts>();

  /** @internal */
  constructor(database: IDBPDatabase<Tables>, name: string) {
    this.#database = database;
    this.#tabs = new BroadcastChannel(`drawer:${name}`);
    this.#tabs.onmessage = () => this.#listeners.tell();
  }

  async entries({ offset = 0, limit = Infinity, ...query }: EntryQuery): Promise<Positioned[]> {
    const { drawer, ids, ...filter } = query;
    if (limit <= 0) return [];
    if (ids) return this.#byIds(drawer, ids, filter, offset, limit);
    if (Object.values(filter).every((value) => value === undefined))
      return this.#window(drawer, offset, limit);
    const found: Positioned[] = [];
    let skip = offset;
    let position = 1;
    for await (const row of this.#rows(drawer)) {
      if (matches(row, filter) && skip-- <= 0) found.push({ position, entry: entryOf(row) });
      if (found.length >= limit) break;
      position++;
    }
    return found;
  }

  /** All rows of a drawer, in order, read in pages. */
  async *#rows(drawer: string): AsyncGenerator<Row> {
    const page = 1000;
    for (let after = ""; ;) {
      const range = IDBKeyRange.bound([drawer, after], [drawer, []], true);
      const rows = await this.#database.getAllFromIndex("entries", "inOrder", range, page);
      yield* rows;
      if (rows.length < page) return;
      after = rows.at(-1)!.order;
    }
  }

  /** Entries by where they stand: a cursor goes to the first of them, and they are read at once. */
  async #window(drawer: string, offset: number, limit: number): Promise<Positioned[]> {
    const index = this.#database.transaction("entries").store.index("inOrder");
    let from: IDBKeyRange = ofDrawer(drawer);
    if (offset > 0) {
      const cursor = await (await index.openKeyCursor(ofDrawer(drawer)))?.advance(offset);
      if (!cursor) return [];
      from = IDBKeyRange.bound(cursor.key, [drawer, []]);
    }
    const rows = await index.getAll(from, Number.isFinite(limit) ? limit : undefined);
    return rows.map((row, at) => ({ position: offset + at + 1, entry: entryOf(row) }));
  }

  async #byIds(
    drawer: string,
    ids: readonly string[],
    filter: object,
    offset: number,
    limit: number,
  ): Promise<Positioned[]> {
    const { store } = this.#database.transaction("entries");
    const rows = await Promise.all(ids.map((id) => store.get(id)));
    const here = rows
      .filter((row) => row?.drawer === drawer && matches(row, filter))
      .map((row) => entryOf(row!));
    const asked = here.sort((a, b) => (a.order < b.order ? -1 : 1)).slice(offset, offset + limit);
    const positions = await this.positions(asked);
    return asked.map((entry) => ({ position: positions.get(entry.id)!, entry }));
  }

  async size(drawer: string): Promise<DrawerSize> {
    return (await this.#database.get("sizes", drawer)) ?? { drawer, count: 0, bytes: 0 };
  }

  async drawers(): Promise<DrawerSize[]> {
    const names = new Set(
      (await this.#database.getAll("sizes")).filter(({ count }) => count > 0).map(({ drawer }) => drawer),
    );
    for (const [drawer, name] of await this.#database.getAllKeys("settings"))
      if (name !== FORGOTTEN) names.add(drawer);
    const index = this.#database.transaction("changes").store.index("ofDrawer");
    for (let cursor = await index.openKeyCursor(null, "nextunique"); cursor; cursor = await cursor.continue())
      names.add(cursor.key);
    return Promise.all([...names].sort().map((name) => this.size(name)));
  }

  async oldest({ drawer, picture, cameBefore = Infinity, limit }: OldestQuery): Promise<Entry[]> {
    const found: Row[] = [];
    for (const kind of picture === undefined ? [0, 1] : [Number(picture)]) {
      const index = this.#database.transaction("entries").store.index("byAge");
      let cursor = await index.openCursor(IDBKeyRange.bound([drawer, kind, 0], [drawer, kind, Infinity]));
      for (let count = 0; cursor && count < limit && cursor.value.came < cameBefore; count++) {
        found.push(cursor.value);
        cursor = await cursor.continue();
      }
    }
    return found
      .sort((a, b) => a.number - b.number)
      .slice(0, limit)
      .map(entryOf);
  }

  async find({ drawer, terms, limit, ...filter }: FindQuery): Promise<Entry[]> {
    let texts = this.#texts.get(drawer);
    if (!texts) this.#texts.set(drawer, (texts = new Texts(this.#database, drawer)));
    const isFiltered = Object.values(filter).some((value) => value !== undefined);
    const ids: string[] = [];
    const found: Entry[] = [];
    await texts.find(terms, async (id, count) => {
      if (!isFiltered) {
        ids.push(id);
        return count >= limit;
      }
      const row = await this.#database.get("entries", id);
      if (row && matches(row, filter)) found.push(entryOf(row));
      return found.length >= limit;
    });
    const { store } = this.#database.transaction("entries");
    const rows = await Promise.all(ids.map((id) => store.get(id)));
    for (const row of rows) if (row) found.push(entryOf(row));
    return found;
  }

  /** Counts from one entry to the next, from the last back, so that each is counted once. */
  async positions(entries: readonly Entry[]): Promise<Map<string, number>> {
    const found = new Map<string, number>();
    const transaction = this.#database.transaction(["entries", "sizes"]);
    const index = transaction.objectStore("entries").index("inOrder");
    const each = [...new Map(entries.map((entry) => [entry.id, entry])).values()];
    for (const drawer of new Set(each.map((entry) => entry.drawer))) {
      const own = each
        .filter((entry) => entry.drawer === drawer)
        .sort((a, b) => (a.order < b.order ? 1 : -1));
      const size = transaction.objectStore("sizes").get(drawer);
      const counts = await Promise.all(
        own.map(({ order }, at) =>
          index.count(IDBKeyRange.bound([drawer, order], [drawer, own[at - 1]?.order ?? []], false, true)),
        ),
      );
      const ids = await Promise.all(own.map(({ order }) => index.getKey([drawer, order])));
      let position = ((await size)?.count ?? 0) + 1;
      own.forEach(({ id }, at) => {
        position -= counts[at]!;
        if (ids[at] === id) found.set(id, position);
      });
    }
    return found;
  }

  async gone(drawer: string): Promise<Gone[]> {
    const rows = await this.#database.getAllFromIndex("gone", "ofDrawer", drawer);
    return rows.map(({ at, by, entry }) => ({ at, by, entry }));
  }

  async secrets(): Promise<Secret[]> {
    const transaction = this.#database.transaction(["secrets", "entries", "gone"]);
    const came = new Map<string, number>();
    for (const row of await transaction.objectStore("secrets").getAll())
      came.set(row.id, Math.min(row.came, came.get(row.id) ?? Infinity));
    const found: Secret[] = [];
    for (const [id, since] of came) {
      const entry =
        (await transaction.objectStore("entries").get(id)) ??
        (await transaction.objectStore("gone").index("byId").get(id))?.entry;
      if (entry?.private) found.push({ id, drawer: entry.drawer, kept: entry.kept, came: since });
    }
    return found;
  }

  async contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>> {
    const found = new Map<Hash, Uint8Array>();
    const transaction = this.#database.transaction(["contents", "secrets"]);
    const blobs = await Promise.all(
      hashes.map(
        async (hash) =>
          (await transaction.objectStore("contents").get(hash)) ??
          (await transaction.objectStore("secrets").index("byName").get(hash))?.bytes,
      ),
    );
    hashes.forEach((hash, index) => blobs[index] && found.set(hash, blobs[index]));
    return found;
  }

  /** A transaction of IndexedDB ends when nothing is asked of it, so changes that come one by one are gathered first. */
  async commit(commits: Iterable<Commit> | AsyncIterable<Commit>): Promise<void> {
    const all: Commit[] = [];
    for await (const commit of commits) all.push(commit);
    await this.#write(async (transaction) => {
      for (const commit of all) await write(transaction, commit);
    });
  }

  async #write<Result>(writing: (transaction: Writing) => Promise<Result>): Promise<Result> {
    const transaction = this.#database.transaction(TABLES, "readwrite", { durability: "strict" });
    const finished = transaction.done.catch((error: unknown) => error);
    let result: Result;
    try {
      result = await writing(transaction);
      transaction.commit();
    } catch (error) {
      abort(transaction);
      // What a request was refused for stands in the transaction: a full disk, for one.
      const cause = await finished;
      throw refusal(error instanceof Conflict ? error : (transaction.error ?? error ?? cause));
    }
    const error = await finished;
    if (error !== undefined) throw refusal(error);
    this.#tabs.postMessage("changed");
    this.#listeners.tellSoon();
    return result;
  }

  async changes({ drawer, about, offset = 0, limit = Infinity }: ChangeQuery): Promise<Change[]> {
    const found: Change[] = [];
    if (limit <= 0) return found;
    const words = about && new Set(about);
    let skip = words ? offset : 0;
    const table = this.#database.transaction("changes").store;
    let cursor =
      drawer === undefined
        ? await table.openCursor(null, "prev")
        : await table.index("ofDrawer").openCursor(drawer, "prev");
    if (cursor && !words && offset > 0) cursor = await cursor.advance(offset);
    for (; cursor && found.length < limit; cursor = await cursor.continue())
      if ((!words || speaksOf(cursor.value, words)) && skip-- <= 0) found.push(cursor.value);
    return found;
  }

  /**
   * Deletes the records. What a browser's own files still hold of deleted records is out of a page's reach: browsers
   * drop it when they next put those files in order, or at once when the user clears the site's data.
   */
  async forget(what: Forgetting): Promise<{ forgotten: number; trace?: string }> {
    const forgotten = await this.#write((transaction) => forget(transaction, what));
    if (!what.everything) return { forgotten };
    const trace =
      "No page can read it any more; the browser's own files may hold traces of it until the browser puts them in order, or the site's data are cleared.";
    return { forgotten, trace };
  }

  async value(drawer: string, name: string): Promise<string | undefined> {
    return this.#database.get("settings", [drawer, name]);
  }

  async valueNames(drawer: string, beginning: string): Promise<string[]> {
    const keys = await this.#database.getAllKeys(
      "settings",
      IDBKeyRange.bound([drawer, beginning], [drawer, `${beginning}\uffff`]),
    );
    return keys.map(([, name]) => name);
  }

  async keepValue(
    drawer: string,
    name: string,
    before: string | undefined,
    after: string | undefined,
  ): Promise<void> {
    await this.#write((transaction) => writeValue(transaction, drawer, name, before, after));
  }

  watch(listener: () => void): () => void {
    return this.#listeners.add(listener);
  }

  async close(): Promise<void> {
    this.#listeners.clear();
    this.#tabs.close();
    this.#database.close();
  }
}

/** All orders of one drawer; every order is a string, and an array sorts after every string. */
function ofDrawer(drawer: string): IDBKeyRange {
  return IDBKeyRange.bound([drawer, ""], [drawer, []]);
}

function abort(transaction: { abort(): void }): void {
  try {
    transaction.abort();
  } catch (error) {
    // It has ended by itself, which is what was wanted; anything else is a fault.
    if ((error as DOMException).name !== "InvalidStateError") throw error;
  }
}

function refusal(error: unknown): Error {
  // Anything else is a fault of whoever gave the changes, and is theirs to hear of as it is.
  if (!isOfTheDatabase(error)) return error as Error;
  const name = (error as DOMException | null)?.name;
  if (name === "ConstraintError") return new Conflict("A place is taken.", { cause: error });
  const told =
    name === "QuotaExceededError"
      ? "Nothing was changed, and nothing is lost: this browser has no more room for drawers. Discard some snippets, or free space on the disk."
      : `Nothing was changed: the drawers could not be written (${message(error)}).`;
  return new DrawerError("store", told, { cause: error });
}

function isOfTheDatabase(error: unknown): error is DOMException {
  return error instanceof DOMException;
}

function message(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
