import { serve } from "@hono/node-server";
import type { Store } from "drawer";
import { remoteHandler } from "drawer/remote";

interface Server {
  address(): unknown;
  close(): void;
  closeAllConnections(): void;
}

const servers: Server[] = [];
afterAll(() => {
  for (const server of servers) {
    server.closeAllConnections();
    server.close();
  }
});

/** Serves a store over HTTP until the test file ends. */
export async function served(store: Store, port = 0) {
  const server = await new Promise<Server>((ready) => {
    const made = serve({ fetch: remoteHandler(store).fetch, hostname: "127.0.0.1", port }, () =>
      ready(made as unknown as Server),
    );
  });
  servers.push(server);
  const { port: own } = server.address() as { port: number };
  return { address: `http://127.0.0.1:${own}/`, port: own, server };
}
