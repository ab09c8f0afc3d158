import { serve, type ServerType } from "@hono/node-server";
import { serveStatic } from "@hono/node-server/serve-static";
import { Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import { secureHeaders } from "hono/secure-headers";
import { streamSSE } from "hono/streaming";
import { DrawerError, reasonOf, refusalOf } from "../content/error.js";
import { LIMITS } from "../content/limits.js";
import type { Offered } from "../desktop/desktop.js";
import type { Store } from "../drawer/store.js";
import { openWindow, windowPage } from "../messages/en/window.js";
import { remoteHandler } from "../stores/remote/handler.js";
import { unpack } from "../stores/remote/wire.js";
import { Guard, isSame, proofOf } from "./guard.js";
import { fillWithSample } from "./sample.js";
import { WindowDesktop, type CollectInto, type DesktopAccess, type WindowNews } from "./window-desktop.js";

/** What a window is served from. */
export interface WindowOptions {
  readonly store: Store;
  /** The drawer in which is collected, until a page says another. */
  readonly drawer: string;
  /** The folder of the built page. */
  readonly site: string;
  /** The folder of the sample data. */
  readonly samples: string;
  readonly desktop: DesktopAccess;
  /** A secret that only this user's programs know: who proves it gets a new address. */
  readonly secret: string;
  /** Is told, in a sentence, what was refused and what failed. */
  readonly log: (sentence: string) => void;
  /** How long it goes on when its last page has gone, in milliseconds; ten seconds without it. */
  readonly patience?: number;
}

/** A window that is served. */
export interface WindowServer {
  readonly port: number;
  /** An address that opens it, with a key that is good once. */
  newAddress(): string;
  /** Settles when its last page has been gone for a while. */
  readonly ended: Promise<void>;
  close(): Promise<void>;
}

/** What a page of the window may do: nothing but what it brings itself (CSP level 3, Trusted Types). */
const HEADERS = secureHeaders({
  contentSecurityPolicy: {
    defaultSrc: ["'none'"],
    scriptSrc: ["'self'"],
    styleSrc: ["'self'"],
    imgSrc: ["'self'", "blob:", "data:"],
    connectSrc: ["'self'"],
    baseUri: ["'none'"],
    formAction: ["'none'"],
    frameAncestors: ["'none'"],
    requireTrustedTypesFor: ["'script'"],
    trustedTypes: ["drawer", "lit-html"],
  },
  // It is served without encryption, to this computer alone.
  strictTransportSecurity: false,
});

/** More than what is collected at once, with what stands around it. */
const MOST_BYTES = LIMITS.bytes + 1024 * 1024;

/** Serves the window on a port of 127.0.0.1 that is free. */
export async function serveWindow(options: WindowOptions): Promise<WindowServer> {
  const { store, drawer, log, patience = 10_000 } = options;
  const failed = (error: unknown) => log(openWindow.failed(reasonOf(error)));
  const desktop = new WindowDesktop(store, drawer, options.desktop, failed);
  const app = new Hono();
  const server = await listening(app);
  const { port } = server.address() as { port: number };
  const guard = new Guard(port, (why, request) => log(openWindow.refused({ why, ...request })));

  let end: () => void;
  const ended = new Promise<void>((settle) => (end = settle));
  let timer: NodeJS.Timeout | undefined;
  const listeners = (count: number) => {
    clearTimeout(timer);
    // It is the server that goes on, not the waiting.
    if (count === 0) timer = setTimeout(end, patience).unref();
  };

  app.use(HEADERS, async (context, next) => {
    await next();
    context.res.headers.set("cache-control", "no-store");
  });
  app.post("/again", bodyLimit({ maxSize: 4096 }), async (context) => {
    const asked = (await context.req.json()) as { readonly nonce?: string; readonly proof?: string };
    const { nonce = "", proof = "" } = asked;
    if (!isSame(proof, proofOf(options.secret, "asks", nonce))) {
      guard.tell(context, "key");
      return context.text("key", 403);
    }
    const address = guard.newAddress();
    return context.json({ address, proof: proofOf(options.secret, "answers", nonce, address) });
  });
  app.use(guard.ownPages);
  app.post("/enter", bodyLimit({ maxSize: 4096 }), async (context) =>
    guard.enter(context, ((await context.req.json()) as { readonly key?: string }).key ?? ""),
  );
  app.use("/store/*", guard.opened);
  app.use("/desktop/*", guard.opened);
  app.use(
    bodyLimit({
      maxSize: MOST_BYTES,
      onError: (context) => {
        guard.tell(context, "body");
        return context.text("body", 413, { connection: "close" });
      },
    }),
  );
  app.route("/store", remoteHandler(store, { listeners, failed }));
  app.route("/desktop", desktopHandler(desktop, options));
  app.get("*", serveStatic({ root: options.site }));
  app.onError((error, context) => {
    failed(error);
    return context.text(error.message, 500);
  });

  await desktop.begin();
  return {
    port,
    ended,
    newAddress: () => guard.newAddress(),
    close: async () => {
      clearTimeout(timer);
      await desktop.end();
      (server as { closeAllConnections?: () => void }).closeAllConnections?.();
      await new Promise((settle) => server.close(settle));
    },
  };
}

function listening(app: Hono): Promise<ServerType> {
  return new Promise((settle, fail) => {
    const server = serve({ fetch: app.fetch, hostname: "127.0.0.1", port: 0 }, () => settle(server));
    server.once("error", fail);
  });
}

/** What the pages ask of the desktop. */
function desktopHandler(desktop: WindowDesktop, { store, samples }: WindowOptions): Hono {
  const app = new Hono();
  app.get("/news", (context) =>
    streamSSE(context, async (stream) => {
      const gone = new Promise<void>((settle) => stream.onAbort(settle));
      const tell = (news: WindowNews) => void stream.writeSSE({ event: "news", data: JSON.stringify(news) });
      const stop = desktop.listen(tell);
      tell({ notices: [], listening: desktop.listening, into: desktop.into });
      await gone;
      stop();
    }),
  );
  app.post("/into", async (context) => {
    const { drawer, appends } = (await context.req.json()) as CollectInto;
    desktop.into = { drawer, appends };
    return context.json({});
  });
  app.post("/copy", async (context) => {
    const sent = unpack(new Uint8Array(await context.req.arrayBuffer()));
    const { offered, isPrivate } = sent as { readonly offered: Offered; readonly isPrivate: boolean };
    return context.json({ notices: await desktop.copy(offered, isPrivate) });
  });
  app.post("/deal", async (context) => {
    const { drawer } = (await context.req.json()) as { readonly drawer: string };
    return context.json(await desktop.deal(drawer));
  });
  app.post("/end-deal", async (context) => {
    await desktop.endDeal();
    return context.json({});
  });
  app.post("/sample", async (context) => {
    await fillWithSample(store, windowPage.sampleDrawer, samples);
    return context.json({ drawer: windowPage.sampleDrawer });
  });
  app.onError((error, context) => {
    if (!(error instanceof DrawerError)) throw error;
    return context.json(refusalOf(error), 422);
  });
  return app;
}
