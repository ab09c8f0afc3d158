import { rmSync, watch } from "node:fs";
import { basename, dirname } from "node:path";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { Conflict } from "../../drawer/store.js";
import { Listeners } from "../../messages/core/listeners.js";
import { sqliteErrors, sqliteNotices } from "../../messages/en/stores.js";
import { runNow, type Engine, type Job, type LongWork, type WipeReach } from "../engine.js";
import { isOfTheDatabase, reason, saysBusy, saysFull, saysDamaged, type Connection } from "./connection.js";
import { SqlRows } from "./rows.js";
import { copiesBeside, damagedBeside } from "./tables.js";
import { markWriter, writerOf } from "./who-writes.js";
import { wipe } from "./wipe.js";
/** How often to look whether another process has changed the database where the system does not tell, in milliseconds. */
const WATCH_EVERY = 50;
/** When to look after a write to the log, in milliseconds: it counts once it is on the disk. */
const AFTER_WRITE = [4, 16];

/** An engine over a SQLite database, through libsql, which answers at once. */
export class SqliteEngine implements Engine {
  readonly #rows: SqlRows;
  readonly #listeners = new Listeners();
  #stopWatching: (() => void) | undefined;

  constructor(
    readonly connection: Connection,
    readonly path: string,
    { waiting = () => undefined }: { readonly waiting?: (notice: Notice) => void } = {},
    /** The folder of the copy that is read, where the database itself cannot be written. */
    readonly readOnlyCopy?: string,
  ) {
    this.#rows = new SqlRows(connection);
    connection.waiting = () => waiting(notice(sqliteNotices, "waits/writer", { writer: writerOf(path) }));
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
      throw new DrawerError(sqliteErrors, "store/read-only", { folder: dirname(this.path) });
    try {
      const result = this.connection.transact(() => {
        const unmark = work && markWriter(this.path, work);
        try {
          return runNow(job(), this.#rows);
        } finally {
          unmark?.();
        }
      });
      this.#listeners.callSoon();
      return result;
    } catch (error) {
      throw this.#refusal(error);
    }
  }

  #refusal(error: unknown): Error {
    // Anything else is a fault of whoever gave the changes, and is theirs to hear of as it is.
    if (!isOfTheDatabase(error)) return error as Error;
    if (saysDamaged(error)) return damaged(this.path, error);
    if (/^UNIQUE constraint/.test(error.message)) return new Conflict("A place is taken.", { cause: error });
    const why = saysFull(error) ? "full" : saysBusy(error) ? "busy" : "other";
    return new DrawerError(sqliteErrors, "store/write", { why, reason: reason(error) }, { cause: error });
  }

  async wipe(reach: WipeReach): Promise<{ isWhole: boolean; trace?: Notice }> {
    if (reach === "everything") for (const copy of copiesBeside(this.path)) rmSync(copy, { force: true });
    try {
      const isWhole = wipe(this.connection, reach !== "secrets");
      const trace = isWhole ? this.#setAside(reach) : this.#inLog();
      return { isWhole, ...defined({ trace }) };
    } catch (error) {
      // What is forgotten is noted, and wiped out when the drawers are opened next.
      if (saysFull(error)) return { isWhole: false, trace: notice(sqliteNotices, "trace/full", {}) };
      if (saysBusy(error)) return { isWhole: false, trace: this.#inLog() };
      throw this.#refusal(error);
    }
  }

  #inLog(): Notice {
    return notice(sqliteNotices, "trace/log", { file: `${basename(this.path)}-wal` });
  }

  #setAside(reach: WipeReach): Notice | undefined {
    const files = reach === "everything" ? damagedBeside(this.path) : [];
    return files.length === 0 ? undefined : notice(sqliteNotices, "trace/damaged", { files });
  }

  watch(listener: () => void): () => void {
    const stop = this.#listeners.add(listener);
    this.#stopWatching ??= this.#watchOthers();
    return () => {
      stop();
      if (this.#listeners.size === 0) this.#watchNoMore();
    };
  }

  /** `data_version` changes when another connection has committed. Returns what stops looking at it. */
  #watchOthers(): () => void {
    let seen = this.connection.pragma("data_version");
    const look = () => {
      const now = this.connection.pragma("data_version");
      if (now === seen) return;
      seen = now;
      this.#listeners.call();
    };
    const timer = setInterval(look, WATCH_EVERY).unref();
    const unhear = this.#hearWrites(look);
    return () => {
      clearInterval(timer);
      unhear();
    };
  }

  /** Looks soon where the system tells of writes to the database's log. Returns what stops it. */
  #hearWrites(look: () => void): () => void {
    const log = `${basename(this.path)}-wal`;
    let timers: readonly NodeJS.Timeout[] = [];
    const lookSoon = () => {
      timers.forEach(clearTimeout);
      timers = AFTER_WRITE.map((wait) => setTimeout(look, wait).unref());
    };
    try {
      const watcher = watch(
        dirname(this.path),
        { persistent: false },
        (_, name) => name === log && lookSoon(),
      );
      // Not every file system tells, and a system tells of so many only: looking now and then is enough.
      watcher.on("error", () => watcher.close());
      return () => {
        watcher.close();
        timers.forEach(clearTimeout);
      };
    } catch {
      return () => undefined;
    }
  }

  #watchNoMore(): void {
    this.#stopWatching?.();
    this.#stopWatching = undefined;
  }

  async close(): Promise<void> {
    this.#watchNoMore();
    this.#listeners.clear();
    // So that a copy of the file alone is whole; while others read or write, or the disk is full, it stays in the log.
    if (!this.isReadOnly) this.connection.checkpoint();
    this.connection.close();
    if (this.readOnlyCopy !== undefined) rmSync(this.readOnlyCopy, { recursive: true, force: true });
  }
}

/** That a database is damaged. */
export function damaged(path: string, error: unknown): DrawerError {
  return new DrawerError(sqliteErrors, "damaged", { path, reason: reason(error) }, { cause: error });
}
