import type { IDBPDatabase } from "idb";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { Conflict } from "../../drawer/store.js";
import { Listeners } from "../../messages/core/listeners.js";
import { indexeddbErrors, indexeddbNotices } from "../../messages/en/stores.js";
import { run, type Engine, type Job, type WipeReach } from "../engine.js";
import { TABLE_NAMES } from "../schema.js";
import { IdbRows, type IdbTransaction } from "./rows.js";
import { TEXTS } from "./tables.js";
import { Texts } from "./texts.js";
const ALL_TABLES: readonly string[] = [...TABLE_NAMES, TEXTS];

/** An engine over the browser's IndexedDB. Tabs of one origin share it, and each hears of the others' changes. */
export class IndexedDbEngine implements Engine {
  readonly #tabs: BroadcastChannel;
  readonly #listeners = new Listeners();
  readonly #texts = new Map<string, Texts>();

  constructor(
    readonly database: IDBPDatabase,
    name: string,
  ) {
    this.#tabs = new BroadcastChannel(`drawer:${name}`);
    this.#tabs.onmessage = () => this.#listeners.call();
  }

  async read<Result>(job: () => Job<Result>): Promise<Result> {
    const transaction = this.database.transaction([...ALL_TABLES]);
    return run(job(), this.#rows(transaction as unknown as IdbTransaction));
  }

  async write<Result>(job: () => Job<Result>): Promise<Result> {
    const transaction = this.database.transaction([...ALL_TABLES], "readwrite", { durability: "strict" });
    const finished = transaction.done.catch((error: unknown) => error);
    let result: Result;
    try {
      result = await run(job(), this.#rows(transaction as unknown as IdbTransaction));
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
    this.#listeners.callSoon();
    return result;
  }

  #rows(transaction: IdbTransaction): IdbRows {
    return new IdbRows(transaction, this.database, (drawer) => {
      let texts = this.#texts.get(drawer);
      if (!texts) this.#texts.set(drawer, (texts = new Texts(this.database, drawer)));
      return texts;
    });
  }

  /**
   * What a browser's own files still hold of deleted rows is out of a page's reach: browsers drop it when they next put
   * those files in order, or at once when the user clears the site's data.
   */
  async wipe(reach: WipeReach): Promise<{ isWhole: boolean; trace?: Notice }> {
    if (reach !== "everything") return { isWhole: true };
    return { isWhole: true, trace: notice(indexeddbNotices, "trace/browser", {}) };
  }

  watch(listener: () => void): () => void {
    return this.#listeners.add(listener);
  }

  async close(): Promise<void> {
    this.#listeners.clear();
    this.#tabs.close();
    this.database.close();
  }
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
  if (!(error instanceof DOMException)) return error as Error;
  if (error.name === "ConstraintError") return new Conflict("A place is taken.", { cause: error });
  if (error.name === "QuotaExceededError")
    return new DrawerError(indexeddbErrors, "store/browser-full", {}, { cause: error });
  return new DrawerError(indexeddbErrors, "store/browser-write", { reason: error.message }, { cause: error });
}
