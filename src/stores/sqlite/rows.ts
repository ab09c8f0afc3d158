import type { Bounds, Range, Rows } from "../engine.js";
import { columnsOf, isNumbered, SCHEMA, type Key, type TableName, type Tables } from "../schema.js";
import type { Connection } from "./connection.js";
import { FullTextIndex } from "./search.js";
import { COLUMNS, quoted, readRow, selectOf } from "./selected.js";

/** The rows of a database, by SQL that is made from the schema. */
export class SqlRows implements Rows {
  readonly search: FullTextIndex;
  /** Statements by what they are made of: making one takes longer than running it. */
  readonly #sql = new Map<string, string>();

  constructor(readonly connection: Connection) {
    this.search = new FullTextIndex(connection);
  }

  get<Name extends TableName, Column extends keyof Tables[Name]>(
    table: Name,
    keys: readonly (readonly Key[])[],
    index?: string,
    columns?: readonly Column[],
  ) {
    const sql = this.#made(`get ${table} ${index} ${columns}`, () => {
      const conditions = columnsOf(table, index).map((column) => `${quoted(column)} = ?`);
      return selectOf(table, columns) + whereOf(conditions);
    });
    return keys.map((key) => {
      const row = this.connection.get<Pick<Tables[Name], Column>>(sql, ...key);
      return row && readRow(table, row);
    });
  }

  range<Name extends TableName, Column extends keyof Tables[Name]>(
    range: Range<Name, Column>,
  ): Pick<Tables[Name], Column>[] {
    const { table, index, columns, equal = [], reverse = false, offset = 0, limit = Infinity } = range;
    const isPart = Number.isFinite(limit) || offset > 0;
    const sql = this.#made(`range ${columns} ${reverse} ${isPart} ${shapeOf(range)}`, () => {
      const order = columnsOf(table, index)
        .slice(equal.length)
        .map((column) => quoted(column) + (reverse ? " DESC" : ""));
      return (
        selectOf(table, columns) +
        whereOf(conditionsOf(range)) +
        (order.length > 0 ? ` ORDER BY ${order.join(", ")}` : "") +
        (isPart ? " LIMIT ? OFFSET ?" : "")
      );
    });
    const part = isPart ? [Number.isFinite(limit) ? limit : -1, offset] : [];
    const values = [...valuesWithin(range), ...part];
    const rows = this.connection.all<Pick<Tables[Name], Column>>(sql, ...values);
    return rows.map((row) => readRow(table, row));
  }

  count(bounds: readonly Bounds[]): number[] {
    return bounds.map((each) => {
      const sql = this.#made(
        `count ${shapeOf(each)}`,
        () => `SELECT count(*) AS count FROM ${quoted(each.table)}${whereOf(conditionsOf(each))}`,
      );
      return this.connection.get<{ count: number }>(sql, ...valuesWithin(each))!.count;
    });
  }

  put<Name extends TableName>(table: Name, row: Tables[Name], before?: Tables[Name]): number {
    const given = row as unknown as Readonly<Record<string, unknown>>;
    if (before) {
      this.#update(table, given, before as unknown as Readonly<Record<string, unknown>>);
      return (given["number"] as number | undefined) ?? 0;
    }
    const number = given["number"] as number | undefined;
    const isNew = isNumbered(table) && number === undefined;
    const columns = isNew ? withoutNumber(table) : COLUMNS[table];
    const sql = this.#made(`put ${table} ${isNew}`, () => {
      const { key } = SCHEMA[table];
      const update = columns
        .filter((column) => !key.includes(column))
        .map((column) => `${quoted(column)} = excluded.${quoted(column)}`);
      const conflict = ` ON CONFLICT (${key.map(quoted).join(", ")}) DO UPDATE SET ${update.join(", ")}`;
      return insertOf(table, columns) + (isNew ? "" : conflict);
    });
    const inserted = this.connection.insert(sql, ...columns.map((column) => given[column]));
    return number ?? inserted;
  }

  /** Writes the columns that differ: the indexes of others are left alone. */
  #update(
    table: TableName,
    row: Readonly<Record<string, unknown>>,
    before: Readonly<Record<string, unknown>>,
  ): void {
    const { key } = SCHEMA[table];
    const changed = COLUMNS[table].filter((column) => row[column] !== before[column]);
    if (changed.length === 0) return;
    const sql = this.#made(`update ${table} ${changed}`, () => {
      const set = changed.map((column) => `${quoted(column)} = ?`).join(", ");
      return `UPDATE ${quoted(table)} SET ${set}${whereOf(key.map((column) => `${quoted(column)} = ?`))}`;
    });
    this.connection.run(sql, ...changed.map((column) => row[column]), ...key.map((column) => row[column]));
  }

  putIfAbsent<Name extends TableName>(table: Name, row: Tables[Name]): void {
    const given = row as unknown as Readonly<Record<string, unknown>>;
    const columns = COLUMNS[table];
    const sql = this.#made(
      `putIfAbsent ${table}`,
      () => `${insertOf(table, columns)} ON CONFLICT DO NOTHING`,
    );
    this.connection.run(sql, ...columns.map((column) => given[column]));
  }

  delete(table: TableName, key: readonly Key[]): void {
    const conditions = SCHEMA[table].key.map((column) => `${quoted(column)} = ?`);
    this.connection.run(`DELETE FROM ${quoted(table)}${whereOf(conditions)}`, ...key);
  }

  clear(table: TableName): void {
    this.connection.run(`DELETE FROM ${quoted(table)}`);
  }

  #made(shape: string, make: () => string): string {
    let sql = this.#sql.get(shape);
    if (sql === undefined) this.#sql.set(shape, (sql = make()));
    return sql;
  }
}

function withoutNumber(table: TableName): readonly string[] {
  const [, ...others] = COLUMNS[table];
  return others;
}

function insertOf(table: TableName, columns: readonly string[]): string {
  const names = columns.map(quoted).join(", ");
  return `INSERT INTO ${quoted(table)} (${names}) VALUES (${columns.map(() => "?").join(", ")})`;
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

function conditionsOf({ table, index, equal = [], from, after, before, where, holding }: Limits): string[] {
  const columns = columnsOf(table, index).map(quoted);
  const next = columns[equal.length];
  return [
    ...equal.map((_, at) => `${columns[at]} = ?`),
    ...(from === undefined ? [] : [`${next} >= ?`]),
    ...(after === undefined ? [] : [`${next} > ?`]),
    ...(before === undefined ? [] : [`${next} < ?`]),
    ...Object.keys(where ?? {}).map((column) => `${quoted(column)} = ?`),
    ...(holding
      ? [`EXISTS (SELECT 1 FROM json_each(?) AS word WHERE instr(${bodyOf(table)}, word.value) > 0)`]
      : []),
  ];
}

function bodyOf(table: TableName): string {
  return quoted(SCHEMA[table].body ?? "");
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
