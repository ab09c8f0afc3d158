import { chmodSync, closeSync, mkdirSync, openSync } from "node:fs";
import { dirname } from "node:path";
import Database from "libsql";
import type { Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import type { Change } from "../drawer/change.js";
import { encodeEntry, type Entry } from "../drawer/entry.js";
import { Conflict, type ChangeQuery, type EntryQuery, type Positioned, type Store } from "../drawer/store.js";
import { Listeners } from "./listeners.js";

/** What each version of the tables adds to the one before it; the version is kept in the database's `user_version`. */
const VERSIONS = [
  `
  CREATE TABLE entries (
    id TEXT PRIMARY KEY,
    drawer TEXT NOT NULL,
    place TEXT NOT NULL,
    kind TEXT NOT NULL,
    document TEXT,
    entry TEXT NOT NULL
  ) STRICT, WITHOUT ROWID;
  CREATE UNIQUE INDEX entries_in_order ON entries (drawer, place);
  CREATE TABLE contents (hash TEXT PRIMARY KEY, bytes BLOB NOT NULL) STRICT;
  CREATE TABLE changes (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    drawer TEXT NOT NULL,
    change TEXT NOT NULL
  ) STRICT;
  CREATE INDEX changes_of_drawer ON changes (drawer, number);
`,
  `
  CREATE TABLE settings (
    drawer TEXT NOT NULL,
    name TEXT NOT NULL,
    value TEXT NOT NULL,
    PRIMARY KEY (drawer, name)
  ) STRICT, WITHOUT ROWID;
`,
];

/** How often to look whether another process has changed the database, in milliseconds. */
const WATCH_EVERY = 250;

/** What a database must be set to, at each opening, for a commit to be durable and for processes to share it. */
export const PRAGMAS = [
  "journal_mode = WAL",
  "synchronous = FULL",
  "busy_timeout = 10000",
  "foreign_keys = ON",
];

/**
 * Opens a store in a SQLite database file, which is made, with its folder, when it is not there (folder 0700, file
 * 0600). Any number of processes may open it at once; every commit is on the disk before it is acknowledged.
 *
 * @throws DrawerError `store` when the file cannot be opened, is no database, or was written by a newer Drawer
 */
export function openSqlite(path: string): SqliteStore {
  try {
    mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
    closeSync(openSync(path, "a", 0o600));
    chmodSync(path, 0o600);
    const database = new Database(path);
    for (const pragma of PRAGMAS) database.pragma(pragma);
    prepareTables(database, path);
    return new SqliteStore(database);
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw new DrawerError("store", `The drawers in “${path}” cannot be opened: ${reason(error)}.`, {
      cause: error,
    });
  }
}

function prepareTables(database: Database.Database, path: string): void {
  const version = () => pragma(database, "user_version");
  if (version() === VERSIONS.length) return;
  database.exec("BEGIN IMMEDIATE");
  try {
    if (version() > VERSIONS.length) {
      throw new DrawerError(
        "store",
        `The drawers in “${path}” were written by a newer Drawer. Update Drawer to open them.`,
      );
    }
    for (const added of VERSIONS.slice(version())) database.exec(added);
    database.exec(`PRAGMA user_version = ${VERSIONS.length}`);
    database.exec("COMMIT");
  } catch (error) {
    database.exec("ROLLBACK");
    throw error;
  }
}

function pragma(database: Database.Database, name: string): number {
  const [row] = database.pragma(name) as Record<string, number>[];
  return row![name]!;
}

function reason(error: unknown): string {
  return error instanceof Error ? error.message.replace(/\.$/, "") : String(error);
}

/** A store in a SQLite database, through libsql. Made by {@link openSqlite}. */
export class SqliteStore implements Store {
  readonly #database: Database.Database;
  readonly #statements = new Map<string, Database.Statement>();
  readonly #listeners = new Listeners();
  #timer: NodeJS.Timeout | undefined;

  /** @internal */
  constructor(database: Database.Database) {
    this.#database = database;
  }

  #sql(text: string): Database.Statement {
    let statement = this.#statements.get(text);
    if (!statement) this.#statements.set(text, (statement = this.#database.prepare(text)));
    return statement;
  }

  async entries({ drawer, kind, document, offset = 0, limit = -1 }: EntryQuery): Promise<Positioned[]> {
    if (kind === undefined && document === undefined) {
      const rows = this.#sql(
        "SELECT entry FROM entries WHERE drawer = ? ORDER BY place LIMIT ? OFFSET ?",
      ).all(...[drawer, limit, offset]) as { entry: string }[];
      return rows.map((row, index) => ({
        position: offset + index + 1,
        entry: JSON.parse(row.entry) as Entry,
      }));
    }
    const rows = this.#sql(
      `SELECT position, entry FROM (
         SELECT row_number() OVER (ORDER BY place) AS position, entry, kind, document FROM entries WHERE drawer = ?
       ) WHERE (? IS NULL OR kind = ?) AND (? IS NULL OR document = ?) ORDER BY position LIMIT ? OFFSET ?`,
    ).all(...[drawer, kind ?? null, kind ?? null, document ?? null, document ?? null, limit, offset]) as {
      position: number;
      entry: string;
    }[];
    return rows.map(({ position, entry }) => ({ position, entry: JSON.parse(entry) as Entry }));
  }

  async count(drawer: string): Promise<number> {
    return (
      this.#sql("SELECT count(*) AS count FROM entries WHERE drawer = ?").get(drawer) as { count: number }
    ).count;
  }

  async contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>> {
    const found = new Map<Hash, Uint8Array>();
    const select = this.#sql("SELECT bytes FROM contents WHERE hash = ?");
    for (const hash of hashes) {
      const row = select.get(hash) as { bytes: Uint8Array } | undefined;
      if (row) found.set(hash, new Uint8Array(row.bytes));
    }
    return found;
  }

  async commit(change: Change, contents: ReadonlyMap<Hash, Uint8Array>): Promise<void> {
    this.#transact(() => this.#write(change, contents));
  }

  /** Does something in one transaction: all of it, durably, or nothing. */
  #transact(deed: () => void): void {
    try {
      this.#database.exec("BEGIN IMMEDIATE");
      try {
        deed();
        this.#database.exec("COMMIT");
      } catch (error) {
        this.#database.exec("ROLLBACK");
        throw error;
      }
    } catch (error) {
      if (error instanceof Conflict) throw error;
      const code = (error as { code?: string }).code ?? "";
      if (code.startsWith("SQLITE_CONSTRAINT")) throw new Conflict("A place is taken.", { cause: error });
      throw new DrawerError(
        "store",
        `Nothing was changed: the drawers could not be written (${reason(error)}).`,
        {
          cause: error,
        },
      );
    }
    this.#listeners.tellSoon();
  }

  #write(change: Change, contents: ReadonlyMap<Hash, Uint8Array>): void {
    const insert = this.#sql(
      "INSERT INTO entries (id, drawer, place, kind, document, entry) VALUES (?, ?, ?, ?, ?, ?)",
    );
    const remove = this.#sql("DELETE FROM entries WHERE id = ? AND entry = ?");
    const keepContent = this.#sql("INSERT OR IGNORE INTO contents (hash, bytes) VALUES (?, ?)");
    for (const { id, before } of change.edits) {
      if (before && remove.run(id, encodeEntry(before)).changes !== 1)
        throw new Conflict(`Entry ${id} has changed.`);
    }
    for (const { id, after } of change.edits) {
      if (after)
        insert.run(
          ...[id, after.drawer, after.order, after.kind, after.origin.document ?? null, encodeEntry(after)],
        );
    }
    contents.forEach((bytes, hash) => keepContent.run(hash, bytes));
    this.#sql("INSERT INTO changes (drawer, change) VALUES (?, ?)").run(
      change.drawer,
      JSON.stringify(change),
    );
  }

  async changes({ drawer, offset = 0, limit = -1 }: ChangeQuery): Promise<Change[]> {
    const rows = this.#sql(
      "SELECT change FROM changes WHERE drawer = ? ORDER BY number DESC LIMIT ? OFFSET ?",
    ).all(...[drawer, limit, offset]) as { change: string }[];
    return rows.map((row) => JSON.parse(row.change) as Change);
  }

  async value(drawer: string, name: string): Promise<string | undefined> {
    const row = this.#sql("SELECT value FROM settings WHERE drawer = ? AND name = ?").get(
      ...[drawer, name],
    ) as { value: string } | undefined;
    return row?.value;
  }

  async valueNames(drawer: string, beginning: string): Promise<string[]> {
    const rows = this.#sql(
      "SELECT name FROM settings WHERE drawer = ? AND substr(name, 1, ?) = ? ORDER BY name",
    ).all(...[drawer, beginning.length, beginning]) as { name: string }[];
    return rows.map(({ name }) => name);
  }

  async keepValue(
    drawer: string,
    name: string,
    before: string | undefined,
    after: string | undefined,
  ): Promise<void> {
    this.#transact(() => {
      const row = this.#sql("SELECT value FROM settings WHERE drawer = ? AND name = ?").get(
        ...[drawer, name],
      ) as { value: string } | undefined;
      if (row?.value !== before) throw new Conflict(`“${name}” has changed.`);
      if (after === undefined)
        this.#sql("DELETE FROM settings WHERE drawer = ? AND name = ?").run(...[drawer, name]);
      else
        this.#sql("INSERT OR REPLACE INTO settings (drawer, name, value) VALUES (?, ?, ?)").run(
          ...[drawer, name, after],
        );
    });
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
    const version = () => pragma(this.#database, "data_version");
    let seen = version();
    return setInterval(() => {
      const now = version();
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
    this.#statements.clear();
    this.#database.close();
  }
}
