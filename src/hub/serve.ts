import type { AddressInfo } from "node:net";
import { serve, type ServerType } from "@hono/node-server";
import { getConnInfo } from "@hono/node-server/conninfo";
import { hubApp, USUAL, type HubOptions } from "./app.js";
import type { HubDatabase } from "./sql.js";

/** Where a hub is served. */
export interface ServeOptions extends Partial<Pick<HubOptions, "quotas" | "rates" | "site">> {
  readonly port: number;
  /** The address that it listens at. */
  readonly host: string;
  /** Whether a proxy in front says whom a request comes from (`X-Forwarded-For`). */
  readonly isBehindProxy: boolean;
  readonly log: (line: string) => void;
}

/** A hub that is served. */
export interface HubServer {
  readonly port: number;
  /** Lets requests that are under way finish, and ends. */
  close(): Promise<void>;
}

/** How often what nobody needs is let go of, in milliseconds. */
const TIDYING = 5 * 60 * 1000;
/** For how long requests that are under way may go on when a hub ends, in milliseconds. */
const LAST_WORDS = 10_000;

/** Serves a hub over HTTP. Encryption is for a proxy in front (`docs/hub.md`). */
export async function serveHub(
  database: HubDatabase,
  { port, host, isBehindProxy, log, ...options }: ServeOptions,
): Promise<HubServer> {
  const { app, groups, end } = hubApp(database, {
    ...USUAL,
    ...options,
    log,
    addressOf: (context) => {
      const told = isBehindProxy
        ? context.req.header("x-forwarded-for")?.split(",").at(-1)?.trim()
        : undefined;
      return told ?? getConnInfo(context).remote.address ?? "";
    },
  });
  const server = await new Promise<ServerType>((settle, fail) => {
    const made = serve({ fetch: app.fetch, hostname: host, port }, () => settle(made));
    made.once("error", fail);
  });
  const failed = (error: unknown) => log(`Tidying failed: ${String(error)}`);
  const timer = setInterval(() => void groups.tidy().catch(failed), TIDYING);
  return {
    port: (server.address() as AddressInfo).port,
    close: async () => {
      clearInterval(timer);
      const { closeIdleConnections, closeAllConnections } = server as {
        closeIdleConnections?(): void;
        closeAllConnections?(): void;
      };
      const closed = new Promise((settle) => server.close(settle));
      end();
      closeIdleConnections?.call(server);
      const late = setTimeout(() => closeAllConnections?.call(server), LAST_WORDS);
      await closed;
      clearTimeout(late);
      await database.close();
    },
  };
}
