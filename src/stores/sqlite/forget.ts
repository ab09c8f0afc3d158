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
export function forget(
  database: Connection,
  { drawer, ids = [], until, everything = false }: Forgetting,
): Forgotten {
  let wasOpen = everything;
  let count = 0;
  for (const { number, entry } of doomed(database, drawer, ids, everything)) {
    const { bytes, private: isPrivate } = JSON.parse(entry) as Entry;
    indexAgain(database, number, undefined);
    count += database.run("DELETE FROM entries WHERE number = ?", number);
    database.run("UPDATE sizes SET count = count - 1, bytes = bytes - ? WHERE drawer = ?", bytes, drawer);
    wasOpen ||= !isPrivate;
  }
  for (const id of ids) {
    count += database.run("DELETE FROM gone WHERE id = ?", id);
    if (strikeOut(database, drawer, id)) wasOpen = true;
  }
  const end = everything ? "\uffff" : until;
  if (end !== undefined) {
    count += database.run("DELETE FROM gone WHERE drawer = ? AND at <= ?", drawer, end);
    database.run("DELETE FROM changes WHERE drawer = ? AND at <= ?", drawer, end);
  }
  wipeSecrets(database, ids);
  if (wasOpen || end !== undefined) sweep(database);
  return { count, wasOpen };
}

function doomed(database: Connection, drawer: string, ids: readonly string[], everything: boolean) {
  type Row = { readonly number: number; readonly entry: string };
  if (everything)
    return database.all<Row>("SELECT number, entry FROM entries WHERE drawer = ? AND kept = 0", drawer);
  return ids.flatMap((id) => database.all<Row>("SELECT number, entry FROM entries WHERE id = ?", id));
}

/** Takes a snippet out of the log. Gives whether the log said more of it than that it was there. */
function strikeOut(database: Connection, drawer: string, id: string): boolean {
  let wasOpen = false;
  const rows = database.all<{ number: number; change: string }>(
    "SELECT number, change FROM changes WHERE drawer = ? AND instr(change, ?) > 0",
    ...[drawer, id],
  );
  for (const { number, change } of rows) {
    const whole = JSON.parse(change) as Change;
    const edits = whole.edits.filter((edit) => edit.id !== id);
    wasOpen ||= whole.edits.some(
      (edit) => edit.id === id && [edit.before, edit.after].some((entry) => entry && !entry.private),
    );
    if (edits.length === 0 && !whole.values)
      database.run("DELETE FROM changes WHERE drawer = ? AND number = ?", drawer, number);
    else
      database.run(
        "UPDATE changes SET change = ? WHERE drawer = ? AND number = ?",
        ...[JSON.stringify({ ...whole, edits }), drawer, number],
      );
  }
  return wasOpen;
}

/**
 * Wipes out the contents of private snippets. All pages of their table are given up, and so overwritten with zeros, and
 * those that stay are written anew: in a page from which one row was deleted, a copy of it from before the page was
 * last put in order might be left.
 */
function wipeSecrets(database: Connection, ids: readonly string[]): void {
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
    if (alive.has(id) && !ids.includes(id))
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
