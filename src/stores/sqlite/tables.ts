import { closeSync, existsSync, openSync, readdirSync, renameSync, rmSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { DrawerError } from "../../content/error.js";
import { sqliteErrors } from "../../messages/en/stores.js";
import { SYNC_TABLES, TABLE_NAMES, type TableName } from "../schema.js";
import { Statements } from "../sql.js";
import type { Connection } from "./connection.js";
import { headOf } from "./pages.js";
import { DIALECT } from "./selected.js";

/** The version of the tables that this Drawer writes; it is kept in the database's `user_version`. */
export const VERSION = 2;

/**
 * What brings older tables up to date: the first from version 1 to 2, the next from 2 to 3, and so on. New databases
 * are made from the schema, at the newest version.
 */
export type Update = (database: Connection) => void;
/** All of them. */
export const UPDATES: readonly Update[] = [(database) => createTables(database, SYNC_TABLES)];

/**
 * Makes the tables, or brings older ones up to date: in one transaction, after a copy of the file was made beside it.
 *
 * @param updates other than those of this Drawer, for tests
 * @returns the name of the copy, where one was made
 * @throws DrawerError `store` when a newer Drawer wrote them; the file is left as it is
 */
export function prepareTables(
  database: Connection,
  path: string,
  updates: readonly Update[] = UPDATES,
): string | undefined {
  const newest = updates.length + 1;
  const version = () => database.pragma("user_version");
  // Asked once: another process may bring them up to date at any moment.
  const found = version();
  if (found === newest) return undefined;
  if (found > newest) throw newer(path, found);
  const copy = found > 0 ? copyOf(database, path, found) : undefined;
  database.transact(() => {
    // Another process may have done it meanwhile.
    if (version() > newest) throw newer(path, version());
    if (version() === 0) {
      createTables(database, TABLE_NAMES);
      // The searched text of the entry of the same number.
      database.exec(`CREATE VIRTUAL TABLE found USING fts5(words, tokenize = "trigram case_sensitive 1")`);
    } else for (const update of updates.slice(version() - 1)) update(database);
    database.exec(`PRAGMA user_version = ${newest}`);
  });
  return copy;
}

function createTables(database: Connection, tables: readonly TableName[]): void {
  const statements = new Statements(DIALECT);
  for (const table of tables) for (const statement of statements.definition(table)) database.exec(statement);
}

function newer(path: string, version: number): DrawerError {
  return new DrawerError(sqliteErrors, "store/newer", { path, version, known: VERSION });
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
