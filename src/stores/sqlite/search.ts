import type { Entry } from "../../drawer/entry.js";
import { matches, type FindQuery } from "../../drawer/store.js";
import { searchedOf } from "../records.js";
import type { Connection } from "./connection.js";

/**
 * How many entries may wait to be put into the search index. Collecting is quicker without; and so few can be looked
 * through one by one.
 */
const WAITING = 64;

/** The fewest letters that the index knows. */
const TRIGRAM = 3;

interface Row {
  readonly number: number;
  readonly entry: string;
}

/** The text of an entry as it is searched. */
function textOf(database: Connection, entry: Entry): string {
  const row = database.get<{ bytes: Uint8Array }>("SELECT bytes FROM contents WHERE hash = ?", entry.content);
  return searchedOf(entry, row?.bytes);
}

/** The number of the last entry that the index knows. */
function indexedTo(database: Connection): number {
  return database.get<{ last: number | null }>("SELECT max(id) AS last FROM found_content")!.last ?? 0;
}

/** Those that wait for the index. */
function waiting(database: Connection): Row[] {
  return database.all<Row>(
    "SELECT number, entry FROM entries WHERE number > ? ORDER BY number",
    indexedTo(database),
  );
}

/** Puts all that waits into the index. */
export function indexAll(database: Connection): void {
  for (const { number, entry } of waiting(database)) index(database, number, JSON.parse(entry) as Entry);
}

/** The same, when enough waits; `number` is the last entry that came. */
export function indexWhenDue(database: Connection, number: number): void {
  if (number - indexedTo(database) >= WAITING) indexAll(database);
}

function index(database: Connection, number: number, entry: Entry): void {
  if (!entry.private)
    database.run("INSERT INTO found (rowid, words) VALUES (?, ?)", number, textOf(database, entry));
}

/** Puts an entry that has changed into the index again; nothing for one that has left. */
export function indexAgain(database: Connection, number: number, entry: Entry | undefined): void {
  if (number > indexedTo(database)) return;
  database.run("DELETE FROM found WHERE rowid = ?", number);
  if (entry) index(database, number, entry);
}

/** The entries that hold all of the terms, the newest first. */
export function find(database: Connection, query: FindQuery): Entry[] {
  const { drawer, terms, limit, ...filter } = query;
  const found: Entry[] = [];
  for (const { entry } of waiting(database).reverse()) {
    const text = waitingText(database, entry);
    if (!terms.every((term) => text.includes(term))) continue;
    const parsed = JSON.parse(entry) as Entry;
    if (parsed.drawer === drawer && !parsed.private && matches(parsed, filter)) found.push(parsed);
    if (found.length === limit) return found;
  }
  for (const { entry } of indexed(database, query, limit - found.length))
    found.push(JSON.parse(entry) as Entry);
  return found;
}

/** The texts of entries that wait for the index, by the entry, so that who types reads each once. */
const waitingTexts = new WeakMap<Connection, Map<string, string>>();

function waitingText(database: Connection, entry: string): string {
  let texts = waitingTexts.get(database);
  if (!texts || texts.size > 4 * WAITING) waitingTexts.set(database, (texts = new Map()));
  let text = texts.get(entry);
  if (text === undefined) texts.set(entry, (text = textOf(database, JSON.parse(entry) as Entry)));
  return text;
}

function indexed(
  database: Connection,
  { drawer, terms, kind, document }: FindQuery,
  limit: number,
): { entry: string }[] {
  const long = terms.filter((term) => [...term].length >= TRIGRAM);
  const short = terms.filter((term) => !long.includes(term));
  const conditions = [
    ...(long.length > 0 ? ["found MATCH ?"] : []),
    ...short.map(() => "instr(found.words, ?) > 0"),
    "entries.drawer = ?",
    ...(kind === undefined ? [] : ["entries.kind = ?"]),
    ...(document === undefined ? [] : ["entries.document = ?"]),
  ];
  return database.all(
    `SELECT entries.entry FROM found JOIN entries ON entries.number = found.rowid
       WHERE ${conditions.join(" AND ")} ORDER BY found.rowid DESC LIMIT ?`,
    ...(long.length > 0 ? [long.map((term) => `"${term.replaceAll('"', '""')}"`).join(" ")] : []),
    ...short,
    drawer,
    ...(kind === undefined ? [] : [kind]),
    ...(document === undefined ? [] : [document]),
    Number.isFinite(limit) ? limit : -1,
  );
}
