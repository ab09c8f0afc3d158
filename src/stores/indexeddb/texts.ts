import type { IDBPDatabase } from "idb";
import { FORGOTTEN } from "./writing.js";
import type { Tables } from "./tables.js";

/** How many texts are read at once, and for how many milliseconds they are looked through, without a pause. */
const PAGE = 1000;
const SLICE = 6;

/** How many changes are followed one by one; after more, all is read again. */
const FOLLOWED = 50;

/** One text: the number and the id of its entry, and what is searched. */
interface Text {
  readonly number: number;
  readonly id: string;
  readonly text: string;
}

/**
 * What is searched of a drawer, held in memory: IndexedDB has no search index, and a text of a hundred thousand snippets
 * is looked through in a few milliseconds. It is read in pages, at the first search, and then follows the log of changes.
 */
export class Texts {
  #texts: Text[] = [];
  /** The last change that is in the texts, and how often something had been forgotten then. */
  #seen = -1;
  #forgotten = "";
  #reading: Promise<void> | undefined;

  constructor(
    readonly database: IDBPDatabase<Tables>,
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
    const forgotten = (await this.database.get("settings", ["", FORGOTTEN])) ?? "";
    const news =
      this.#seen < 0
        ? []
        : await this.database.getAllKeys("changes", IDBKeyRange.lowerBound(this.#seen, true), FOLLOWED + 1);
    if (this.#seen < 0 || forgotten !== this.#forgotten || news.length > FOLLOWED) {
      await this.#readAll();
      this.#forgotten = forgotten;
      return;
    }
    for (const key of news) {
      const change = await this.database.get("changes", key);
      const changed = new Set((change?.edits ?? []).map(({ id }) => id));
      const texts = this.#texts.filter(({ id }) => !changed.has(id));
      for (const id of changed) {
        const row = await this.database.get("entries", id);
        const found =
          row?.drawer === this.drawer
            ? await this.database.get("texts", [this.drawer, row.number])
            : undefined;
        if (row && found) texts.push({ number: row.number, ...found });
      }
      if (texts.length > 1 && texts.at(-1)!.number < texts.at(-2)!.number)
        texts.sort((a, b) => a.number - b.number);
      this.#texts = texts;
      this.#seen = key;
    }
  }

  /** Reads all texts. What changes meanwhile is followed at the next search. */
  async #readAll(): Promise<void> {
    const last = await this.database.transaction("changes").store.openKeyCursor(null, "prev");
    const texts: Text[] = [];
    for (let from = -1; ;) {
      const range = IDBKeyRange.bound([this.drawer, from], [this.drawer, []], true);
      const { store } = this.database.transaction("texts");
      const [keys, rows] = await Promise.all([store.getAllKeys(range, PAGE), store.getAll(range, PAGE)]);
      rows.forEach((row, index) => texts.push({ number: keys[index]![1], ...row }));
      if (rows.length < PAGE) break;
      from = keys.at(-1)![1];
      await pause();
    }
    this.#texts = texts;
    this.#seen = last?.key ?? 0;
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
