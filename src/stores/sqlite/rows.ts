import type { Bounds, Range, Rows } from "../engine.js";
import { isNumbered, type Key, type TableName, type Tables } from "../schema.js";
import { Statements } from "../sql.js";
import type { Connection } from "./connection.js";
import { FullTextIndex } from "./search.js";
import { DIALECT, readRow } from "./selected.js";

/** A row, by its columns. */
type Columns = Readonly<Record<string, unknown>>;

/** The rows of a database, by SQL that is made from the schema. */
export class SqlRows implements Rows {
  readonly search: FullTextIndex;
  readonly #statements = new Statements(DIALECT);

  constructor(readonly connection: Connection) {
    this.search = new FullTextIndex(connection);
  }

  get<Name extends TableName, Column extends keyof Tables[Name]>(
    table: Name,
    keys: readonly (readonly Key[])[],
    index?: string,
    columns?: readonly Column[],
  ) {
    const sql = this.#statements.get(table, index, columns);
    return keys.map((key) => {
      const row = this.connection.get<Pick<Tables[Name], Column>>(sql, ...key);
      return row && readRow(table, row);
    });
  }

  range<Name extends TableName, Column extends keyof Tables[Name]>(
    range: Range<Name, Column>,
  ): Pick<Tables[Name], Column>[] {
    const { sql, values } = this.#statements.range(range);
    const rows = this.connection.all<Pick<Tables[Name], Column>>(sql, ...values);
    return rows.map((row) => readRow(range.table, row));
  }

  count(bounds: readonly Bounds[]): number[] {
    return bounds.map((each) => {
      const { sql, values } = this.#statements.count(each);
      return this.connection.get<{ count: number }>(sql, ...values)!.count;
    });
  }

  put<Name extends TableName>(table: Name, row: Tables[Name], before?: Tables[Name]): number {
    const given = row as unknown as Columns;
    const number = given["number"] as number | undefined;
    if (before) {
      const update = this.#statements.update(table, given, before as unknown as Columns);
      if (update) this.connection.run(update.sql, ...update.values);
      return number ?? 0;
    }
    const isNew = isNumbered(table) && number === undefined;
    const { sql, values } = isNew
      ? this.#statements.insert(table, given)
      : this.#statements.put(table, given);
    const inserted = this.connection.insert(sql, ...values);
    return number ?? inserted;
  }

  putIfAbsent<Name extends TableName>(table: Name, row: Tables[Name]): void {
    const { sql, values } = this.#statements.putIfAbsent(table, row as unknown as Columns);
    this.connection.run(sql, ...values);
  }

  delete(table: TableName, key: readonly Key[]): void {
    const { sql, values } = this.#statements.delete(table, key);
    this.connection.run(sql, ...values);
  }

  clear(table: TableName): void {
    this.connection.run(this.#statements.clear(table).sql);
  }
}
