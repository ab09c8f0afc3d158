import type { Hash } from "../content/encode.js";
import { isLeaving, type Change } from "../drawer/change.js";
import { encodeEntry, hashesOf, type Entry } from "../drawer/entry.js";
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
import { isTrace, strike, tracesOf, withoutOpen, type Traces } from "../drawer/traces.js";
import { Listeners } from "./listeners.js";
import { hasComeAgain, searchedOf, secretsOf, speaksOf } from "./records.js";

/** An entry and when it came, in milliseconds since 1970. */
interface Kept {
  readonly entry: Entry;
  readonly came: number;
}

/** A store in memory: for tests, for pages that keep nothing, and as the plainest account of what a store does. */
export class MemoryStore implements Store {
  /** By id, in the order in which they came. */
  #entries = new Map<string, Kept>();
  #gone = new Map<string, Gone>();
  #changes: Change[] = [];
  readonly #contents = new Map<Hash, Uint8Array>();
  /** When the content of a private snippet came, by the name of the content. */
  readonly #secretSince = new Map<Hash, number>();
  readonly #values = new Map<string, Map<string, string>>();
  readonly #listeners = new Listeners();

  async entries({ offset = 0, limit = Infinity, ...query }: EntryQuery): Promise<Positioned[]> {
    return this.#ordered(query.drawer)
      .map((entry, index) => ({ position: index + 1, entry }))
      .filter(({ entry }) => matches(entry, query))
      .slice(offset, offset + limit);
  }

  #of(drawer: string): Kept[] {
    return [...this.#entries.values()].filter(({ entry }) => entry.drawer === drawer);
  }

  #ordered(drawer: string): Entry[] {
    return this.#of(drawer)
      .map(({ entry }) => entry)
      .sort((a, b) => (a.order < b.order ? -1 : 1));
  }

  async size(drawer: string): Promise<DrawerSize> {
    const entries = this.#of(drawer);
    return { drawer, count: entries.length, bytes: entries.reduce((sum, { entry }) => sum + entry.bytes, 0) };
  }

  async drawers(): Promise<DrawerSize[]> {
    const names = new Set([...this.#changes.map(({ drawer }) => drawer), ...this.#values.keys()]);
    for (const { entry } of this.#entries.values()) names.add(entry.drawer);
    return Promise.all([...names].sort().map((name) => this.size(name)));
  }

  async oldest({ drawer, picture, cameBefore = Infinity, limit }: OldestQuery): Promise<Entry[]> {
    return this.#of(drawer)
      .filter(({ entry, came }) => !entry.kept && came < cameBefore)
      .map(({ entry }) => entry)
      .filter(({ kind }) => picture === undefined || picture === (kind === "picture"))
      .slice(0, limit);
  }

  async find({ drawer, terms, limit, ...filter }: FindQuery): Promise<Entry[]> {
    return this.#of(drawer)
      .map(({ entry }) => entry)
      .filter((entry) => !entry.private && matches(entry, filter))
      .filter((entry) => {
        const searched = searchedOf(entry, this.#contents.get(entry.content));
        return terms.every((term) => searched.includes(term));
      })
      .reverse()
      .slice(0, limit);
  }

  async positions(entries: readonly Entry[]): Promise<Map<string, number>> {
    const wanted = new Set(entries.map(({ id }) => id));
    const drawers = new Set(entries.map(({ drawer }) => drawer));
    const all = [...drawers].flatMap((drawer) =>
      this.#ordered(drawer).map(({ id }, index) => [id, index + 1] as const),
    );
    return new Map(all.filter(([id]) => wanted.has(id)));
  }

  async gone(drawer: string): Promise<Gone[]> {
    return [...this.#gone.values()].filter(({ entry }) => entry.drawer === drawer);
  }

  async secrets(): Promise<Secret[]> {
    const all = [
      ...[...this.#entries.values()].map(({ entry }) => entry),
      ...[...this.#gone.values()].map(({ entry }) => entry),
    ];
    return all
      .filter((entry) => entry.private)
      .map(({ id, drawer, kept, content }) => ({
        id,
        drawer,
        kept,
        came: this.#secretSince.get(content) ?? 0,
      }));
  }

  async contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>> {
    const found = new Map<Hash, Uint8Array>();
    for (const hash of hashes) if (this.#contents.has(hash)) found.set(hash, this.#contents.get(hash)!);
    return found;
  }

  async commit(commits: Iterable<Commit> | AsyncIterable<Commit>): Promise<void> {
    const all: Commit[] = [];
    for await (const commit of commits) all.push(commit);
    const entries = new Map(this.#entries);
    const gone = new Map(this.#gone);
    for (const { change } of all) {
      for (const { name, before } of change.values ?? [])
        if (this.#values.get(change.drawer)?.get(name) !== before)
          throw new Conflict(`“${name}” has changed.`);
      apply(change, entries, gone);
    }
    this.#entries = entries;
    this.#gone = gone;
    for (const { change, contents } of all) {
      contents.forEach((bytes, hash) => this.#contents.set(hash, bytes));
      for (const { name } of secretsOf(change, contents)) this.#secretSince.set(name, Date.now());
      for (const { name, after } of change.values ?? []) this.#setValue(change.drawer, name, after);
      this.#changes.push(change);
    }
    this.#listeners.tellSoon();
  }

  async changes({ drawer, about, offset = 0, limit = Infinity }: ChangeQuery): Promise<Change[]> {
    return this.#changes
      .filter((change) => drawer === undefined || change.drawer === drawer)
      .filter((change) => about === undefined || speaksOf(change, new Set(about)))
      .reverse()
      .slice(offset, offset + limit);
  }

  async forget({
    drawer,
    ids = [],
    until = "",
    everything = false,
  }: Forgetting): Promise<{ forgotten: number }> {
    const doomed = new Set(ids);
    if (everything) {
      for (const { entry } of this.#of(drawer)) if (!entry.kept) doomed.add(entry.id);
      for (const { entry } of await this.gone(drawer)) doomed.add(entry.id);
    }
    const traces = this.#traces(doomed, ids.length > 0);
    for (const [id, { entry }] of this.#gone) if (isTrace(entry, traces)) doomed.add(id);
    for (const [id, { entry, at }] of this.#gone) if (entry.drawer === drawer && at <= until) doomed.add(id);
    let forgotten = 0;
    for (const id of doomed)
      if ([this.#entries.delete(id), this.#gone.delete(id)].includes(true)) forgotten++;
    const struck = strike(this.#changes, traces);
    this.#changes = this.#changes
      .filter((change) => change.drawer !== drawer || !(everything || change.at <= until))
      .flatMap((change) => (struck.has(change) ? (struck.get(change) ?? []) : change));
    const used = new Set<Hash>();
    const use = (entry: Entry | null) => entry && hashesOf(entry).forEach((hash) => used.add(hash));
    for (const { entry } of [...this.#entries.values(), ...this.#gone.values()]) use(entry);
    for (const { edits } of this.#changes)
      for (const { before, after } of edits) [before, after].forEach(use);
    for (const hash of this.#contents.keys()) if (!used.has(hash)) this.#contents.delete(hash);
    this.#listeners.tellSoon();
    return { forgotten };
  }

  /** What else is to be forgotten with snippets: their pieces, and, of private ones, what has the same content. */
  #traces(doomed: ReadonlySet<string>, ofSecrets: boolean): Traces {
    const { ids, contents } = tracesOf(doomed, this.#changes);
    if (!ofSecrets) return { ids, contents: new Set() };
    const open = [...this.#entries.values()].map(({ entry }) => entry).filter(({ id }) => !doomed.has(id));
    return withoutOpen({ ids, contents }, open);
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
    if (this.#values.get(drawer)?.get(name) !== before) throw new Conflict(`“${name}” has changed.`);
    this.#setValue(drawer, name, after);
    this.#listeners.tellSoon();
  }

  #setValue(drawer: string, name: string, value: string | undefined): void {
    const values = this.#values.get(drawer) ?? new Map<string, string>();
    if (value === undefined) values.delete(name);
    else values.set(name, value);
    this.#values.set(drawer, values);
  }

  watch(listener: () => void): () => void {
    return this.#listeners.add(listener);
  }

  async close(): Promise<void> {
    this.#listeners.clear();
  }
}

const placeOf = (entry: Entry) => JSON.stringify([entry.drawer, entry.order]);

/** Makes a change in these entries, or throws a Conflict. */
function apply(change: Change, entries: Map<string, Kept>, gone: Map<string, Gone>): void {
  for (const { id, before } of change.edits) {
    if (encodeEntry(entries.get(id)?.entry ?? null) !== encodeEntry(before))
      throw new Conflict(`Entry ${id} has changed.`);
  }
  const leaving = new Set(change.edits.map(({ id }) => id));
  const places = new Set<string>();
  for (const { entry } of entries.values()) if (!leaving.has(entry.id)) places.add(placeOf(entry));
  for (const { id, before, after } of change.edits) {
    if (after) {
      if (places.has(placeOf(after))) throw new Conflict(`The place of entry ${id} is taken.`);
      places.add(placeOf(after));
      const known = entries.get(id);
      const isYoung = !known || hasComeAgain(before, after);
      if (isYoung) entries.delete(id);
      entries.set(id, { entry: after, came: isYoung ? Date.now() : known.came });
      gone.delete(id);
    } else if (before) {
      entries.delete(id);
      if (isLeaving(change)) gone.set(id, { entry: before, at: change.at, by: change.deed ?? change.what });
    }
  }
}
