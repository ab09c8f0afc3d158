import { accessSync, chmodSync, constants, copyFileSync, existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, dirname, join } from "node:path";
import type { Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import type { Change } from "../drawer/change.js";
import type { Entry } from "../drawer/entry.js";
import {
  Conflict,
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
import { Listeners } from "./listeners.js";
import {
  closeFolder,
  Connection,
  DamagedFile,
  isOfTheDatabase,
  openConnection,
  reason,
  saysBusy,
  saysDamaged,
  saysReadOnly,
} from "./sqlite/connection.js";
import { forget, pendingWipe, wipe } from "./sqlite/forget.js";
import { isCutShort } from "./sqlite/pages.js";
import { recover } from "./sqlite/recover.js";
import { find } from "./sqlite/search.js";
import { copiesBeside, damagedBeside, prepareTables } from "./sqlite/tables.js";
import { markWriter, writerOf } from "./sqlite/who-writes.js";
import { write, writeValue } from "./sqlite/writer.js";

/** How often to look whether another process has changed the database, in milliseconds. */
const WATCH_EVERY = 250;

interface AgedRow {
  readonly number: number;
  readonly came: number;
  readonly entry: string;
}

/** How a database is opened. */
export interface SqliteOptions {
  /**
   * Whether a damaged file is set aside, under a name that the store's notices tell, and what can be read of it is
   * brought into a new one. Otherwise it is refused, and left as it is.
   */
  readonly recover?: boolean;
  /** Is told, in a sentence, for whom a write waits, when it has waited for two seconds. */
  readonly waiting?: (sentence: string) => void;
}

/**
 * Opens a store in a SQLite database file, which is made, with its folder, when it is not there (folder 0700, file
 * 0600). Any number of processes may open it at once; every commit is on the disk before it is acknowledged. Tables of
 * an older Drawer are brought up to date, after a copy of the file was made beside it.
 *
 * @throws DrawerError `store` when the file cannot be opened or was written by a newer Drawer, `damaged` when it is no
 *   database, or a damaged one
 */
export function openSqlite(path: string, options: SqliteOptions = {}): SqliteStore {
  let database: Connection | undefined;
  try {
    if (existsSync(path) && isCutShort(path)) throw new DamagedFile("it is shorter than its head says");
    const wasOpen = closeFolder(path);
    database = openConnection(path);
    const copy = prepareTables(database, path);
    const notices: Notice[] = [];
    if (wasOpen) {
      const message = `Others could look into “${dirname(path)}”. It was closed to them.`;
      notices.push({ code: "closed", message });
    }
    if (copy !== undefined) {
      const message = `The drawers were brought up to date. As they were before, they are in “${copy}”.`;
      notices.push({ code: "recovered", message });
    }
    finishWiping(database);
    return new SqliteStore(database, path, notices, options.waiting);
  } catch (error) {
    database?.close();
    if (error instanceof DrawerError) throw error;
    if ((error as NodeJS.ErrnoException).code === "ELOOP")
      throw new DrawerError(
        "store",
        `The drawers in “${path}” were not opened: a link stands there in place of the file. Set DRAWER_HOME to the folder where they are.`,
        { cause: error },
      );
    if (saysReadOnly(error) && canRead(path)) return openCopy(path);
    if (!saysDamaged(error)) {
      throw new DrawerError("store", `The drawers in “${path}” cannot be opened: ${reason(error)}.`, {
        cause: error,
      });
    }
    if (!options.recover) throw damaged(path, error);
    const notice = recover(path);
    return new SqliteStore(openConnection(path), path, notice ? [notice] : [], options.waiting);
  }
}

/** Wipes out what a process had forgotten that was killed before it could; while others have the file open, later. */
function finishWiping(database: Connection): void {
  if (pendingWipe(database) === undefined) return;
  try {
    wipe(database);
  } catch (error) {
    if (!saysBusy(error)) throw error;
  }
}

function canRead(path: string): boolean {
  try {
    accessSync(path, constants.R_OK);
    return true;
  } catch {
    return false; // then the first error says why
  }
}

/** Opens a copy of a database that cannot be written, to be read; the copy goes when the store is closed. */
function openCopy(path: string): SqliteStore {
  const folder = mkdtempSync(join(tmpdir(), "drawer-read-"));
  const copy = join(folder, basename(path));
  for (const ending of ["", "-wal"]) {
    if (!existsSync(path + ending)) continue;
    copyFileSync(path + ending, copy + ending);
    chmodSync(copy + ending, 0o600);
  }
  const database = openConnection(copy);
  prepareTables(database, copy);
  const message = `The drawers in “${dirname(path)}” can be read but not written. Nothing can be changed in them now.`;
  return new SqliteStore(database, path, [{ code: "read-only", message }], undefined, folder);
}

/**
 * Sets a damaged database aside, and brings what can be read of it into a new one in its place.
 * @returns what to say of it: where the damaged file is, and what was recovered; nothing when another process has done it
 */
export function recoverSqlite(path: string): Notice | undefined {
  return recover(path);
}

function damaged(path: string, error: unknown): DrawerError {
  return new DrawerError(
    "damaged",
    `“${path}” cannot be opened: it is no database of drawers, or a damaged one (${reason(error)}).`,
    {
      cause: error,
    },
  );
}

/** A store in a SQLite database, through libsql. Made by {@link openSqlite}. */
export class SqliteStore implements Store {
  readonly #listeners = new Listeners();
  #timer: NodeJS.Timeout | undefined;
  /** Settles when the long commit that is under way has ended. */
  #busy: Promise<unknown> = Promise.resolve();
  #isBusy = false;

  /** @internal */
  constructor(
    readonly connection: Connection,
    readonly path: string,
    /** What there is to say of how it was opened. */
    readonly notices: readonly Notice[],
    readonly waiting: (sentence: string) => void = () => undefined,
    /** The folder of the copy that is read, where the database itself cannot be written. */
    readonly readOnlyCopy?: string,
  ) {
    connection.waiting = () => this.#waits();
  }

  get isReadOnly(): boolean {
    return this.readOnlyCopy !== undefined;
  }

  #checkWritable(): void {
    if (!this.isReadOnly) return;
    const message = `Nothing was changed: the drawers in “${dirname(this.path)}” can be read but not written.`;
    throw new DrawerError("store", message);
  }

  #waits(): void {
    this.waiting(`Waiting: ${writerOf(this.path)} is writing to the drawers.`);
  }

  async entries(query: EntryQuery): Promise<Positioned[]> {
    return this.#read(() => this.#entries(query));
  }

  #entries({
    drawer,
    kind,
    document,
    kept,
    content,
    ids,
    offset = 0,
    limit = Infinity,
  }: EntryQuery): Positioned[] {
    const conditions: [sql: string, ...values: unknown[]][] = [
      ...(kind === undefined ? [] : [["kind = ?", kind] as [string, string]]),
      ...(document === undefined ? [] : [["document = ?", document] as [string, string]]),
      ...(kept === undefined ? [] : [["kept = ?", Number(kept)] as [string, number]]),
      ...(content === undefined ? [] : [["instr(entry, ?) > 0", content] as [string, string]]),
      ...(ids === undefined
        ? []
        : [["id IN (SELECT value FROM json_each(?))", JSON.stringify(ids)] as [string, string]]),
    ];
    if (conditions.length === 0) return this.#window(drawer, offset, limit);
    const rows = this.connection.all<{ entry: string }>(
      `SELECT entry FROM entries WHERE drawer = ? AND ${conditions.map(([sql]) => sql).join(" AND ")} ORDER BY place`,
      ...[drawer, ...conditions.flatMap(([, ...values]) => values)],
    );
    const entries = rows.map(({ entry }) => JSON.parse(entry) as Entry);
    // A hash stands in an entry also for a picture or a part of it.
    const exact = content === undefined ? entries : entries.filter((entry) => entry.content === content);
    const asked = exact.slice(offset, offset + limit);
    const positions = this.#positions(asked);
    return asked.map((entry) => ({ position: positions.get(entry.id)!, entry }));
  }

  /** Entries by where they stand, counted from the nearer end. */
  #window(drawer: string, offset: number, limit: number): Positioned[] {
    const { count } = this.#size(drawer);
    const from = Math.min(offset, count);
    const to = Math.min(count, from + limit);
    const fromEnd = from > count / 2;
    const rows = this.connection.all<{ entry: string }>(
      `SELECT entry FROM entries WHERE drawer = ? ORDER BY place ${fromEnd ? "DESC" : ""} LIMIT ? OFFSET ?`,
      ...[drawer, to - from, fromEnd ? count - to : from],
    );
    if (fromEnd) rows.reverse();
    return rows.map((row, index) => ({ position: from + index + 1, entry: JSON.parse(row.entry) as Entry }));
  }

  async size(drawer: string): Promise<DrawerSize> {
    return this.#read(() => this.#size(drawer));
  }

  #size(drawer: string): DrawerSize {
    const row = this.connection.get<{ count: number; bytes: number }>(
      "SELECT count, bytes FROM sizes WHERE drawer = ?",
      drawer,
    );
    return { drawer, count: row?.count ?? 0, bytes: row?.bytes ?? 0 };
  }

  async drawers(): Promise<DrawerSize[]> {
    const rows = this.#read(() =>
      this.connection.all<{ drawer: string }>(
        "SELECT drawer FROM sizes WHERE count > 0 UNION SELECT drawer FROM settings WHERE drawer <> '' UNION SELECT drawer FROM changes ORDER BY drawer",
      ),
    );
    return rows.map(({ drawer }) => this.#size(drawer));
  }

  async oldest({ drawer, picture, cameBefore = Infinity, limit }: OldestQuery): Promise<Entry[]> {
    const kinds = picture === undefined ? [false, true] : [picture];
    const rows = this.#read(() =>
      kinds.flatMap((pictures) => this.#oldestRows(drawer, pictures, cameBefore, limit)),
    );
    return rows
      .sort((a, b) => a.number - b.number)
      .slice(0, limit)
      .map(({ entry }) => JSON.parse(entry) as Entry);
  }

  /** Reads on, page by page, for as long as they are old enough: they are numbered in the order in which they came. */
  #oldestRows(drawer: string, pictures: boolean, cameBefore: number, limit: number): AgedRow[] {
    const found: AgedRow[] = [];
    for (let page = Math.min(limit, 16); ; page *= 2) {
      const rows = this.connection.all<AgedRow>(
        `SELECT number, came, entry FROM entries INDEXED BY entries_by_age
           WHERE drawer = ? AND kept = 0 AND (kind = 'picture') = ? AND number > ? ORDER BY number LIMIT ?`,
        ...[drawer, Number(pictures), found.at(-1)?.number ?? -1, page],
      );
      for (const row of rows) {
        if (row.came >= cameBefore || found.length === limit) return found;
        found.push(row);
      }
      if (rows.length < page) return found;
    }
  }

  async find(query: FindQuery): Promise<Entry[]> {
    return this.#read(() => find(this.connection, query));
  }

  async positions(entries: readonly Entry[]): Promise<Map<string, number>> {
    return this.#read(() => this.#positions(entries));
  }

  /** Counts from one entry to the next, from the last back, so that each is counted once. */
  #positions(entries: readonly Entry[]): Map<string, number> {
    const found = new Map<string, number>();
    const sorted = [...entries].sort((a, b) =>
      a.drawer < b.drawer ? -1 : a.drawer > b.drawer ? 1 : a.order < b.order ? 1 : -1,
    );
    let drawer: string | undefined;
    let after = "";
    let position = 0;
    for (const { id, drawer: name, order } of sorted) {
      if (name !== drawer) [drawer, after, position] = [name, "\uffff", this.#size(name).count + 1];
      const { among, there } = this.connection.get<{ among: number; there: string | null }>(
        "SELECT count(*) AS among, min(place) AS there FROM entries WHERE drawer = ? AND place >= ? AND place < ?",
        ...[name, order, after],
      )!;
      position -= among;
      after = order;
      if (there === order) found.set(id, position);
    }
    return found;
  }

  async gone(drawer: string): Promise<Gone[]> {
    const rows = this.#read(() =>
      this.connection.all<{ at: string; by: Gone["by"]; entry: string }>(
        "SELECT at, by, entry FROM gone WHERE drawer = ? ORDER BY number",
        drawer,
      ),
    );
    return rows.map(({ at, by, entry }) => ({ at, by, entry: JSON.parse(entry) as Entry }));
  }

  async secrets(): Promise<Secret[]> {
    const rows = this.#read(() =>
      this.connection.all<{ came: number; entry: string }>(
        `SELECT min(came) AS came, entry FROM secrets JOIN
           (SELECT id, entry FROM entries WHERE id IN (SELECT id FROM secrets) UNION ALL
            SELECT id, entry FROM gone WHERE id IN (SELECT id FROM secrets)) USING (id) GROUP BY id`,
      ),
    );
    return rows
      .map(({ came, entry }) => ({ came, entry: JSON.parse(entry) as Entry }))
      .filter(({ entry }) => entry.private)
      .map(({ came, entry: { id, drawer, kept } }) => ({ id, drawer, kept, came }));
  }

  async contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>> {
    return this.#read(() => {
      const found = new Map<Hash, Uint8Array>();
      for (const hash of hashes) {
        const row =
          this.connection.get<{ bytes: Uint8Array }>("SELECT bytes FROM contents WHERE hash = ?", hash) ??
          this.connection.get<{ bytes: Uint8Array }>("SELECT bytes FROM secrets WHERE name = ?", hash);
        if (row) found.set(hash, new Uint8Array(row.bytes));
      }
      return found;
    });
  }

  /** Changes that are given all at once are written at once; those that come one by one, through a connection of their own. */
  async commit(commits: Iterable<Commit> | AsyncIterable<Commit>): Promise<void> {
    this.#checkWritable();
    while (this.#isBusy) await this.#busy;
    if (Symbol.iterator in commits) {
      this.#write(() =>
        this.connection.transact(() => {
          for (const commit of commits) write(this.connection, commit);
        }),
      );
    } else {
      this.#isBusy = true;
      const committed = this.#commitSlowly(commits).finally(() => (this.#isBusy = false));
      this.#busy = committed.catch(() => undefined);
      await committed;
    }
    this.#listeners.tellSoon();
  }

  async #commitSlowly(commits: AsyncIterable<Commit>): Promise<void> {
    const own = new Connection(this.path);
    own.waiting = () => this.#waits();
    try {
      await own.transactSlowly(async () => {
        const done = markWriter(this.path, "taking back or doing again a large act");
        try {
          for await (const commit of commits) write(own, commit);
        } finally {
          done();
        }
      });
    } catch (error) {
      throw this.#refusal(error);
    } finally {
      own.close();
    }
  }

  async changes({ drawer, about, offset = 0, limit = Infinity }: ChangeQuery): Promise<Change[]> {
    const conditions = [
      ...(drawer === undefined ? [] : ["drawer = ?"]),
      ...(about === undefined
        ? []
        : ["EXISTS (SELECT 1 FROM json_each(?) AS word WHERE instr(change, word.value) > 0)"]),
    ];
    const rows = this.#read(() =>
      this.connection.all<{ change: string }>(
        `SELECT change FROM changes ${conditions.length > 0 ? `WHERE ${conditions.join(" AND ")}` : ""}
           ORDER BY number DESC LIMIT ? OFFSET ?`,
        ...(drawer === undefined ? [] : [drawer]),
        ...(about === undefined ? [] : [JSON.stringify(about)]),
        Number.isFinite(limit) ? limit : -1,
        offset,
      ),
    );
    return rows.map((row) => JSON.parse(row.change) as Change);
  }

  async forget(what: Forgetting): Promise<{ forgotten: number; trace?: string }> {
    this.#checkWritable();
    while (this.#isBusy) await this.#busy;
    return this.#write(() => {
      const { count } = this.connection.transact(() => {
        const done = markWriter(this.path, "forgetting for good");
        try {
          return forget(this.connection, what);
        } finally {
          done();
        }
      });
      this.#listeners.tellSoon();
      if (what.ids === undefined && !what.everything) return { forgotten: count };
      if (what.everything) for (const copy of copiesBeside(this.path)) rmSync(copy, { force: true });
      const trace = this.#traceAfter(wipe(this.connection), what.everything ?? false);
      return { forgotten: count, ...(trace !== undefined && { trace }) };
    });
  }

  #traceAfter(isEmptied: boolean, everything: boolean): string | undefined {
    if (!isEmptied)
      return `Another program has these drawers open, so a trace of it stays in “${basename(this.path)}-wal” until that program closes them.`;
    const damagedFiles = everything ? damagedBeside(this.path) : [];
    if (damagedFiles.length === 0) return undefined;
    const names = damagedFiles.map((file) => `“${file}”`).join(", ");
    return `What was set aside as damaged still holds what it held: ${names}. Delete it when you need it no more.`;
  }

  async value(drawer: string, name: string): Promise<string | undefined> {
    const row = this.#read(() =>
      this.connection.get<{ value: string }>(
        "SELECT value FROM settings WHERE drawer = ? AND name = ?",
        drawer,
        name,
      ),
    );
    return row?.value;
  }

  async valueNames(drawer: string, beginning: string): Promise<string[]> {
    const rows = this.#read(() =>
      this.connection.all<{ name: string }>(
        "SELECT name FROM settings WHERE drawer = ? AND substr(name, 1, ?) = ? ORDER BY name",
        ...[drawer, beginning.length, beginning],
      ),
    );
    return rows.map(({ name }) => name);
  }

  async keepValue(
    drawer: string,
    name: string,
    before: string | undefined,
    after: string | undefined,
  ): Promise<void> {
    this.#checkWritable();
    while (this.#isBusy) await this.#busy;
    this.#write(() =>
      this.connection.transact(() => writeValue(this.connection, drawer, name, before, after)),
    );
    this.#listeners.tellSoon();
  }

  #read<Result>(reading: () => Result): Result {
    try {
      return reading();
    } catch (error) {
      throw saysDamaged(error) ? damaged(this.path, error) : error;
    }
  }

  #write<Result>(writing: () => Result): Result {
    try {
      return writing();
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
      {
        cause: error,
      },
    );
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
    while (this.#isBusy) await this.#busy;
    this.#stopWatching();
    this.#listeners.clear();
    this.connection.close();
    if (this.readOnlyCopy !== undefined) rmSync(this.readOnlyCopy, { recursive: true, force: true });
  }
}
