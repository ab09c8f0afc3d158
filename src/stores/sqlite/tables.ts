import { closeSync, existsSync, openSync, readdirSync, renameSync, rmSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { DrawerError } from "../../content/error.js";
import type { Connection } from "./connection.js";
import { headOf } from "./pages.js";
import { indexAll } from "./search.js";

/** What each version of the tables does to the one before it; the version is kept in the database's `user_version`. */
const VERSIONS: readonly ((database: Connection) => void)[] = [
  (database) =>
    database.exec(`
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
    `),
  (database) =>
    database.exec(`
      CREATE TABLE settings (
        drawer TEXT NOT NULL,
        name TEXT NOT NULL,
        value TEXT NOT NULL,
        PRIMARY KEY (drawer, name)
      ) STRICT, WITHOUT ROWID;
    `),
  (database) => {
    database.exec(`
      ALTER TABLE entries RENAME TO old_entries;
      DROP INDEX entries_in_order;
      -- number: the order in which they came, and the row of the search index. place: empty only inside a commit.
      CREATE TABLE entries (
        number INTEGER PRIMARY KEY,
        id TEXT NOT NULL UNIQUE,
        drawer TEXT NOT NULL,
        place TEXT,
        kind TEXT NOT NULL,
        document TEXT,
        kept INTEGER NOT NULL,
        came INTEGER NOT NULL,
        entry TEXT NOT NULL
      ) STRICT;
      CREATE UNIQUE INDEX entries_in_order ON entries (drawer, place);
      CREATE INDEX entries_by_age ON entries (drawer, kind = 'picture') WHERE kept = 0;
      INSERT INTO entries (id, drawer, place, kind, document, kept, came, entry)
        SELECT id, drawer, place, kind, document, 0, CAST(unixepoch('subsec') * 1000 AS INTEGER), entry
        FROM old_entries ORDER BY id;
      DROP TABLE old_entries;

      ALTER TABLE contents RENAME TO old_contents;
      CREATE TABLE contents (hash TEXT PRIMARY KEY, bytes BLOB NOT NULL) STRICT, WITHOUT ROWID;
      INSERT INTO contents SELECT hash, bytes FROM old_contents;
      DROP TABLE old_contents;

      ALTER TABLE changes RENAME TO old_changes;
      DROP INDEX changes_of_drawer;
      CREATE TABLE changes (
        number INTEGER PRIMARY KEY,
        drawer TEXT NOT NULL,
        at TEXT NOT NULL,
        change TEXT NOT NULL
      ) STRICT;
      CREATE INDEX changes_of_drawer ON changes (drawer);
      INSERT INTO changes SELECT number, drawer, change ->> '$.at', change FROM old_changes;
      DROP TABLE old_changes;

      CREATE TABLE gone (
        number INTEGER PRIMARY KEY,
        id TEXT NOT NULL UNIQUE,
        drawer TEXT NOT NULL,
        at TEXT NOT NULL,
        by TEXT NOT NULL,
        entry TEXT NOT NULL
      ) STRICT;
      CREATE INDEX gone_of_drawer ON gone (drawer);

      CREATE TABLE sizes (
        drawer TEXT PRIMARY KEY,
        count INTEGER NOT NULL,
        bytes INTEGER NOT NULL
      ) STRICT, WITHOUT ROWID;
      INSERT INTO sizes SELECT drawer, count(*), sum(entry ->> '$.bytes') FROM entries GROUP BY drawer;

      -- The contents of private snippets, apart from the others, so that they can be wiped out by themselves.
      CREATE TABLE secrets (
        id TEXT NOT NULL,
        name TEXT NOT NULL,
        came INTEGER NOT NULL,
        bytes BLOB NOT NULL,
        PRIMARY KEY (id, name)
      ) STRICT, WITHOUT ROWID;

      -- The searched text of the entry of the same number.
      CREATE VIRTUAL TABLE found USING fts5(words, tokenize = "trigram case_sensitive 1");
    `);
    indexAll(database);
  },
];

/** The version of the tables that this Drawer writes. */
export const VERSION = VERSIONS.length;

/**
 * Makes the tables, or brings older ones up to date: in one transaction, after a copy of the file was made beside it.
 *
 * @returns the name of the copy, where one was made
 * @throws DrawerError `store` when a newer Drawer wrote them; the file is left as it is
 */
export function prepareTables(database: Connection, path: string): string | undefined {
  const version = () => database.pragma("user_version");
  if (version() === VERSION) return undefined;
  if (version() > VERSION) throw newer(path, version());
  const copy = version() > 0 ? copyOf(database, path, version()) : undefined;
  database.transact(() => {
    // Another process may have done it meanwhile.
    if (version() > VERSION) throw newer(path, version());
    for (const update of VERSIONS.slice(version())) update(database);
    database.exec(`PRAGMA user_version = ${VERSION}`);
  });
  return copy;
}

function newer(path: string, version: number): DrawerError {
  return new DrawerError(
    "store",
    `The drawers in “${path}” were written by a newer Drawer (form ${version}; this one knows ${VERSION}). They were left as they are. Update Drawer to open them.`,
  );
}

/**
 * Copies the file beside itself, under a name that tells the version. When another process has brought it up to date
 * meanwhile, that process has made the copy, and there is nothing to tell.
 */
function copyOf(database: Connection, path: string, version: number): string | undefined {
  const copy = join(dirname(path), `${nameOf(path)}.form-${version}.db`);
  const draft = `${copy}.${process.pid}.part`;
  try {
    closeSync(openSync(draft, "wx", 0o600));
    database.run("VACUUM INTO ?", draft);
    // The version that stands in its head.
    if (headOf(draft).readUInt32BE(60) !== version) return undefined;
    renameSync(draft, copy);
    return copy;
  } finally {
    rmSync(draft, { force: true });
  }
}

function nameOf(path: string): string {
  return basename(path).replace(/\.db$/, "");
}

/**
 * The copies that were made beside a database before it was brought up to date, and what a process left that was killed
 * while it copied or recovered it.
 */
export function copiesBeside(path: string): string[] {
  return besides(path, /^(?:\.form-\d+\.db(?:\.\d+\.part)?|\.db\.recovered)$/);
}

/** The damaged files that were set aside beside a database. */
export function damagedBeside(path: string): string[] {
  return besides(path, /^\.damaged-/);
}

function besides(path: string, ending: RegExp): string[] {
  const folder = dirname(path);
  const name = nameOf(path);
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((file) => file.startsWith(name) && ending.test(file.slice(name.length)))
    .map((file) => join(folder, file));
}

/** A name beside a database for it to be set aside under, because it is damaged. */
export function damagedName(path: string): string {
  const time = new Date().toISOString().slice(0, 19).replace(/[-:]/g, "").replace("T", "-");
  const begin = join(dirname(path), `${nameOf(path)}.damaged-${time}`);
  for (let n = 1; ; n++) {
    const name = n === 1 ? `${begin}.db` : `${begin}-${n}.db`;
    if (!existsSync(name)) return name;
  }
}
