import { Listeners } from "../messages/core/listeners.js";
import { openConnection } from "../stores/sqlite/connection.js";
import { prepareTables, type HubDatabase, type Sql, type SqlValue } from "./sql.js";

/** Opens a hub's database in a SQLite file, which is made when it is not there. One process serves it. */
export async function openSqliteHub(path: string): Promise<HubDatabase> {
  const connection = openConnection(path);
  const listeners = new Listeners<[group: string]>();
  /** Transactions wait for each other: there is one connection. */
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = <Result>(work: () => Promise<Result>): Promise<Result> => {
    const done = last.then(work);
    last = done.catch(() => undefined);
    return done;
  };
  const sql: Sql = {
    async run(text, ...values) {
      connection.run(inSqlite(text), ...values);
      return connection.get<{ changed: number }>("SELECT changes() AS changed")!.changed;
    },
    async rows<Row>(text: string, ...values: readonly SqlValue[]) {
      return connection.all<Row>(inSqlite(text), ...values);
    },
  };
  const database: HubDatabase = {
    run: (text, ...values) => inTurn(() => sql.run(text, ...values)),
    rows: (text, ...values) => inTurn(() => sql.rows(text, ...values)),
    transact: (work) =>
      inTurn(async () => {
        connection.exec("BEGIN IMMEDIATE");
        try {
          const result = await work(sql);
          connection.exec("COMMIT");
          return result;
        } catch (error) {
          connection.exec("ROLLBACK");
          throw error;
        }
      }),
    async notify(group) {
      listeners.call(group);
    },
    listen: (listener) => listeners.add(listener),
    async close() {
      await last;
      connection.close();
    },
  };
  await prepareTables(database);
  return database;
}

function inSqlite(text: string): string {
  return text.replaceAll("BYTEA", "BLOB");
}
