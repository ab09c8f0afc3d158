import type { Entry } from "../../drawer/model/entry.js";
import { matches, type FindQuery } from "../../drawer/store.js";
import type { FoundRow, IndexedRow, SearchIndex } from "../engine.js";
import { entryOf, searchedOf } from "../queries.js";
import { Statements } from "../sql.js";
import type { Connection } from "./connection.js";
import { DIALECT, readRow, selectAs } from "./selected.js";

/**
 * How many entries may wait to be put into the search index. Collecting is quicker without; and so few can be looked
 * through one by one.
 */
const WAITING = 64;

/** The fewest letters that the index knows. */
const TRIGRAM = 3;

/** The search index: the table `found`, by trigrams (FTS5), whose rows have the numbers of the entries. */
export class FullTextIndex implements SearchIndex {
  /** The texts of entries that wait for the index, by the entry, so that who types reads each once. */
  readonly #waitingTexts = new Map<string, string>();

  constructor(readonly connection: Connection) {}

  add(row: IndexedRow): void {
    const number = row.number!;
    const last = this.#last();
    if (number <= last) {
      this.connection.run("DELETE FROM found WHERE rowid = ?", number);
      this.#index(row);
    } else if (number - last >= WAITING) for (const waiting of this.#waiting()) this.#index(waiting);
  }

  remove(row: Pick<IndexedRow, "number">): void {
    if (row.number! <= this.#last()) this.connection.run("DELETE FROM found WHERE rowid = ?", row.number!);
  }

  find(query: FindQuery): FoundRow[] {
    const { drawer, terms, limit } = query;
    const found: FoundRow[] = [];
    for (const row of this.#waiting().reverse()) {
      if (row.drawer !== drawer || !terms.every((term) => this.#waitingText(row).includes(term))) continue;
      const entry = entryOf(row);
      if (!entry.private && matches(entry, query)) found.push(row);
      if (found.length === limit) return found;
    }
    return [...found, ...this.#indexed(query, limit - found.length)];
  }

  /** The number of the last entry that the index knows. */
  #last(): number {
    return (
      this.connection.get<{ last: number | null }>("SELECT max(id) AS last FROM found_content")!.last ?? 0
    );
  }

  /** Those that wait for the index. */
  #waiting(): IndexedRow[] {
    const columns = ["number", "drawer", "id", "entry"] as const;
    const sql = `${new Statements(DIALECT).select("entries", columns)} WHERE number > ? ORDER BY number`;
    return this.connection.all<IndexedRow>(sql, this.#last()).map((row) => readRow("entries", row));
  }

  #index(row: IndexedRow): void {
    const entry = entryOf(row);
    if (entry.private) return;
    this.connection.run("INSERT INTO found (rowid, words) VALUES (?, ?)", row.number!, this.#textOf(entry));
  }

  #textOf(entry: Entry): string {
    const sql = "SELECT bytes FROM contents WHERE hash = ?";
    return searchedOf(entry, this.connection.get<{ bytes: Uint8Array }>(sql, entry.content)?.bytes);
  }

  #waitingText(row: FoundRow): string {
    if (this.#waitingTexts.size > 4 * WAITING) this.#waitingTexts.clear();
    let text = this.#waitingTexts.get(row.entry);
    if (text === undefined) {
      text = this.#textOf(entryOf(row));
      this.#waitingTexts.set(row.entry, text);
    }
    return text;
  }

  #indexed({ drawer, terms, kind, document }: FindQuery, limit: number): FoundRow[] {
    const long = terms.filter((term) => [...term].length >= TRIGRAM);
    const short = terms.filter((term) => !long.includes(term));
    const conditions = [
      ...(long.length > 0 ? ["found MATCH ?"] : []),
      ...short.map(() => "instr(found.words, ?) > 0"),
      "entries.drawer = ?",
      ...(kind === undefined ? [] : ["entries.kind = ?"]),
      ...(document === undefined ? [] : ["entries.document = ?"]),
    ];
    const rows = this.connection.all<FoundRow>(
      `SELECT ${selectAs("entries.entry", "text")} AS entry FROM found JOIN entries ON entries.number = found.rowid
         WHERE ${conditions.join(" AND ")} ORDER BY found.rowid DESC LIMIT ?`,
      ...(long.length > 0 ? [long.map((term) => `"${term.replaceAll('"', '""')}"`).join(" ")] : []),
      ...short,
      drawer,
      ...(kind === undefined ? [] : [kind]),
      ...(document === undefined ? [] : [document]),
      Number.isFinite(limit) ? limit : -1,
    );
    return rows.map((row) => readRow("entries", row));
  }
}
