import type { IDBPDatabase } from "idb";
import type { Change } from "../../drawer/model/change.js";
import { STORE_VALUES, type ChangeRow, type EntryRow, type ValueRow } from "../schema.js";
import { TEXTS, type TextRow } from "./tables.js";

/** How many texts are read at once, and for how many milliseconds they are looked through, without a pause. */
const PAGE = 1000;
const SLICE = 6;

/** How many changes are followed one by one; after more, all is read again. */
const FOLLOWED = 50;

/**
 * What is searched of a drawer, held in memory: IndexedDB has no search index, and a text of a hundred thousand snippets
 * is looked through in a few milliseconds. It is read in pages, at the first search, and then follows the log of changes.
 */
export class Texts {
  #texts: TextRow[] = [];
  /** The last change that is in the texts, and how often something had been forgotten then. */
  #seen = -1;
  #forgotten = "";
  #reading: Promise<void> | undefined;

  constructor(
    readonly database: IDBPDatabase,
    readonly drawer: string,
  ) {}

  /** The ids of those that hold all of the terms, the newest first, until `isEnough` of one says so. */
  async find(
    terms: readonly string[],
    isEnough: (id: string, count: number) => boolean | Promise<boolean>,
  ): Promise<void> {
    this.#reading ??= this.#catchUp().finally(() => (this.#reading = undefined));
    await this.#reading;
    const texts = this.#texts;
    let since = performance.now();
    let count = 0;
    for (let at = texts.length - 1; at >= 0; at--) {
      const { id, text } = texts[at]!;
      if (terms.every((term) => text.includes(term)) && (await isEnough(id, ++count))) return;
      if (at % 256 === 0 && performance.now() - since > SLICE) {
        await pause();
        since = performance.now();
      }
    }
  }

  async #catchUp(): Promise<void> {
    const key = ["", STORE_VALUES.forgotten];
    const forgotten = ((await this.database.get("values", key)) as ValueRow | undefined)?.value ?? "";
    const since = IDBKeyRange.lowerBound(this.#seen, true);
    const news =
      this.#seen < 0 ? [] : ((await this.database.getAll("changes", since, FOLLOWED + 1)) as ChangeRow[]);
    if (this.#seen < 0 || forgotten !== this.#forgotten || news.length > FOLLOWED) {
      await this.#readAll();
      this.#forgotten = forgotten;
      return;
    }
    for (const { number, change } of news) {
      const changed = new Set((JSON.parse(change) as Change).edits.map(({ id }) => id));
      const texts = this.#texts.filter(({ id }) => !changed.has(id));
      for (const id of changed) {
        const row = (await this.database.getFromIndex("entries", "byId", id)) as EntryRow | undefined;
        if (row?.drawer !== this.drawer) continue;
        const found = (await this.database.get(TEXTS, [this.drawer, row.number!])) as TextRow | undefined;
        if (found) texts.push(found);
      }
      if (texts.length > 1 && texts.at(-1)!.number < texts.at(-2)!.number)
        texts.sort((a, b) => a.number - b.number);
      this.#texts = texts;
      this.#seen = number!;
    }
  }

  /** Reads all texts. What changes meanwhile is followed at the next search. */
  async #readAll(): Promise<void> {
    const last = await this.database.transaction("changes").store.openKeyCursor(null, "prev");
    const texts: TextRow[] = [];
    for (let from = -1; ;) {
      const range = IDBKeyRange.bound([this.drawer, from], [this.drawer, []], true);
      const rows = (await this.database.getAll(TEXTS, range, PAGE)) as TextRow[];
      for (const row of rows) texts.push(row);
      if (rows.length < PAGE) break;
      from = rows.at(-1)!.number;
      await pause();
    }
    this.#texts = texts;
    this.#seen = (last?.key as number | undefined) ?? 0;
  }
}

/** Lets the page do what waits. */
function pause(): Promise<void> {
  return new Promise((resume) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resume();
    };
    port2.postMessage(null);
  });
}
