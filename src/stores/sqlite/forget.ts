import type { Change } from "../../drawer/change.js";
import type { Entry } from "../../drawer/entry.js";
import type { Forgetting } from "../../drawer/store.js";
import { isTrace, strike, survivorsOf, tracesOf, withoutOpen, type Traces } from "../../drawer/traces.js";
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
  const { rows, traces } = tracesIn(database, doomed, what.ids !== undefined);
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
  if (traces.ids.size > 0)
    for (const { id, entry } of database.all<{ id: string; entry: string }>("SELECT id, entry FROM gone"))
      if (isTrace(JSON.parse(entry) as Entry, traces)) {
        count += database.run("DELETE FROM gone WHERE id = ?", id);
        wasOpen = true;
      }
  if (until !== undefined) {
    count += database.run("DELETE FROM gone WHERE drawer = ? AND at <= ?", drawer, until);
    database.run("DELETE FROM changes WHERE drawer = ? AND at <= ?", drawer, until);
  }
  if (strikeOut(database, rows, traces)) wasOpen = true;
  wipeSecrets(database);
  if (wasOpen || until !== undefined) sweep(database);
  if (what.ids !== undefined || everything) setPending(database, wasOpen ? "everywhere" : "in the log");
  return { count, wasOpen };
}

/** Where traces of what was forgotten may still lie, until they have been wiped out: kept, so that a kill does not end it. */
type Pending = "everywhere" | "in the log";

function setPending(database: Connection, where: Pending): void {
  if (pendingWipe(database) === "everywhere") return;
  database.run("INSERT OR REPLACE INTO settings (drawer, name, value) VALUES ('', 'wipe', ?)", where);
}

/** Where something is still to be wiped out; nothing when all of it has been. */
export function pendingWipe(database: Connection): Pending | undefined {
  return database.get<{ value: Pending }>("SELECT value FROM settings WHERE drawer = '' AND name = 'wipe'")
    ?.value;
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

/** A change in the log, by its number. */
type Logged = ReadonlyMap<number, Change>;

/** The traces of snippets, and all changes that speak of them, or of snippets whose history is to be mended. */
function tracesIn(
  database: Connection,
  doomed: ReadonlySet<string>,
  ofSecrets: boolean,
): { rows: Logged; traces: Traces } {
  let rows: Logged = new Map();
  let traces: Traces = { ids: doomed, contents: new Set() };
  for (let known = -1; known !== traces.ids.size + traces.contents.size;) {
    known = traces.ids.size + traces.contents.size;
    rows = changesAbout(database, [...traces.ids, ...traces.contents]);
    const found = tracesOf(doomed, [...rows.values()]);
    traces = ofSecrets
      ? withoutOpen(found, openWith(database, found, doomed))
      : { ids: found.ids, contents: new Set() };
  }
  const survivors = survivorsOf([...rows.values()], traces);
  if (survivors.size > 0) rows = changesAbout(database, [...traces.ids, ...traces.contents, ...survivors]);
  return { rows, traces };
}

/** The snippets that can be seen and have one of the contents of these traces. */
function* openWith(
  database: Connection,
  { contents }: Traces,
  doomed: ReadonlySet<string>,
): Generator<Entry> {
  for (const hash of contents) {
    const rows = database.all<{ entry: string }>("SELECT entry FROM entries WHERE instr(entry, ?) > 0", hash);
    for (const { entry } of rows) {
      const found = JSON.parse(entry) as Entry;
      if (!doomed.has(found.id)) yield found;
    }
  }
}

/** How many ids and hashes are looked for in the text of the log; for more, all of it is read. */
const FEW = 20;

/** The changes of all logs that speak of one of these, from the oldest on. */
function changesAbout(database: Connection, about: readonly string[]): Logged {
  if (about.length === 0) return new Map();
  const named = about.length > FEW ? "" : `WHERE ${about.map(() => "instr(change, ?) > 0").join(" OR ")}`;
  const rows = database.all<{ number: number; change: string }>(
    `SELECT number, change FROM changes ${named} ORDER BY number`,
    ...(named === "" ? [] : about),
  );
  return new Map(rows.map(({ number, change }) => [number, JSON.parse(change) as Change]));
}

/** Takes traces out of the logs of all drawers. Gives whether a log said more of them than that they were there. */
function strikeOut(database: Connection, rows: Logged, traces: Traces): boolean {
  const struck = strike([...rows.values()], traces);
  let wasOpen = false;
  for (const [number, change] of rows) {
    if (!struck.has(change)) continue;
    const after = struck.get(change);
    wasOpen ||= change.edits.some(({ before, after: then }) =>
      [before, then].some((entry) => entry && !entry.private && isTrace(entry, traces)),
    );
    if (after) database.run("UPDATE changes SET change = ? WHERE number = ?", JSON.stringify(after), number);
    else database.run("DELETE FROM changes WHERE number = ?", number);
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
      // The database gives bytes in a form that it does not take.
      database.run(
        "INSERT INTO secrets (id, name, came, bytes) VALUES (?, ?, ?, ?)",
        ...[id, name, came, new Uint8Array(bytes)],
      );
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
export function wipe(database: Connection): boolean {
  if (pendingWipe(database) === "everywhere") {
    database.exec("INSERT INTO found (found) VALUES ('optimize')");
    database.exec("VACUUM");
  }
  const isWiped = database.pragma("wal_checkpoint(TRUNCATE)") === 0;
  if (isWiped) database.run("DELETE FROM settings WHERE drawer = '' AND name = 'wipe'");
  return isWiped;
}
