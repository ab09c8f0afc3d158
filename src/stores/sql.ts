import type { Bounds, Range } from "./engine.js";
import {
  columnsOf,
  isNumbered,
  SCHEMA,
  TABLE_NAMES,
  type Key,
  type TableName,
  type Tables,
} from "./schema.js";

/** The SQL of an engine's questions, made from the schema. What databases say in their own way stands in a {@link Dialect}. */

/** The name of a table or a column, as SQL writes it. */
export function quoted(name: string): string {
  return `"${name}"`;
}

/** The columns of each table, in their order. */
export const COLUMNS = Object.fromEntries(
  TABLE_NAMES.map((table) => [table, Object.keys(SCHEMA[table].columns)]),
) as unknown as Record<TableName, readonly string[]>;

/** What databases say in their own way. */
export interface Dialect {
  /** The types of columns. */
  readonly types: Readonly<Record<"text" | "integer" | "bytes", string>>;
  /** What follows the definition of a table. */
  readonly afterTable: (isNumbered: boolean) => string;
  /** Whether the number of a row is at the end of each of its indexes by itself. */
  readonly indexesHoldNumbers: boolean;
  /** A column as it is selected. */
  readonly selected: (column: string, type: "text" | "integer" | "bytes") => string;
  /** The condition that a column holds one of the texts of a JSON array, which is its value. */
  readonly holdsOneOf: (column: string) => string;
  /** The limit that is none. */
  readonly noLimit: number | null;
  /** What is inserted as the number of a new row; nothing where the database gives it by itself. */
  readonly nextNumber?: (table: string) => string;
}

/** A statement and its values, which stand in it as `?`. */
export interface Statement {
  readonly sql: string;
  readonly values: readonly unknown[];
}

/** A row, by its columns. */
type Columns = Readonly<Record<string, unknown>>;

/** Makes statements in a dialect. */
export class Statements {
  /** Statements by what they are made of: making one takes longer than running it. */
  readonly #made = new Map<string, string>();

  constructor(readonly dialect: Dialect) {}

  /** Selects columns of a table; all of them when none are named. */
  select(table: TableName, columns: readonly PropertyKey[] = COLUMNS[table]): string {
    const { columns: types } = SCHEMA[table];
    const names = columns.map((column) => {
      const name = quoted(String(column));
      const selected = this.dialect.selected(name, types[String(column)]!);
      return selected === name ? name : `${selected} AS ${name}`;
    });
    return `SELECT ${names.join(", ")} FROM ${quoted(table)}`;
  }

  /** The rows with a key, which is the statement's values. */
  get(table: TableName, index?: string, columns?: readonly PropertyKey[]): string {
    return this.#once(`get ${table} ${index} ${columns?.join()}`, () => {
      const conditions = columnsOf(table, index).map((column) => `${quoted(column)} = ?`);
      return this.select(table, columns) + whereOf(conditions);
    });
  }

  range<Name extends TableName, Column extends keyof Tables[Name]>(range: Range<Name, Column>): Statement {
    const { table, index, columns, equal = [], reverse = false, offset = 0, limit = Infinity } = range;
    const isPart = Number.isFinite(limit) || offset > 0;
    const sql = this.#once(`range ${columns?.join()} ${reverse} ${isPart} ${shapeOf(range)}`, () => {
      const order = columnsOf(table, index)
        .slice(equal.length)
        .map((column) => quoted(column) + (reverse ? " DESC" : ""));
      return (
        this.select(table, columns) +
        whereOf(this.#conditionsOf(range)) +
        (order.length > 0 ? ` ORDER BY ${order.join(", ")}` : "") +
        (isPart ? " LIMIT ? OFFSET ?" : "")
      );
    });
    const part = isPart ? [Number.isFinite(limit) ? limit : this.dialect.noLimit, offset] : [];
    return { sql, values: [...valuesWithin(range), ...part] };
  }

  /** How many rows there are within bounds, as `count`. */
  count(bounds: Bounds): Statement {
    const sql = this.#once(
      `count ${shapeOf(bounds)}`,
      () => `SELECT count(*) AS count FROM ${quoted(bounds.table)}${whereOf(this.#conditionsOf(bounds))}`,
    );
    return { sql, values: valuesWithin(bounds) };
  }

  /** Inserts a row that has no number yet. */
  insert(table: TableName, row: Columns): Statement {
    const [, ...columns] = COLUMNS[table];
    const sql = this.#once(`insert ${table}`, () => {
      const next = this.dialect.nextNumber?.(quoted(table));
      return insertOf(table, columns, next);
    });
    return { sql, values: columns.map((column) => row[column]) };
  }

  /** Writes a row in place of the one with the same key. */
  put(table: TableName, row: Columns): Statement {
    const columns = COLUMNS[table];
    const sql = this.#once(`put ${table}`, () => {
      const { key } = SCHEMA[table];
      const update = columns
        .filter((column) => !key.includes(column))
        .map((column) => `${quoted(column)} = excluded.${quoted(column)}`);
      return `${insertOf(table, columns)} ON CONFLICT (${key.map(quoted).join(", ")}) DO UPDATE SET ${update.join(", ")}`;
    });
    return { sql, values: columns.map((column) => row[column]) };
  }

  /** Writes the columns that differ: the indexes of others are left alone. Nothing where none does. */
  update(table: TableName, row: Columns, before: Columns): Statement | undefined {
    const { key } = SCHEMA[table];
    const changed = COLUMNS[table].filter((column) => row[column] !== before[column]);
    if (changed.length === 0) return undefined;
    const sql = this.#once(`update ${table} ${changed.join()}`, () => {
      const set = changed.map((column) => `${quoted(column)} = ?`).join(", ");
      return `UPDATE ${quoted(table)} SET ${set}${whereOf(key.map((column) => `${quoted(column)} = ?`))}`;
    });
    return { sql, values: [...changed, ...key].map((column) => row[column]) };
  }

  putIfAbsent(table: TableName, row: Columns): Statement {
    const columns = COLUMNS[table];
    const sql = this.#once(
      `putIfAbsent ${table}`,
      () => `${insertOf(table, columns)} ON CONFLICT DO NOTHING`,
    );
    return { sql, values: columns.map((column) => row[column]) };
  }

  delete(table: TableName, key: readonly Key[]): Statement {
    const conditions = SCHEMA[table].key.map((column) => `${quoted(column)} = ?`);
    return { sql: `DELETE FROM ${quoted(table)}${whereOf(conditions)}`, values: key };
  }

  clear(table: TableName): Statement {
    return { sql: `DELETE FROM ${quoted(table)}`, values: [] };
  }

  /** What makes a table and its indexes. */
  definition(table: TableName): readonly string[] {
    const { types, afterTable, indexesHoldNumbers } = this.dialect;
    const { key, columns, nullable = [], indexes } = SCHEMA[table];
    const hasNumber = isNumbered(table);
    const defined = Object.entries(columns).map(([column, type]) => {
      const isPrimary = hasNumber && column === "number";
      const rule = isPrimary ? " PRIMARY KEY" : nullable.includes(column) ? "" : " NOT NULL";
      return `${quoted(column)} ${types[type]}${rule}`;
    });
    const primary = hasNumber ? [] : [`PRIMARY KEY (${key.map(quoted).join(", ")})`];
    const made = `CREATE TABLE ${quoted(table)} (${[...defined, ...primary].join(", ")})${afterTable(hasNumber)}`;
    const indexed = Object.entries(indexes).map(([name, { columns: of, isUnique = false }]) => {
      const own = of.filter((column) => !(indexesHoldNumbers && hasNumber && column === "number"));
      const isIn = own
        .filter((column) => nullable.includes(column))
        .map((column) => `${quoted(column)} IS NOT NULL`);
      return `CREATE ${isUnique ? "UNIQUE " : ""}INDEX ${quoted(`${table}_${name}`)} ON ${quoted(table)} (${own.map(quoted).join(", ")})${whereOf(isIn)}`;
    });
    return [made, ...indexed];
  }

  #conditionsOf({ table, index, equal = [], from, after, before, where, holding }: Limits): string[] {
    const columns = columnsOf(table, index).map(quoted);
    const next = columns[equal.length];
    return [
      ...equal.map((_, at) => `${columns[at]} = ?`),
      ...(from === undefined ? [] : [`${next} >= ?`]),
      ...(after === undefined ? [] : [`${next} > ?`]),
      ...(before === undefined ? [] : [`${next} < ?`]),
      ...Object.keys(where ?? {}).map((column) => `${quoted(column)} = ?`),
      ...(holding ? [this.dialect.holdsOneOf(quoted(SCHEMA[table].body ?? ""))] : []),
    ];
  }

  #once(shape: string, make: () => string): string {
    let sql = this.#made.get(shape);
    if (sql === undefined) this.#made.set(shape, (sql = make()));
    return sql;
  }
}

/** @param number what stands as the number of the row, where its columns have none */
function insertOf(table: TableName, columns: readonly string[], number?: string): string {
  const names = [...(number === undefined ? [] : ["number"]), ...columns].map(quoted);
  const values = [...(number === undefined ? [] : [number]), ...columns.map(() => "?")];
  return `INSERT INTO ${quoted(table)} (${names.join(", ")}) VALUES (${values.join(", ")})`;
}

function whereOf(conditions: readonly string[]): string {
  return conditions.length === 0 ? "" : ` WHERE ${conditions.join(" AND ")}`;
}

/** What limits the rows of a range. */
type Limits = Bounds & { readonly where?: object; readonly holding?: readonly string[] };

/** What the conditions of a range depend on. */
function shapeOf({ table, index, equal = [], from, after, before, where, holding }: Limits): string {
  const ends = [from, after, before].map((end) => (end === undefined ? "-" : "+")).join("");
  const hints = where ? Object.keys(where).join() : "";
  return `${table} ${index} ${equal.length} ${ends} ${hints} ${holding !== undefined}`;
}

/** The values of the conditions, in their order. */
function valuesWithin({ equal = [], from, after, before, where, holding }: Limits): unknown[] {
  return [
    ...equal,
    ...[from, after, before].filter((end) => end !== undefined),
    ...(where ? Object.values(where) : []),
    ...(holding ? [JSON.stringify(holding)] : []),
  ];
}
