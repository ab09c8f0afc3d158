import type { Client, Pool, PoolClient, PoolConfig } from "pg";
import { Listeners } from "../../messages/core/listeners.js";

/** After how long a connection that listens and was lost is made again, in milliseconds. */
const PAUSE = 1000;
/** The type of 64-bit numbers. */
const INT8 = 20;

/** What speaks SQL to PostgreSQL: a pool, or a connection of it in a transaction. */
export type Speaker = Pool | PoolClient;

/** A PostgreSQL database, and the news that go through it. */
export interface PostgresConnection {
  readonly pool: Pool;
  /** Does something in one transaction: all of it, durably, or nothing. */
  transact<Result>(work: (client: PoolClient) => Promise<Result>, how?: string): Promise<Result>;
  /** Calls `listener` with what is said on the channel, and with nothing when something may have been missed. Returns an unsubscribe function. */
  listen(listener: (said: string) => void): () => void;
  close(): Promise<void>;
}

/** How a database is reached, beside its usual environment (`PGHOST`, `PGUSER`, `PGDATABASE`, `PGPASSFILE`…). */
export interface ConnectOptions {
  /** The channel on which programs tell each other of news. */
  readonly channel: string;
  readonly config?: PoolConfig;
  /** Is told when the connection that listens was lost; it is made again. */
  readonly failed: (error: unknown) => void;
}

/** Connects to a PostgreSQL database. */
export async function connectPostgres({
  channel,
  config = {},
  failed,
}: ConnectOptions): Promise<PostgresConnection> {
  const { default: pg } = await import("pg");
  // Whole numbers that SQL has as 64 bits come as text otherwise.
  const types = {
    getTypeParser: (oid: number, format?: "text" | "binary") =>
      oid === INT8 ? Number : (pg.types.getTypeParser(oid, format) as (value: string) => unknown),
  };
  const pool: Pool = new pg.Pool({ max: 10, ...config, types: types as typeof pg.types });
  // One that waits unused and is lost is made again when it is needed.
  pool.on("error", failed);
  const listeners = new Listeners<[said: string]>();
  let isClosed = false;
  let ears: Client | undefined;
  const hear = async (): Promise<void> => {
    if (isClosed) return;
    const client = new pg.Client(config);
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
      await client.query(`LISTEN ${channel}`);
      // What was said while nobody heard: all look.
      listeners.call("");
    } catch (error) {
      again(error);
    }
  };
  await hear();
  return {
    pool,
    async transact(work, how = "") {
      const client = await pool.connect();
      let broken: Error | undefined;
      // One that is lost in between says so here too; whoever waits for an answer hears of it by that.
      const lost = (error: Error) => void (broken = error);
      client.on("error", lost);
      try {
        await client.query(`BEGIN ${how}`);
        const result = await work(client);
        await client.query("COMMIT");
        return result;
      } catch (error) {
        await client.query("ROLLBACK").catch((second: Error) => (broken = second));
        throw error;
      } finally {
        client.off("error", lost);
        client.release(broken);
      }
    },
    listen: (listener) => listeners.add(listener),
    async close() {
      isClosed = true;
      await ears?.end();
      await pool.end();
    },
  };
}

/** Does a statement, whose values stand in it as `?`. */
export async function query<Row>(
  speaker: Speaker,
  sql: string,
  values: readonly unknown[],
): Promise<{ readonly rows: Row[]; readonly count: number }> {
  const { rows, rowCount } = await speaker.query({ text: numbered(sql), values: values.map(bound) });
  return { rows: rows as Row[], count: rowCount ?? 0 };
}

/** Values as `$1`, `$2`. */
function numbered(text: string): string {
  let number = 0;
  return text.replace(/\?/g, () => `$${++number}`);
}

function bound(value: unknown): unknown {
  return value instanceof Uint8Array ? Buffer.from(value.buffer, value.byteOffset, value.byteLength) : value;
}
