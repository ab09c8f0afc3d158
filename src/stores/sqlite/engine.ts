import { rmSync } from "node:fs";
import { basename, dirname } from "node:path";
import { DrawerError } from "../../content/error.js";
import { Conflict } from "../../drawer/store.js";
import { runNow, type Engine, type Job, type LongWork, type WipeReach } from "../engine.js";
import { Listeners } from "../listeners.js";
import { isOfTheDatabase, reason, saysDamaged, type Connection } from "./connection.js";
import { SqlRows } from "./rows.js";
import { copiesBeside, damagedBeside } from "./tables.js";
import { markWriter, writerOf } from "./who-writes.js";
import { wipe } from "./wipe.js";

/** How often to look whether another process has changed the database, in milliseconds. */
const WATCH_EVERY = 250;

/** What others are told that wait. */
const WORK: Readonly<Record<LongWork, string>> = {
  reverting: "taking back or doing again a large act",
  forgetting: "forgetting for good",
};

/** An engine over a SQLite database, through libsql, which answers at once. */
export class SqliteEngine implements Engine {
  readonly #rows: SqlRows;
  readonly #listeners = new Listeners();
  #timer: NodeJS.Timeout | undefined;

  constructor(
    readonly connection: Connection,
    readonly path: string,
    { waiting = () => undefined }: { readonly waiting?: (sentence: string) => void } = {},
    /** The folder of the copy that is read, where the database itself cannot be written. */
    readonly readOnlyCopy?: string,
  ) {
    this.#rows = new SqlRows(connection);
    connection.waiting = () => waiting(`Waiting: ${writerOf(path)} is writing to the drawers.`);
  }

  get isReadOnly(): boolean {
    return this.readOnlyCopy !== undefined;
  }

  async read<Result>(job: () => Job<Result>): Promise<Result> {
    try {
      return runNow(job(), this.#rows);
    } catch (error) {
      throw saysDamaged(error) ? damaged(this.path, error) : error;
    }
  }

  async write<Result>(job: () => Job<Result>, work?: LongWork): Promise<Result> {
    if (this.isReadOnly)
      throw new DrawerError(
        "store",
        `Nothing was changed: the drawers in “${dirname(this.path)}” can be read but not written.`,
      );
    try {
      const result = this.connection.transact(() => {
        const unmark = work && markWriter(this.path, WORK[work]);
        try {
          return runNow(job(), this.#rows);
        } finally {
          unmark?.();
        }
      });
      this.#listeners.tellSoon();
      return result;
    } catch (error) {
      throw this.#refusal(error);
    }
  }

  #refusal(error: unknown): Error {
    // Anything else is a fault of whoever gave the changes, and is theirs to hear of as it is.
    if (!isOfTheDatabase(error)) return error as Error;
    if (saysDamaged(error)) return damaged(this.path, error);
    const { code } = error;
    if (/^UNIQUE constraint/.test(error.message)) return new Conflict("A place is taken.", { cause: error });
    const why =
      /FULL|IOERR/.test(code) || /disk is full|disk I\/O/.test(reason(error))
        ? `the disk is full or cannot be written (${reason(error)}). Free some space and try again`
        : /BUSY|locked/.test(code + reason(error))
          ? "another program has been writing to them for a long time. Try again when it has ended"
          : reason(error);
    return new DrawerError(
      "store",
      `Nothing was changed, and nothing is lost: the drawers could not be written, because ${why}.`,
      { cause: error },
    );
  }

  async wipe(reach: WipeReach): Promise<{ isWhole: boolean; trace?: string }> {
    if (reach === "everything") for (const copy of copiesBeside(this.path)) rmSync(copy, { force: true });
    const isWhole = wipe(this.connection, reach !== "secrets");
    const trace = isWhole ? this.#setAside(reach) : this.#inLog();
    return { isWhole, ...(trace !== undefined && { trace }) };
  }

  #inLog(): string {
    return `Another program has these drawers open, so a trace of it stays in “${basename(this.path)}-wal” until that program closes them.`;
  }

  #setAside(reach: WipeReach): string | undefined {
    const files = reach === "everything" ? damagedBeside(this.path) : [];
    if (files.length === 0) return undefined;
    const names = files.map((file) => `“${file}”`).join(", ");
    return `What was set aside as damaged still holds what it held: ${names}. Delete it when you need it no more.`;
  }

  watch(listener: () => void): () => void {
    const stop = this.#listeners.add(listener);
    this.#timer ??= this.#watchOthers();
    return () => {
      stop();
      if (this.#listeners.size === 0) this.#stopWatching();
    };
  }

  /** `data_version` changes when another connection has committed. */
  #watchOthers(): NodeJS.Timeout {
    let seen = this.connection.pragma("data_version");
    return setInterval(() => {
      const now = this.connection.pragma("data_version");
      if (now === seen) return;
      seen = now;
      this.#listeners.tell();
    }, WATCH_EVERY).unref();
  }

  #stopWatching(): void {
    clearInterval(this.#timer);
    this.#timer = undefined;
  }

  async close(): Promise<void> {
    this.#stopWatching();
    this.#listeners.clear();
    this.connection.close();
    if (this.readOnlyCopy !== undefined) rmSync(this.readOnlyCopy, { recursive: true, force: true });
  }
}

/** That a database is damaged. */
export function damaged(path: string, error: unknown): DrawerError {
  return new DrawerError(
    "damaged",
    `“${path}” cannot be opened: it is no database of drawers, or a damaged one (${reason(error)}).`,
    { cause: error },
  );
}
