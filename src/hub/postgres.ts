import { connectPostgres, query, type Speaker } from "../stores/postgres/connection.js";
import { prepareTables, type HubDatabase, type Sql } from "./sql.js";

/** The channel by which processes tell each other of news. */
const CHANNEL = "drawer_hub";

/**
 * Opens a hub's database in PostgreSQL, found by the usual environment (`PGHOST`, `PGUSER`, `PGDATABASE`, `PGPASSFILE`…). Any number of
 * processes may serve it.
 *
 * @param failed is told when the connection that listens was lost; it is made again
 */
export async function openPostgresHub(failed: (error: unknown) => void): Promise<HubDatabase> {
  const connection = await connectPostgres({ channel: CHANNEL, failed });
  const { pool } = connection;
  const database: HubDatabase = {
    ...sqlOver(pool),
    transact: (work) => connection.transact((client) => work(sqlOver(client))),
    async notify(group) {
      await pool.query("SELECT pg_notify($1, $2)", [CHANNEL, group]);
    },
    listen: (listener) => connection.listen(listener),
    close: () => connection.close(),
  };
  await prepareTables(database);
  return database;
}

function sqlOver(speaker: Speaker): Sql {
  return {
    run: async (sql, ...values) => (await query(speaker, sql, values)).count,
    rows: async <Row>(sql: string, ...values: readonly unknown[]) =>
      (await query<Row>(speaker, sql, values)).rows,
  };
}
