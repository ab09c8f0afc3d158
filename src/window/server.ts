import { serve, type ServerType } from "@hono/node-server";
import { serveStatic } from "@hono/node-server/serve-static";
import { Hono, type Context } from "hono";
import { secureHeaders } from "hono/secure-headers";
import * as v from "valibot";
import { DrawerError, reasonOf, refusalOf } from "../content/error.js";
import { LIMITS } from "../content/limits.js";
import type { Store } from "../drawer/store.js";
import { openWindow, windowPage } from "../messages/en/window.js";
import { NEXT_KEYS } from "../page/binding/host-desktop.js";
import type { HostFiles } from "../page/binding/host-files.js";
import { answerWithEvents } from "../stores/remote/event-stream.js";
import { remoteHandler } from "../stores/remote/handler.js";
import { unpackAsked } from "../stores/remote/wire.js";
import { removeEntryPage } from "./entry-page.js";
import { filesHandler } from "./files-handler.js";
import { Guard, isSame, KEY_LIFE, proofOf } from "./guard.js";
import { WindowDesktop, type DesktopAccess, type WindowNews } from "./window-desktop.js";

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
  /** The user's files, which are put into and taken out of. */
  readonly files: HostFiles;
  /** The folder in which a file stands that leads a browser to the window: one that the browser can read. */
  readonly entryFolder: string;
  /** A secret that only this user's programs know: who proves it gets a new address. */
  readonly secret: string;
  /** Is told, in a sentence, what was refused and what failed. */
  readonly log: (sentence: string) => void;
  /** How long it goes on when its last page has gone, in milliseconds, or `Infinity`; ten seconds without it. */
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

/** A request that is a question by itself, in bytes. */
const SMALL = 4096;
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
  const removing = new Set<Promise<void>>();
  const guard = new Guard(port, {
    refused: (why, request) => log(openWindow.refused({ why, ...request })),
    used: (key) => removing.add(removeEntryPage(key, options.entryFolder).catch(failed)),
  });

  let end: () => void;
  const ended = new Promise<void>((settle) => (end = settle));
  let timer: NodeJS.Timeout | undefined;
  let pages = 0;
  // It is the server that goes on, not the waiting.
  const waitForPage = (time: number) => {
    clearTimeout(timer);
    if (pages === 0 && Number.isFinite(time)) timer = setTimeout(end, time).unref();
  };
  const listeners = (count: number) => {
    pages = count;
    waitForPage(patience);
  };
  const newAddress = () => {
    waitForPage(Math.max(patience, KEY_LIFE));
    return guard.newAddress();
  };

  app.use(HEADERS, async (context, next) => {
    await next();
    context.res.headers.set("cache-control", "no-store");
  });
  // All that follows is decided by the head of a request; of one that is refused nothing is read.
  app.use(guard.ownPages);
  app.use("/store/*", guard.opened);
  app.use("/desktop/*", guard.opened);
  app.use("/files/*", guard.opened);
  app.use(guard.bounded((path) => (path === "/enter" || path === "/again" ? SMALL : MOST_BYTES)));
  app.post("/again", async (context) => {
    const asked = await jsonOf(context, AGAIN);
    if (!asked || !isSame(asked.proof, proofOf(options.secret, "asks", asked.nonce)))
      return guard.refuse(context, "key");
    // One that is open comes to the front, and there is no other.
    if (asked.shows && pages > 0 && (await desktop.showOwn()))
      return context.json({ address: "", proof: proofOf(options.secret, "answers", asked.nonce, "") });
    const address = newAddress();
    return context.json({ address, proof: proofOf(options.secret, "answers", asked.nonce, address) });
  });
  app.post("/enter", async (context) => {
    const asked = await jsonOf(context, v.object({ key: v.string() }));
    return guard.enter(context, asked?.key ?? "");
  });
  app.route("/store", remoteHandler(store, { listeners, failed }));
  app.route("/desktop", desktopHandler(desktop, options));
  app.route("/files", filesHandler(options.files));
  app.get("*", serveStatic({ root: options.site }));
  app.all("*", (context) => guard.refuse(context, "path"));
  app.onError((error, context) => {
    failed(error);
    return context.text(error.message, 500);
  });

  await desktop.begin();
  return {
    port,
    ended,
    newAddress,
    close: async () => {
      clearTimeout(timer);
      guard.close();
      await Promise.all(removing);
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
function desktopHandler(
  desktop: WindowDesktop,
  { store, samples, desktop: { settings } }: WindowOptions,
): Hono {
  const app = new Hono();
  app.get("/news", (context) =>
    answerWithEvents(context, (stream) => {
      const tell = (news: WindowNews) => stream.tell("news", JSON.stringify(news));
      const { listening, into, caret, noCaret } = desktop;
      tell({ notices: [], listening, into, ...caret, ...(noCaret && { refused: noCaret }) });
      return desktop.listen(tell);
    }),
  );
  app.post("/into", async (context) => {
    const asked = await jsonOf(context, v.object({ drawer: v.string(), appends: v.boolean() }));
    if (!asked) return noQuestion(context);
    desktop.into = asked;
    return context.json({});
  });
  app.post("/copy", async (context) => {
    const asked = as(COPY, unpackAsked(new Uint8Array(await context.req.arrayBuffer())));
    if (!asked) return noQuestion(context);
    return context.json({ notices: await desktop.copy(asked.offered, asked.isPrivate) });
  });
  app.post("/place", async (context) => {
    const asked = as(PLACE, unpackAsked(new Uint8Array(await context.req.arrayBuffer())));
    return asked ? context.json(await desktop.caretPlacing.place(asked)) : noQuestion(context);
  });
  app.post("/take-back", async (context) => {
    const asked = await jsonOf(context, AT);
    if (!asked) return noQuestion(context);
    await desktop.caretPlacing.takeBack(asked);
    return context.json({});
  });
  app.post("/own", async (context) => {
    const asked = await jsonOf(context, v.object({ title: v.string() }));
    if (!asked) return noQuestion(context);
    await desktop.noteOwn(asked.title);
    return context.json({});
  });
  app.post("/deal", async (context) => {
    const asked = await jsonOf(context, v.object({ drawer: v.string() }));
    return asked ? context.json(await desktop.deal(asked.drawer)) : noQuestion(context);
  });
  app.post("/end-deal", async (context) => {
    await desktop.endDeal();
    return context.json({});
  });
  app.get("/settings", async (context) => context.json(await settings.read()));
  app.post("/key", async (context) => {
    const asked = await jsonOf(context, v.object({ key: v.string(), act: v.string() }));
    return asked ? context.json(await settings.setKey(asked)) : noQuestion(context);
  });
  app.post("/start", async (context) => {
    const asked = await jsonOf(
      context,
      v.object({ place: v.picklist(["menu", "login"]), isThere: v.boolean() }),
    );
    return asked ? context.json(await settings.setStart(asked.place, asked.isThere)) : noQuestion(context);
  });
  app.post("/invite", async (context) => {
    const asked = await jsonOf(context, v.object({ hub: v.optional(v.string()) }));
    return asked ? context.json(await settings.invite(asked.hub)) : noQuestion(context);
  });
  app.post("/join", async (context) => {
    const asked = await jsonOf(context, v.object({ invitation: v.string() }));
    return asked ? context.json(await settings.join(asked.invitation)) : noQuestion(context);
  });
  app.post("/sample", async (context) => {
    const { fillWithSample } = await import("./sample.js");
    await fillWithSample(store, windowPage.sampleDrawer, samples);
    return context.json({ drawer: windowPage.sampleDrawer });
  });
  app.onError((error, context) => {
    if (!(error instanceof DrawerError)) throw error;
    return context.json(refusalOf(error), 422);
  });
  return app;
}

/** How another program of the user's asks for a way in. */
const AGAIN = v.object({ nonce: v.string(), proof: v.string(), shows: v.optional(v.boolean()) });

/** More blocks than anybody puts down at once. */
const MOST_BLOCKS = 10_000;
/** What is offered to other programs. */
const OFFERED = v.map(v.string(), v.instance(Uint8Array));
/** What a page asks to be copied. */
const COPY = v.object({ offered: OFFERED, isPrivate: v.boolean() });
/** The window that a page means, and whether the user comes back from there. */
const AT = v.object({ target: v.number(), returns: v.boolean() });
/** What a page asks to be put at the caret of another program. */
const PLACE = v.object({
  ...AT.entries,
  offered: v.pipe(v.array(OFFERED), v.minLength(1), v.maxLength(MOST_BLOCKS)),
  between: v.exactOptional(v.picklist(NEXT_KEYS)),
});

/** The body of a request as JSON of some form; nothing when it is none. */
async function jsonOf<Form extends v.GenericSchema>(
  context: Context,
  form: Form,
): Promise<v.InferOutput<Form> | undefined> {
  return as(form, await context.req.json().catch(() => undefined));
}

/** A value of some form; nothing when it is none. */
function as<Form extends v.GenericSchema>(form: Form, value: unknown): v.InferOutput<Form> | undefined {
  const asked = v.safeParse(form, value);
  return asked.success ? asked.output : undefined;
}

function noQuestion(context: Context): Response {
  return context.text("This is no question to the window.", 400);
}
