import { randomUUID } from "node:crypto";
import { DrawerError, reasonOf } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { Conflict } from "../../drawer/store.js";
import { Listeners } from "../../messages/core/listeners.js";
import { postgresErrors, postgresNotices } from "../../messages/en/stores.js";
import { run, type Engine, type Job, type WipeReach } from "../engine.js";
import type { PostgresConnection } from "./connection.js";
import { PostgresRows } from "./rows.js";

/** An engine over PostgreSQL. Any number of programs on any number of machines share it, and each hears of the others' changes. */
export class PostgresEngine implements Engine {
  readonly #listeners = new Listeners();
  /** By what its own news are known. */
  readonly #id = randomUUID();
  readonly #stop: () => void;

  constructor(
    readonly connection: PostgresConnection,
    readonly channel: string,
  ) {
    this.#stop = connection.listen((from) => {
      if (from !== this.#id) this.#listeners.call();
    });
  }

  read<Result>(job: () => Job<Result>): Promise<Result> {
    return this.#refusing("read", () =>
      this.connection.transact(
        (client) => run(job(), new PostgresRows(client)),
        "ISOLATION LEVEL REPEATABLE READ READ ONLY",
      ),
    );
  }

  async write<Result>(job: () => Job<Result>): Promise<Result> {
    const result = await this.#refusing("write", () =>
      this.connection.transact(async (client) => {
        // One writes at a time, as numbers are given in order; the others wait here, and see what it did.
        await client.query("SELECT pg_advisory_xact_lock(hashtext($1))", [this.channel]);
        const done = await run(job(), new PostgresRows(client));
        await client.query("SELECT pg_notify($1, $2)", [this.channel, this.#id]);
        return done;
      }),
    );
    this.#listeners.callSoon();
    return result;
  }

  async #refusing<Result>(what: "read" | "write", act: () => Promise<Result>): Promise<Result> {
    try {
      return await act();
    } catch (error) {
      // Anything else is a fault of whoever gave the changes, and is theirs to hear of as it is.
      if (error instanceof Conflict || !isOfTheDatabase(error)) throw error;
      throw new DrawerError(
        postgresErrors,
        `store/postgres-${what}`,
        { reason: reasonOf(error) },
        { cause: error },
      );
    }
  }

  /** What the server's own files still hold of deleted rows is out of reach from here. */
  async wipe(reach: WipeReach): Promise<{ isWhole: boolean; trace?: Notice }> {
    await Promise.resolve();
    if (reach === "secrets") return { isWhole: true };
    return { isWhole: true, trace: notice(postgresNotices, "trace/postgres", {}) };
  }

  watch(listener: () => void): () => void {
    return this.#listeners.add(listener);
  }

  async close(): Promise<void> {
    this.#stop();
    this.#listeners.clear();
    await this.connection.close();
  }
}

/** Whether an error is the server's, or the network's on the way to it. */
function isOfTheDatabase(error: unknown): error is Error {
  const { code, syscall } = error as { readonly code?: unknown; readonly syscall?: unknown };
  const isLost = error instanceof Error && /^Connection terminated|^timeout exceeded/.test(error.message);
  return syscall !== undefined || isLost || (typeof code === "string" && /^[0-9A-Z]{5}$/.test(code));
}
