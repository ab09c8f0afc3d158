import type { PoolClient } from "pg";
import { Conflict } from "../../drawer/store.js";
import type { Bounds, Range, Rows } from "../engine.js";
import { isNumbered, type Key, type TableName, type Tables } from "../schema.js";
import { Statements, type Dialect, type Statement } from "../sql.js";
import { query } from "./connection.js";

/** SQL as PostgreSQL speaks it. Texts are in the order of their bytes, as everywhere in Drawer. */
export const DIALECT: Dialect = {
  types: { text: 'TEXT COLLATE "C"', integer: "BIGINT", bytes: "BYTEA" },
  afterTable: () => "",
  indexesHoldNumbers: false,
  selected: (column) => column,
  holdsOneOf: (column) =>
    `EXISTS (SELECT 1 FROM json_array_elements_text(?::json) AS word WHERE strpos(${column}, word) > 0)`,
  noLimit: null,
  // One writes at a time.
  nextNumber: (table) => `(SELECT coalesce(max("number"), 0) + 1 FROM ${table})`,
};

const statements = new Statements(DIALECT);

/** A row, by its columns. */
type Columns = Readonly<Record<string, unknown>>;

/** The rows of a database, within one transaction. */
export class PostgresRows implements Rows {
  constructor(readonly client: PoolClient) {}

  async get<Name extends TableName, Column extends keyof Tables[Name]>(
    table: Name,
    keys: readonly (readonly Key[])[],
    index?: string,
    columns?: readonly Column[],
  ): Promise<(Pick<Tables[Name], Column> | undefined)[]> {
    const sql = statements.get(table, index, columns);
    const found: (Pick<Tables[Name], Column> | undefined)[] = [];
    for (const key of keys)
      found.push((await this.#rows<Pick<Tables[Name], Column>>({ sql, values: key }))[0]);
    return found;
  }

  range<Name extends TableName, Column extends keyof Tables[Name]>(
    range: Range<Name, Column>,
  ): Promise<Pick<Tables[Name], Column>[]> {
    return this.#rows(statements.range(range));
  }

  async count(bounds: readonly Bounds[]): Promise<number[]> {
    const counts: number[] = [];
    for (const each of bounds)
      counts.push((await this.#rows<{ count: number }>(statements.count(each)))[0]!.count);
    return counts;
  }

  async put<Name extends TableName>(table: Name, row: Tables[Name], before?: Tables[Name]): Promise<number> {
    const given = row as unknown as Columns;
    const number = given["number"] as number | undefined;
    if (before) {
      const update = statements.update(table, given, before as unknown as Columns);
      if (update) await this.#rows(update);
      return number ?? 0;
    }
    if (!isNumbered(table) || number !== undefined) {
      await this.#rows(statements.put(table, given));
      return number ?? 0;
    }
    const { sql, values } = statements.insert(table, given);
    const [inserted] = await this.#rows<{ number: number }>({ sql: `${sql} RETURNING "number"`, values });
    return inserted!.number;
  }

  async putIfAbsent<Name extends TableName>(table: Name, row: Tables[Name]): Promise<void> {
    await this.#rows(statements.putIfAbsent(table, row as unknown as Columns));
  }

  async delete(table: TableName, key: readonly Key[]): Promise<void> {
    await this.#rows(statements.delete(table, key));
  }

  async clear(table: TableName): Promise<void> {
    await this.#rows(statements.clear(table));
  }

  async #rows<Row extends object>({ sql, values }: Statement): Promise<Row[]> {
    try {
      const { rows } = await query<Row>(this.client, sql, values);
      return rows.map(readRow);
    } catch (error) {
      if ((error as { code?: string }).code !== UNIQUE_VIOLATION) throw error;
      throw new Conflict("A place is taken.", { cause: error });
    }
  }
}

/** What PostgreSQL calls a unique index that has another row with the same values. */
const UNIQUE_VIOLATION = "23505";

/** A row as it is kept: bytes come in a form of the driver's own. The row is new, and nobody else's. */
function readRow<Row extends object>(row: Row): Row {
  const read = row as Record<string, unknown>;
  for (const [column, value] of Object.entries(read))
    if (Buffer.isBuffer(value)) read[column] = new Uint8Array(value);
  return row;
}
