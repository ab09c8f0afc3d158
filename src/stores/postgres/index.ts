import { DrawerError, reasonOf } from "../../content/error.js";
import { postgresErrors } from "../../messages/en/stores.js";
import { RowStore } from "../row-store.js";
import { TABLE_NAMES } from "../schema.js";
import { quoted, Statements } from "../sql.js";
import { connectPostgres, type PostgresConnection } from "./connection.js";
import { PostgresEngine } from "./engine.js";
import { DIALECT } from "./rows.js";

/** The form of the tables that this Drawer writes; it stands in the table `form`. */
const FORM = 1;

/** Where drawers are kept in PostgreSQL. */
export interface PostgresOptions {
  /** The schema in which the tables are, which is made when it is not there: one for each store. Letters, digits and `_`. */
  readonly schema?: string;
  /** The address of the database; without it, the usual environment says it (`PGHOST`, `PGUSER`, `PGDATABASE`, `PGPASSFILE`…). */
  readonly url?: string;
  /** Is told when the connection that hears of others' changes was lost; it is made again. */
  readonly failed?: (error: unknown) => void;
}

/**
 * Opens a store in a PostgreSQL database (12 or later), for those who keep drawers on a server. Any number of programs may open it at
 * once; every commit is durable before it is acknowledged, as far as the server is set so. Needs the package `pg`.
 *
 * @throws DrawerError `bad-option` for a name that is none, `store` when the database cannot be reached or a newer Drawer wrote it
 *
 * @example
 * ```js
 * import { openPostgres } from "drawer/postgres";
 *
 * console.log(typeof openPostgres); // function
 * // const store = await openPostgres({ schema: "secretary" });
 * ```
 */
export async function openPostgres(options: PostgresOptions = {}): Promise<RowStore> {
  const { schema = "drawer", url, failed = () => undefined } = options;
  if (!/^[a-z_][a-z0-9_]{0,50}$/.test(schema))
    throw new DrawerError(postgresErrors, "bad-option/schema", { schema });
  const channel = `drawer_${schema}`;
  const config = { options: `-c search_path=${schema}`, ...(url !== undefined && { connectionString: url }) };
  const connection = await connectPostgres({ channel, config, failed });
  try {
    await prepareTables(connection, schema);
  } catch (error) {
    await connection.close();
    if (error instanceof DrawerError) throw error;
    throw new DrawerError(
      postgresErrors,
      "store/postgres-open",
      { reason: reasonOf(error) },
      { cause: error },
    );
  }
  return new RowStore(new PostgresEngine(connection, channel));
}

/** Makes the tables; several programs may do so at once. */
async function prepareTables(connection: PostgresConnection, schema: string): Promise<void> {
  await connection.transact(async (client) => {
    // Who comes first holds the others off until it is done.
    await client.query("SELECT pg_advisory_xact_lock(hashtext($1))", [`drawer form ${schema}`]);
    await client.query(`CREATE SCHEMA IF NOT EXISTS ${quoted(schema)}`);
    await client.query(`CREATE TABLE IF NOT EXISTS "form" ("form" BIGINT PRIMARY KEY)`);
    const { rows } = await client.query<{ form: number | null }>(`SELECT max("form") AS form FROM "form"`);
    const form = rows[0]?.form ?? 0;
    if (form > FORM) throw new DrawerError(postgresErrors, "store/postgres-newer", { form, known: FORM });
    if (form === FORM) return;
    const statements = new Statements(DIALECT);
    for (const table of TABLE_NAMES)
      for (const statement of statements.definition(table)) await client.query(statement);
    await client.query(`INSERT INTO "form" VALUES ($1)`, [FORM]);
  });
}
