import type { Hash } from "../content/encode.js";
import type { Change } from "../drawer/change.js";
import { encodeEntry, type Entry } from "../drawer/entry.js";
import { Conflict, type ChangeQuery, type EntryQuery, type Positioned, type Store } from "../drawer/store.js";
import { Listeners } from "./listeners.js";

/** A store in memory: for tests, for pages that keep nothing, and as the plainest account of what a store does. */
export class MemoryStore implements Store {
  readonly #entries = new Map<string, Entry>();
  readonly #contents = new Map<Hash, Uint8Array>();
  readonly #changes: Change[] = [];
  readonly #values = new Map<string, Map<string, string>>();
  readonly #listeners = new Listeners();

  async entries(query: EntryQuery): Promise<Positioned[]> {
    const matching = this.#ordered(query.drawer)
      .map((entry, index) => ({ position: index + 1, entry }))
      .filter(({ entry }) => query.kind === undefined || entry.kind === query.kind)
      .filter(({ entry }) => query.document === undefined || entry.origin.document === query.document);
    return slice(matching, query);
  }

  #ordered(drawer: string): Entry[] {
    const all = [...this.#entries.values()].filter((entry) => entry.drawer === drawer);
    return all.sort((a, b) => (a.order < b.order ? -1 : 1));
  }

  async count(drawer: string): Promise<number> {
    return this.#ordered(drawer).length;
  }

  async contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>> {
    const found = new Map<Hash, Uint8Array>();
    for (const hash of hashes) if (this.#contents.has(hash)) found.set(hash, this.#contents.get(hash)!);
    return found;
  }

  async commit(change: Change, contents: ReadonlyMap<Hash, Uint8Array>): Promise<void> {
    for (const { id, before } of change.edits) {
      if (encodeEntry(this.#entries.get(id) ?? null) !== encodeEntry(before))
        throw new Conflict(`Entry ${id} has changed.`);
    }
    const leaving = new Set(change.edits.map(({ id }) => id));
    const places = new Set<string>();
    for (const entry of this.#entries.values()) if (!leaving.has(entry.id)) places.add(placeOf(entry));
    for (const { id, after } of change.edits) {
      if (!after) continue;
      if (places.has(placeOf(after))) throw new Conflict(`The place of entry ${id} is taken.`);
      places.add(placeOf(after));
    }
    for (const { id, after } of change.edits) {
      if (after) this.#entries.set(id, after);
      else this.#entries.delete(id);
    }
    contents.forEach((bytes, hash) => this.#contents.set(hash, bytes));
    this.#changes.push(change);
    this.#listeners.tellSoon();
  }

  async changes(query: ChangeQuery): Promise<Change[]> {
    return slice(this.#changes.filter((change) => change.drawer === query.drawer).reverse(), query);
  }

  async value(drawer: string, name: string): Promise<string | undefined> {
    return this.#values.get(drawer)?.get(name);
  }

  async valueNames(drawer: string, beginning: string): Promise<string[]> {
    return [...(this.#values.get(drawer)?.keys() ?? [])].filter((name) => name.startsWith(beginning)).sort();
  }

  async keepValue(
    drawer: string,
    name: string,
    before: string | undefined,
    after: string | undefined,
  ): Promise<void> {
    const values = this.#values.get(drawer) ?? new Map<string, string>();
    if (values.get(name) !== before) throw new Conflict(`“${name}” has changed.`);
    if (after === undefined) values.delete(name);
    else values.set(name, after);
    this.#values.set(drawer, values);
    this.#listeners.tellSoon();
  }

  watch(listener: () => void): () => void {
    return this.#listeners.add(listener);
  }

  async close(): Promise<void> {
    this.#listeners.clear();
  }
}

const placeOf = (entry: Entry) => JSON.stringify([entry.drawer, entry.order]);

function slice<T>(all: T[], { offset = 0, limit }: { offset?: number; limit?: number }): T[] {
  return all.slice(offset, limit === undefined ? undefined : offset + limit);
}
