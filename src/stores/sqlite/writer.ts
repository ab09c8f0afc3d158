import { isLeaving, type Change } from "../../drawer/change.js";
import { encodeEntry, type Entry } from "../../drawer/entry.js";
import { Conflict, type Commit } from "../../drawer/store.js";
import { hasComeAgain, secretsOf, sizeChanges } from "../records.js";
import type { Connection } from "./connection.js";
import { indexAgain, indexWhenDue } from "./search.js";

/** Writes a change and the contents it brings, inside a transaction. */
export function write(database: Connection, { change, contents }: Commit): void {
  const { edits, values = [], drawer } = change;
  const now = Date.now();
  const secrets = secretsOf(change, contents);
  const secretNames = new Set(secrets.map(({ name }) => name));
  for (const [hash, bytes] of contents)
    if (!secretNames.has(hash))
      database.run("INSERT OR IGNORE INTO contents (hash, bytes) VALUES (?, ?)", hash, bytes);
  for (const { id, name } of secrets)
    database.run(
      "INSERT OR IGNORE INTO secrets (id, name, came, bytes) VALUES (?, ?, ?, ?)",
      id,
      name,
      now,
      contents.get(name),
    );
  const numbers = takeOut(database, change);
  let hasCome = false;
  for (const { id, before, after } of edits) {
    if (!after) continue;
    const isYoung = hasComeAgain(before, after);
    if (before && !isYoung) {
      alter(database, numbers.get(id)!, before, after);
      continue;
    }
    if (isYoung) takeRow(database, numbers.get(id)!);
    else if (change.what !== "collect" && change.what !== "import")
      database.run("DELETE FROM gone WHERE id = ?", id);
    database.run(
      "INSERT INTO entries (id, drawer, place, kind, document, kept, came, entry) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
      ...[id, after.drawer, after.order, after.kind, after.origin.document ?? null, Number(after.kept), now],
      encodeEntry(after),
    );
    hasCome = true;
  }
  for (const { name, before, after } of values) writeValue(database, drawer, name, before, after);
  resize(database, change);
  database.run(
    "INSERT INTO changes (drawer, at, change) VALUES (?, ?, ?)",
    ...[drawer, change.at, JSON.stringify(change)],
  );
  if (hasCome)
    indexWhenDue(database, database.get<{ last: number }>("SELECT max(number) AS last FROM entries")!.last);
}

/**
 * Takes out what leaves, and takes from its place what moves, so that entries can change places.
 * @returns the numbers of all of them, by id
 */
function takeOut(database: Connection, change: Change): Map<string, number> {
  const numbers = new Map<string, number>();
  for (const { id, before, after } of change.edits) {
    if (!before) continue;
    const row = database.get<{ number: number }>(
      "SELECT number FROM entries WHERE id = ? AND entry = ?",
      ...[id, encodeEntry(before)],
    );
    if (!row) throw new Conflict(`Entry ${id} has changed.`);
    numbers.set(id, row.number);
    if (after) {
      if (after.order !== before.order || after.drawer !== before.drawer)
        database.run("UPDATE entries SET place = NULL WHERE number = ?", row.number);
      continue;
    }
    takeRow(database, row.number);
    if (isLeaving(change))
      database.run(
        "INSERT OR REPLACE INTO gone (id, drawer, at, by, entry) VALUES (?, ?, ?, ?, ?)",
        ...[id, before.drawer, change.at, change.deed ?? change.what, encodeEntry(before)],
      );
  }
  return numbers;
}

/** Takes a row out, and out of the search index. */
function takeRow(database: Connection, number: number): void {
  indexAgain(database, number, undefined);
  database.run("DELETE FROM entries WHERE number = ?", number);
}

function alter(database: Connection, number: number, before: Entry, after: Entry): void {
  database.run(
    "UPDATE entries SET drawer = ?, place = ?, kind = ?, document = ?, kept = ?, entry = ? WHERE number = ?",
    ...[
      after.drawer,
      after.order,
      after.kind,
      after.origin.document ?? null,
      Number(after.kept),
      encodeEntry(after),
    ],
    number,
  );
  if (before.content !== after.content || before.label !== after.label || before.private !== after.private)
    indexAgain(database, number, after);
}

/** Writes a small value in place of what it must still be. */
export function writeValue(
  database: Connection,
  drawer: string,
  name: string,
  before: string | undefined,
  after: string | undefined,
): void {
  const row = database.get<{ value: string }>(
    "SELECT value FROM settings WHERE drawer = ? AND name = ?",
    drawer,
    name,
  );
  if (row?.value !== before) throw new Conflict(`“${name}” has changed.`);
  if (after === undefined) database.run("DELETE FROM settings WHERE drawer = ? AND name = ?", drawer, name);
  else
    database.run(
      "INSERT OR REPLACE INTO settings (drawer, name, value) VALUES (?, ?, ?)",
      drawer,
      name,
      after,
    );
}

/** Counts what came and went. */
function resize(database: Connection, { edits }: Change): void {
  for (const { drawer, count, bytes } of sizeChanges(edits))
    database.run(
      "INSERT INTO sizes (drawer, count, bytes) VALUES (?, ?, ?) ON CONFLICT (drawer) DO UPDATE SET count = count + excluded.count, bytes = bytes + excluded.bytes",
      ...[drawer, count, bytes],
    );
}
