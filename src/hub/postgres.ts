import type { Client, Pool, PoolClient } from "pg";
import { Listeners } from "../messages/core/listeners.js";
import { prepareTables, type HubDatabase, type Sql, type SqlValue } from "./sql.js";

/** The channel by which processes tell each other of news. */
const CHANNEL = "drawer_hub";
/** After how long a connection that listens and was lost is made again, in milliseconds. */
const PAUSE = 1000;

/**
 * Opens a hub's database in PostgreSQL, found by the usual environment (`PGHOST`, `PGUSER`, `PGDATABASE`, `PGPASSFILE`…). Any number of
 * processes may serve it.
 *
 * @param failed is told when the connection that listens was lost; it is made again
 */
export async function openPostgresHub(failed: (error: unknown) => void): Promise<HubDatabase> {
  const { default: pg } = await import("pg");
  // Whole numbers that SQL has as 64 bits come as text otherwise.
  const types = {
    getTypeParser: (oid: number, format?: "text" | "binary") =>
      oid === INT8 ? Number : (pg.types.getTypeParser(oid, format) as (value: string) => unknown),
  };
  const pool: Pool = new pg.Pool({ max: 10, types: types as typeof pg.types });
  // One that waits unused and is lost is made again when it is needed.
  pool.on("error", failed);
  const listeners = new Listeners<[group: string]>();
  let isClosed = false;
  let ears: Client | undefined;
  const hear = async (): Promise<void> => {
    if (isClosed) return;
    const client = new pg.Client();
    ears = client;
    const again = (error: unknown) => {
      if (ears !== client || isClosed) return;
      ears = undefined;
      failed(error);
      setTimeout(() => void hear(), PAUSE).unref();
    };
    client.on("error", again);
    client.on("end", () => again(new Error("The connection that listens has ended.")));
    client.on("notification", ({ payload }) => listeners.call(payload ?? ""));
    try {
      await client.connect();
      await client.query(`LISTEN ${CHANNEL}`);
      // What was said while nobody heard: all look.
      listeners.call("");
    } catch (error) {
      again(error);
    }
  };
  const database: HubDatabase = {
    ...sqlOver(pool),
    async transact(work) {
      const client = await pool.connect();
      let broken: Error | undefined;
      try {
        await client.query("BEGIN");
        const result = await work(sqlOver(client));
        await client.query("COMMIT");
        return result;
      } catch (error) {
        await client.query("ROLLBACK").catch((second: Error) => (broken = second));
        throw error;
      } finally {
        client.release(broken);
      }
    },
    async notify(group) {
      await pool.query("SELECT pg_notify($1, $2)", [CHANNEL, group]);
    },
    listen: (listener) => listeners.add(listener),
    async close() {
      isClosed = true;
      await ears?.end();
      await pool.end();
    },
  };
  await prepareTables(database);
  await hear();
  return database;
}

/** The type of 64-bit numbers. */
const INT8 = 20;

function sqlOver(connection: Pool | PoolClient): Sql {
  const query = (text: string, values: readonly SqlValue[]) =>
    connection.query({ text: numbered(text), values: values.map(bound) });
  return {
    run: async (text, ...values) => (await query(text, values)).rowCount ?? 0,
    rows: async <Row>(text: string, ...values: readonly SqlValue[]) =>
      (await query(text, values)).rows as Row[],
  };
}

/** Values as `$1`, `$2`. */
function numbered(text: string): string {
  let number = 0;
  return text.replace(/\?/g, () => `$${++number}`);
}

function bound(value: SqlValue): unknown {
  return value instanceof Uint8Array ? Buffer.from(value.buffer, value.byteOffset, value.byteLength) : value;
}
