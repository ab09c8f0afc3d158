import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import type { Change } from "../drawer/change.js";
import { encodeEntry, type Entry } from "../drawer/entry.js";
import { Conflict, type ChangeQuery, type EntryQuery, type Positioned, type Store } from "../drawer/store.js";
import { Listeners } from "./listeners.js";

interface Tables extends DBSchema {
  entries: { key: string; value: Entry; indexes: { inOrder: [string, string] } };
  contents: { key: Hash; value: Uint8Array };
  changes: { key: number; value: Change; indexes: { ofDrawer: string } };
  settings: { key: [drawer: string, name: string]; value: string };
}

const VERSION = 2;

/**
 * Opens a store in the browser's IndexedDB. Tabs of one origin share it, and each hears of the others' changes.
 *
 * @param name the name of the database
 * @throws DrawerError `store` when the browser does not allow it, or it was written by a newer Drawer
 */
export async function openIndexedDb(name = "drawer"): Promise<IndexedDbStore> {
  try {
    const database = await openDB<Tables>(name, VERSION, {
      upgrade(opened, from) {
        if (from < 2) opened.createObjectStore("settings");
        if (from > 0) return;
        opened
          .createObjectStore("entries", { keyPath: "id" })
          .createIndex("inOrder", ["drawer", "order"], { unique: true });
        opened.createObjectStore("contents");
        opened.createObjectStore("changes", { autoIncrement: true }).createIndex("ofDrawer", "drawer");
      },
      blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
    });
    return new IndexedDbStore(database, name);
  } catch (error) {
    throw new DrawerError(
      "store",
      `This browser does not let the drawers be opened (${message(error)}). Private windows often refuse it.`,
      {
        cause: error,
      },
    );
  }
}

/** A store in IndexedDB. Made by {@link openIndexedDb}. */
export class IndexedDbStore implements Store {
  readonly #database: IDBPDatabase<Tables>;
  readonly #tabs: BroadcastChannel;
  readonly #listeners = new Listeners();

  /** @internal */
  constructor(database: IDBPDatabase<Tables>, name: string) {
    this.#database = database;
    this.#tabs = new BroadcastChannel(`drawer:${name}`);
    this.#tabs.onmessage = () => this.#listeners.tell();
  }

  async entries({ drawer, kind, document, offset = 0, limit = Infinity }: EntryQuery): Promise<Positioned[]> {
    const found: Positioned[] = [];
    const filtered = kind !== undefined || document !== undefined;
    const index = this.#database.transaction("entries").store.index("inOrder");
    let cursor = limit > 0 ? await index.openCursor(ofDrawer(drawer)) : null;
    let position = 1;
    if (cursor && !filtered && offset > 0) {
      cursor = await cursor.advance(offset);
      position += offset;
    }
    let skip = filtered ? offset : 0;
    for (; cursor && found.length < limit; cursor = await cursor.continue(), position++) {
      const entry = cursor.value;
      if (kind !== undefined && entry.kind !== kind) continue;
      if (document !== undefined && entry.origin.document !== document) continue;
      if (skip-- > 0) continue;
      found.push({ position, entry });
    }
    return found;
  }

  async count(drawer: string): Promise<number> {
    return this.#database.countFromIndex("entries", "inOrder", ofDrawer(drawer));
  }

  async contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>> {
    const found = new Map<Hash, Uint8Array>();
    const { store } = this.#database.transaction("contents");
    const blobs = await Promise.all(hashes.map((hash) => store.get(hash)));
    hashes.forEach((hash, index) => blobs[index] && found.set(hash, blobs[index]));
    return found;
  }

  async commit(change: Change, contents: ReadonlyMap<Hash, Uint8Array>): Promise<void> {
    const transaction = this.#database.transaction(["entries", "contents", "changes"], "readwrite", {
      durability: "strict",
    });
    const finished = transaction.done.catch((error: unknown) => error);
    try {
      const entries = transaction.objectStore("entries");
      for (const { id, before } of change.edits) {
        if (encodeEntry((await entries.get(id)) ?? null) !== encodeEntry(before))
          throw new Conflict(`Entry ${id} has changed.`);
        if (before) await entries.delete(id);
      }
      for (const { after } of change.edits) if (after) await entries.add(after);
      for (const [hash, bytes] of contents) await transaction.objectStore("contents").put(bytes, hash);
      await transaction.objectStore("changes").add(change);
      transaction.commit();
    } catch (error) {
      abort(transaction);
      await finished;
      throw refusal(error);
    }
    const error = await finished;
    if (error !== undefined) throw refusal(error);
    this.#tabs.postMessage("changed");
    this.#listeners.tellSoon();
  }

  async changes({ drawer, offset = 0, limit = Infinity }: ChangeQuery): Promise<Change[]> {
    const found: Change[] = [];
    const index = this.#database.transaction("changes").store.index("ofDrawer");
    let cursor = limit > 0 ? await index.openCursor(drawer, "prev") : null;
    if (cursor && offset > 0) cursor = await cursor.advance(offset);
    for (; cursor && found.length < limit; cursor = await cursor.continue()) found.push(cursor.value);
    return found;
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
    const transaction = this.#database.transaction("settings", "readwrite", { durability: "strict" });
    if ((await transaction.store.get([drawer, name])) !== before) {
      await transaction.done;
      throw new Conflict(`“${name}” has changed.`);
    }
    if (after === undefined) await transaction.store.delete([drawer, name]);
    else await transaction.store.put(after, [drawer, name]);
    await transaction.done.catch((error: unknown) => {
      throw refusal(error);
    });
    this.#tabs.postMessage("changed");
    this.#listeners.tellSoon();
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
  if (error instanceof Conflict) return error;
  const name = (error as DOMException | null)?.name;
  if (name === "ConstraintError") return new Conflict("A place is taken.", { cause: error });
  const told =
    name === "QuotaExceededError"
      ? "Nothing was changed: this browser has no more room for drawers. Discard some snippets, or free space on the disk."
      : `Nothing was changed: the drawers could not be written (${message(error)}).`;
  return new DrawerError("store", told, { cause: error });
}

function message(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
