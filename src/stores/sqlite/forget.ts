import type { Change } from "../../drawer/change.js";
import type { Entry } from "../../drawer/entry.js";
import type { Forgetting } from "../../drawer/store.js";
import type { Connection } from "./connection.js";
import { indexAgain } from "./search.js";

/** What was forgotten, and how far it has to be wiped out. */
export interface Forgotten {
  readonly count: number;
  /** Whether anything but private contents was forgotten, so that traces of it may lie anywhere in the file. */
  readonly wasOpen: boolean;
}

/** Forgets what is to be forgotten, inside a transaction. */
export function forget(database: Connection, what: Forgetting): Forgotten {
  const { drawer, everything = false } = what;
  const until = everything ? "\uffff" : what.until;
  const doomed = idsOf(database, what);
  let wasOpen = everything;
  let count = 0;
  for (const id of doomed) {
    const row = database.get<Row>("SELECT number, entry FROM entries WHERE id = ?", id);
    if (row) {
      const entry = JSON.parse(row.entry) as Entry;
      indexAgain(database, row.number, undefined);
      database.run("DELETE FROM entries WHERE number = ?", row.number);
      database.run(
        "UPDATE sizes SET count = count - 1, bytes = bytes - ? WHERE drawer = ?",
        entry.bytes,
        entry.drawer,
      );
      wasOpen ||= !entry.private;
    }
    const left = database.run("DELETE FROM gone WHERE id = ?", id);
    if (row || left > 0) count++;
  }
  if (until !== undefined) {
    count += database.run("DELETE FROM gone WHERE drawer = ? AND at <= ?", drawer, until);
    database.run("DELETE FROM changes WHERE drawer = ? AND at <= ?", drawer, until);
  }
  if (strikeOut(database, doomed)) wasOpen = true;
  wipeSecrets(database);
  if (wasOpen || until !== undefined) sweep(database);
  return { count, wasOpen };
}

interface Row {
  readonly number: number;
  readonly entry: string;
}

/** The ids of the snippets that are to be forgotten: in the drawer, or among what has left it. */
function idsOf(database: Connection, { drawer, ids = [], everything }: Forgetting): ReadonlySet<string> {
  if (!everything) return new Set(ids);
  const rows = database.all<{ id: string }>(
    "SELECT id FROM entries WHERE drawer = ?1 AND kept = 0 UNION SELECT id FROM gone WHERE drawer = ?1",
    drawer,
  );
  return new Set(rows.map(({ id }) => id));
}

/** How many ids are looked for in the text of the log; for more, all of it is read. */
const FEW = 20;

/**
 * Takes snippets out of the logs of all drawers, for they may have come from others. Gives whether a log said more of
 * them than that they were there.
 */
function strikeOut(database: Connection, ids: ReadonlySet<string>): boolean {
  let wasOpen = false;
  if (ids.size === 0) return false;
  const named = ids.size > FEW ? "" : `WHERE ${[...ids].map(() => "instr(change, ?) > 0").join(" OR ")}`;
  const rows = database.all<{ number: number; change: string }>(
    `SELECT number, change FROM changes ${named}`,
    ...(named === "" ? [] : ids),
  );
  for (const { number, change } of rows) {
    const whole = JSON.parse(change) as Change;
    const [struck, edits] = [
      whole.edits.filter(({ id }) => ids.has(id)),
      whole.edits.filter(({ id }) => !ids.has(id)),
    ];
    if (struck.length === 0) continue;
    wasOpen ||= struck.some(({ before, after }) => [before, after].some((entry) => entry && !entry.private));
    if (edits.length === 0 && !whole.values) database.run("DELETE FROM changes WHERE number = ?", number);
    else
      database.run(
        "UPDATE changes SET change = ? WHERE number = ?",
        ...[JSON.stringify({ ...whole, edits }), number],
      );
  }
  return wasOpen;
}

/**
 * Wipes out the contents of private snippets. All pages of their table are given up, and so overwritten with zeros, and
 * those that stay are written anew: in a page from which one row was deleted, a copy of it from before the page was
 * last put in order might be left.
 */
function wipeSecrets(database: Connection): void {
  const rows = database.all<{ id: string; name: string; came: number; bytes: Uint8Array }>(
    "SELECT * FROM secrets",
  );
  if (rows.length === 0) return;
  const known = database.all<{ entry: string }>(
    "SELECT entry FROM entries WHERE id IN (SELECT id FROM secrets) UNION ALL SELECT entry FROM gone WHERE id IN (SELECT id FROM secrets)",
  );
  const alive = new Set(known.map(({ entry }) => (JSON.parse(entry) as Entry).id));
  database.run("DELETE FROM secrets");
  for (const { id, name, came, bytes } of rows)
    if (alive.has(id))
      database.run("INSERT INTO secrets (id, name, came, bytes) VALUES (?, ?, ?, ?)", id, name, came, bytes);
}

/** Drops the contents that nothing needs any more. */
function sweep(database: Connection): void {
  const used = new Set<string>();
  for (const column of ["entry FROM entries", "entry FROM gone", "change FROM changes"])
    for (const row of database.each<Record<string, string>>(`SELECT ${column}`))
      for (const [hash] of Object.values(row)[0]!.matchAll(/\b[0-9a-f]{64}\b/g)) used.add(hash);
  for (const { hash } of database.all<{ hash: string }>("SELECT hash FROM contents"))
    if (!used.has(hash)) database.run("DELETE FROM contents WHERE hash = ?", hash);
}

/**
 * Writes all that is there anew and empties the write-ahead log, so that no trace stays of what is not there.
 * @returns whether the log could be emptied; it cannot while another connection reads from it
 */
export function wipe(database: Connection, everywhere: boolean): boolean {
  if (everywhere) {
    database.exec("INSERT INTO found (found) VALUES ('optimize')");
    database.exec("VACUUM");
  }
  return database.pragma("wal_checkpoint(TRUNCATE)") === 0;
}
