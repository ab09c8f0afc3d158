import { Conflict } from "../drawer/store.js";
import { Listeners } from "../messages/core/listeners.js";
import { runNow, type Bounds, type Engine, type Job, type Range, type Rows } from "./engine.js";
import { RowStore } from "./row-store.js";
import {
  columnsOf,
  isNumbered,
  SCHEMA,
  TABLE_NAMES,
  type Key,
  type TableName,
  type TableSchema,
  type Tables,
} from "./schema.js";

type Row = Readonly<Record<string, unknown>>;

/** A store in memory: for tests, and for pages that keep nothing. */
export class MemoryStore extends RowStore {
  readonly isVolatile = true;

  constructor() {
    super(new MemoryEngine());
  }
}

/** The rows of a table, by their keys, and the keys by each unique index. */
class MemoryTable {
  readonly rows = new Map<string, Row>();
  readonly unique: ReadonlyMap<string, Map<string, string>>;
  lastNumber = 0;

  constructor(readonly schema: TableSchema) {
    const indexes = Object.entries(schema.indexes).filter(([, { isUnique }]) => isUnique);
    this.unique = new Map(indexes.map(([name]) => [name, new Map()]));
  }

  /** Puts a row in place of the one with this key, or takes that away. */
  set(key: string, row: Row | undefined): void {
    const before = this.rows.get(key);
    for (const [name, keys] of this.unique) {
      const { columns } = this.schema.indexes[name]!;
      if (before) keys.delete(keyOf(before, columns));
      if (row) keys.set(keyOf(row, columns), key);
    }
    if (row) this.rows.set(key, row);
    else this.rows.delete(key);
  }
}

/** The plainest engine: a table is a map of rows by their keys, and a range looks through all of them. */
class MemoryEngine implements Engine, Rows {
  readonly #tables = new Map(TABLE_NAMES.map((name) => [name, new MemoryTable(SCHEMA[name])]));
  /** What takes back what the present transaction has written. */
  #inverse: (() => void)[] = [];
  readonly #listeners = new Listeners();

  async read<Result>(job: () => Job<Result>): Promise<Result> {
    return runNow(job(), this);
  }

  async write<Result>(job: () => Job<Result>): Promise<Result> {
    this.#inverse = [];
    try {
      const result = runNow(job(), this);
      this.#listeners.callSoon();
      return result;
    } catch (error) {
      for (const takeBack of this.#inverse.reverse()) takeBack();
      throw error;
    }
  }

  watch(listener: () => void): () => void {
    return this.#listeners.add(listener);
  }

  async close(): Promise<void> {
    this.#listeners.clear();
  }

  get<Name extends TableName>(table: Name, keys: readonly (readonly Key[])[], index?: string) {
    const { rows, unique } = this.#tables.get(table)!;
    return keys.map((key) => {
      const text = JSON.stringify(key);
      const primary = index === undefined ? text : unique.get(index)!.get(text);
      return rows.get(primary ?? "") as Tables[Name] | undefined;
    });
  }

  range<Name extends TableName, Column extends keyof Tables[Name]>(
    range: Range<Name, Column>,
  ): Tables[Name][] {
    const { table, index, reverse = false, offset = 0, limit = Infinity, holding } = range;
    const columns = columnsOf(table, index);
    const { body = "" } = SCHEMA[table];
    const isHeld = (row: Row) => !holding || holding.some((text) => String(row[body]).includes(text));
    const rows = [...this.#tables.get(table)!.rows.values()]
      .filter((row) => isWithin(row, columns, range) && isHeld(row))
      .sort((a, b) => compare(a, b, columns));
    if (reverse) rows.reverse();
    return rows.slice(offset, offset + limit) as unknown as Tables[Name][];
  }

  count(bounds: readonly Bounds[]): number[] {
    return bounds.map((each) => this.range(each as Range<TableName>).length);
  }

  put<Name extends TableName>(table: Name, row: Tables[Name]): number {
    const own = this.#tables.get(table)!;
    const { schema, unique } = own;
    const given = row as unknown as Row;
    const number = (given["number"] as number | undefined) ?? own.lastNumber + 1;
    const whole = isNumbered(table) ? { ...given, number } : given;
    const key = keyOf(whole, schema.key);
    for (const [name, keys] of unique) {
      const values = keyOf(whole, schema.indexes[name]!.columns);
      if ((keys.get(values) ?? key) !== key) throw new Conflict(`${table}: ${values} is taken.`);
    }
    own.lastNumber = Math.max(own.lastNumber, number);
    this.#set(table, key, whole);
    return number;
  }

  putIfAbsent<Name extends TableName>(table: Name, row: Tables[Name]): void {
    const { rows, schema } = this.#tables.get(table)!;
    if (!rows.has(keyOf(row as unknown as Row, schema.key))) this.put(table, row);
  }

  delete(table: TableName, key: readonly Key[]): void {
    this.#set(table, JSON.stringify(key), undefined);
  }

  clear(table: TableName): void {
    for (const key of [...this.#tables.get(table)!.rows.keys()]) this.#set(table, key, undefined);
  }

  #set(name: TableName, key: string, row: Row | undefined): void {
    const table = this.#tables.get(name)!;
    const before = table.rows.get(key);
    this.#inverse.push(() => table.set(key, before));
    table.set(key, row);
  }
}

function keyOf(row: Row, columns: readonly string[]): string {
  return JSON.stringify(columns.map((column) => row[column]));
}

function isWithin(
  row: Row,
  columns: readonly string[],
  { equal = [], from, after, before }: Bounds,
): boolean {
  if (columns.some((column) => row[column] === null)) return false;
  if (equal.some((value, index) => row[columns[index]!] !== value)) return false;
  const value = row[columns[equal.length]!] as Key;
  return (
    (from === undefined || value >= from) &&
    (after === undefined || value > after) &&
    (before === undefined || value < before)
  );
}

function compare(a: Row, b: Row, columns: readonly string[]): number {
  for (const column of columns) {
    const [one, other] = [a[column] as Key, b[column] as Key];
    if (one !== other) return one < other ? -1 : 1;
  }
  return 0;
}
