import { chmodSync, closeSync, copyFileSync, existsSync, openSync, renameSync, rmSync } from "node:fs";
import { generateKeyBetween } from "fractional-indexing";
import { beginning } from "../../content/beginning.js";
import { decodeContent, encodeContent, hashBytes, type Hash } from "../../content/encode.js";
import { kindOf } from "../../content/kind.js";
import { notice, type Notice } from "../../content/notice.js";
import type { Change } from "../../drawer/model/change.js";
import { TEXT_LENGTH, hashesOf, piecesOf, type Entry } from "../../drawer/model/entry.js";
import { newId } from "../../drawer/model/ids.js";
import { VALUES } from "../../drawer/model/values.js";
import type { Commit } from "../../drawer/store.js";
import { sqliteNotices } from "../../messages/en/stores.js";
import { runNow } from "../engine.js";
import { SCHEMA } from "../schema.js";
import { commit, setValue } from "../semantics.js";
import { openConnection, saysDamaged, type Connection } from "./connection.js";
import { isCutShort, readOldRecords, readRecords, type Value } from "./pages.js";
import { SqlRows } from "./rows.js";
import { damagedName, prepareTables } from "./tables.js";

/** The drawer into which contents go whose snippets could not be read. */
const LOOSE = "recovered";

/** What could be read of a damaged file. */
interface Salvage {
  readonly entries: Map<string, Entry>;
  readonly contents: Map<Hash, Uint8Array>;
  /** What was, somewhere in the file, said to be private: the ids of snippets, and the names of what they held while they were open. */
  readonly secret: {
    readonly ids: ReadonlySet<string>;
    readonly names: ReadonlySet<Hash>;
    /** How many of those snippets were in drawers. */
    readonly count: number;
  };
  readonly values: { drawer: string; name: string; value: string }[];
}

/**
 * Sets a damaged database aside and brings what can be read of it into a new one in its place. A snippet of which only
 * the entry could be read comes with the beginning of its text; a content whose entry is lost comes into a drawer of
 * its own. What was private comes back private and whole, or not at all. The log and what had left do not come along.
 *
 * Of several processes that come upon it, one does this, and the others wait for it.
 *
 * @returns what to say of it: where the damaged file is, and what was recovered; nothing when another process has done it
 */
export function recover(path: string): Notice | undefined {
  const lock = `${path}.recovering`;
  if (!take(lock)) return undefined;
  try {
    return isDamaged(path) ? recoverNow(path) : undefined;
  } finally {
    rmSync(lock, { force: true });
  }
}

/** For how long another process may be at it, in milliseconds, before it is taken to have been killed. */
const PATIENCE = 60_000;

/** Takes a lock that is a file; when another process has it, waits until it is free, and does not take it. */
function take(lock: string): boolean {
  for (let waited = 0; ; waited += 100) {
    try {
      if (waited >= PATIENCE) rmSync(lock, { force: true });
      closeSync(openSync(lock, waited === 0 || waited >= PATIENCE ? "wx" : "r"));
      if (waited === 0 || waited >= PATIENCE) return true;
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code === "ENOENT") return false;
      if (code !== "EEXIST") throw error;
    }
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 100);
  }
}

function isDamaged(path: string): boolean {
  if (isCutShort(path)) return true;
  let database: Connection | undefined;
  try {
    database = openConnection(path);
    if (database.get<{ quick_check: string }>("PRAGMA quick_check(1)")!.quick_check !== "ok") return true;
    // It checks no text.
    const rows = new SqlRows(database);
    for (const table of ["entries", "values", "changes", "gone"] as const) rows.range({ table });
    return false;
  } catch (error) {
    if (saysDamaged(error)) return true;
    throw error;
  } finally {
    database?.close();
  }
}

/**
 * The new database is made beside the damaged one and takes its place at once, so that nobody finds none there. It is
 * made without a write-ahead log: a connection may outlive its closing, and would share the log's locks with those
 * that come after.
 */
function recoverNow(path: string): Notice {
  const draft = `${path}.recovered`;
  rmSync(draft, { force: true });
  const { values, ...salvage } = read(path);
  const { commits, ...counts } = put(salvage);
  const database = openConnection(draft, ["journal_mode = DELETE", "synchronous = FULL"]);
  try {
    prepareTables(database, draft);
    database.transact(() => {
      const rows = new SqlRows(database);
      for (const one of commits) runNow(commit(one), rows);
      for (const { drawer, name, value } of values) runNow(setValue(drawer, { name, after: value }), rows);
    });
  } finally {
    database.close();
  }
  const aside = damagedName(path);
  copyFileSync(path, aside);
  chmodSync(aside, 0o600);
  for (const ending of ["-wal", "-shm"])
    if (existsSync(path + ending)) renameSync(path + ending, aside + ending);
  renameSync(draft, path);
  return notice(sqliteNotices, "recovered", { aside, ...counts, drawer: LOOSE });
}

function read(path: string): Salvage {
  const secret = secretsIn(path);
  const salvage: Salvage = { entries: new Map(), contents: new Map(), secret, values: [] };
  const names = new Set<string>();
  for (const record of readRecords(path)) {
    const entry = entryOf(record);
    if (entry) {
      // An older row of it may still say that it is open.
      if (entry.private || !secret.ids.has(entry.id)) salvage.entries.set(entry.id, entry);
    } else if (isContent(record)) salvage.contents.set(record[0], record[1].slice());
    else if (isSecret(record)) salvage.contents.set(record[1], record[3].slice());
    else if (isValue(record) && !names.has(JSON.stringify(record.slice(0, 2)))) {
      names.add(JSON.stringify(record.slice(0, 2)));
      salvage.values.push({ drawer: record[0], name: record[1], value: record[2] });
    }
  }
  return salvage;
}

/**
 * What is private by all that the files say, rows that were written over included: what the last change of a snippet says, and
 * where no change is left, any row of it.
 */
function secretsIn(path: string): Salvage["secret"] {
  const ids = new Set<string>();
  const left = new Set<string>();
  const changed = new Map<string, string>();
  const open = new Map<string, Hash[]>();
  const note = (entry: Entry) => {
    for (const { id, private: isPrivate, content, pictures = [] } of piecesOf(entry))
      if (!isPrivate) open.set(id, [...(open.get(id) ?? []), content, ...pictures]);
      else if (!changed.has(id)) ids.add(id);
  };
  for (const record of readOldRecords(path)) {
    const said = objectIn(record);
    if (isEntry(said)) note(said);
    const { id: change, edits } = (said ?? {}) as Partial<Change>;
    for (const { id, before, after } of Array.isArray(edits) ? edits : []) {
      for (const entry of [before, after]) if (isEntry(entry)) note(entry);
      const last = after ?? before;
      // Their ids are in the order of time.
      if (!isEntry(last) || String(change) < (changed.get(id) ?? "")) continue;
      changed.set(id, String(change));
      for (const piece of piecesOf(last)) ids[piece.private ? "add" : "delete"](piece.id);
      left[after ? "delete" : "add"](id);
    }
  }
  const names = new Set([...ids].flatMap((id) => open.get(id) ?? []));
  return { ids, names, count: [...ids].filter((id) => !left.has(id)).length };
}

function isEntry(value: unknown): value is Entry {
  const entry = value as Partial<Entry> | null | undefined;
  return [entry?.id, entry?.drawer, entry?.order, entry?.content, entry?.collectedAt].every(
    (each) => typeof each === "string",
  );
}

/** An entry, if the record is a row of entries. */
function entryOf(record: readonly Value[]): Entry | undefined {
  const entry = record.length === Object.keys(SCHEMA.entries.columns).length ? objectIn(record) : undefined;
  return isEntry(entry) ? entry : undefined;
}

/** The object that the last value of a record says as JSON; nothing when it says none. */
function objectIn(record: readonly Value[]): unknown {
  const json = record.at(-1);
  return typeof json === "string" && json.startsWith("{") ? parsed(json) : undefined;
}

/** JSON as what it says; nothing when it is cut off. */
function parsed(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** Whether a record is a content: of one that is not private its bytes have the hash by which it is named. */
function isContent(record: readonly Value[]): record is [Hash, Uint8Array] {
  const [name, bytes] = record;
  return (
    record.length === 2 &&
    typeof name === "string" &&
    bytes instanceof Uint8Array &&
    /^[0-9a-f]{64}$/.test(name)
  );
}

/** Whether a record is the content of a private snippet, under its name of chance. */
function isSecret(record: readonly Value[]): record is [string, Hash, number, Uint8Array] {
  const [id, name, , bytes] = record;
  return (
    record.length === 4 && typeof id === "string" && typeof name === "string" && bytes instanceof Uint8Array
  );
}

function isValue(record: readonly Value[]): record is [string, string, string] {
  if (record.length !== 3 || !record.every((value) => typeof value === "string")) return false;
  const [, name, value] = record as [string, string, string];
  if (name !== VALUES.rules && !name.startsWith(VALUES.recipe)) return false;
  return typeof parsed(value) === "object";
}

function put({ entries, contents: found, secret }: Omit<Salvage, "values">) {
  const counts = { whole: 0, cut: 0, loose: 0, hidden: 0, hiddenLost: 0 };
  const contents = new Map(
    [...found].filter(([name, bytes]) => hashBytes(bytes) === name && !secret.names.has(name)),
  );
  const places = new Set<string>();
  const used = new Set<Hash>();
  const kept: Entry[] = [];
  const written = new Map(contents);
  for (const entry of entries.values()) {
    const hashes = hashesOf(entry);
    hashes.forEach((hash) => used.add(hash));
    const place = JSON.stringify([entry.drawer, entry.order]);
    if (places.has(place)) continue;
    places.add(place);
    if (entry.private) {
      // Of what is private nothing is shown that might be another's: it is whole, or it is gone.
      if (!isWhole(entry, found)) continue;
      for (const hash of hashes) written.set(hash, found.get(hash)!);
      counts.hidden++;
    } else if (contents.has(entry.content)) counts.whole++;
    else counts.cut++;
    kept.push(entry.private || contents.has(entry.content) ? entry : beginningOnly(entry, written));
  }
  counts.hiddenLost = Math.max(0, secret.count - counts.hidden);
  let order: string | null = null;
  for (const [hash, bytes] of contents) {
    const content = used.has(hash) ? undefined : contentOf(bytes);
    if (!content) continue;
    order = generateKeyBetween(order, null);
    counts.loose++;
    kept.push({
      id: newId(),
      drawer: LOOSE,
      order,
      kind: kindOf(content),
      text: beginning(content, TEXT_LENGTH),
      content: hash,
      bytes: bytes.length,
      kept: false,
      private: false,
      origin: {},
      collectedAt: new Date().toISOString(),
    });
  }
  const commits = chunks(kept).map((own, index): Commit => ({
    change: {
      id: newId(),
      drawer: own[0]!.drawer,
      at: new Date().toISOString(),
      operation: "import",
      edits: own.map((entry) => ({ id: entry.id, before: null, after: entry })),
    },
    contents: index === 0 ? written : new Map(),
  }));
  return { ...counts, commits };
}

/** An entry whose content is lost, with what it says itself for a content. */
function beginningOnly(entry: Entry, contents: Map<Hash, Uint8Array>): Entry {
  const { pictures: _, parts: __, ...rest } = entry;
  const bytes = encodeContent([{ type: "paragraph", runs: [{ type: "text", text: entry.text }] }]);
  const hash = hashBytes(bytes);
  contents.set(hash, bytes);
  return { ...rest, content: hash, kind: "text", bytes: bytes.length };
}

/** Content, if the bytes are one and not a picture. */
function contentOf(bytes: Uint8Array) {
  if (bytes[0] !== 0x5b) return undefined;
  try {
    return decodeContent(bytes);
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** Whether all that a private snippet holds is there. Its contents have names of chance, so that they are known by what they hold. */
function isWhole(entry: Entry, found: ReadonlyMap<Hash, Uint8Array>): boolean {
  const bytes = found.get(entry.content);
  return (
    bytes !== undefined && contentOf(bytes) !== undefined && hashesOf(entry).every((hash) => found.has(hash))
  );
}

/** How many snippets are recovered in one change. */
const CHUNK = 1000;

/** Entries in groups of one drawer each. */
function chunks(entries: readonly Entry[]): Entry[][] {
  const groups: Entry[][] = [];
  const open = new Map<string, Entry[]>();
  for (const entry of entries) {
    let group = open.get(entry.drawer);
    if (!group || group.length === CHUNK) {
      group = [];
      groups.push(group);
      open.set(entry.drawer, group);
    }
    group.push(entry);
  }
  return groups;
}
