import { Hono } from "hono";
import { DrawerError, refusalOf } from "../../content/error.js";
import { Conflict, type Store } from "../../drawer/store.js";
import { answerWithEvents } from "./event-stream.js";
import { isQuestion } from "./questions.js";
import { MESSAGE, METHODS, pack, STATUS, unpackAsked, type About, type Method } from "./wire.js";

/** How a store is served. */
export interface RemoteHandlerOptions {
  /** Is called with how many pages listen to changes, each time when one comes or goes. */
  readonly listeners?: (count: number) => void;
  /** Is told what went wrong that is no refusal. */
  readonly failed?: (error: unknown) => void;
}

/**
 * Serves a store over HTTP for {@link openRemote}. It asks nobody who they are: put it behind what does, and bound the size of
 * bodies there.
 *
 * @returns an application of Hono, whose `fetch` takes a standard `Request` and gives a `Response`
 *
 * @example
 * ```js
 * import { MemoryStore } from "drawer";
 * import { remoteHandler } from "drawer/remote";
 *
 * const { fetch } = remoteHandler(new MemoryStore());
 * const about = await fetch(new Request("http://localhost/about"));
 * console.log(await about.json()); // { isReadOnly: false }
 * ```
 */
export function remoteHandler(store: Store, options: RemoteHandlerOptions = {}): Hono {
  const app = new Hono();
  let listening = 0;
  const counted = (step: 1 | -1) => options.listeners?.((listening += step));

  app.get("/about", (context) => context.json({ isReadOnly: store.isReadOnly ?? false } satisfies About));

  app.post("/call", async (context) => {
    const body = (value: unknown, status: 200 | 409 | 422 = 200) =>
      context.body(pack(value), status, { "content-type": MESSAGE });
    const call = callOf(new Uint8Array(await context.req.arrayBuffer()));
    if (!call) return context.text("This is no question to a store.", 400);
    const [name, args] = call;
    try {
      const ask = store[name] as (...args: unknown[]) => Promise<unknown>;
      return body(await ask.apply(store, args));
    } catch (error) {
      if (error instanceof Conflict) return body(null, STATUS.conflict);
      if (!(error instanceof DrawerError)) throw error;
      return body(refusalOf(error), STATUS.refused);
    }
  });

  app.get("/changes", (context) =>
    answerWithEvents(context, ({ tell }) => {
      counted(1);
      const stop = store.watch(() => tell("changed"));
      return () => {
        stop();
        counted(-1);
      };
    }),
  );

  app.onError((error, context) => {
    options.failed?.(error);
    return context.text(error.message, 500);
  });
  return app;
}

/** The question in a body; nothing when it is none. */
function callOf(bytes: Uint8Array): [name: Method, args: unknown[]] | undefined {
  const value = unpackAsked(bytes);
  if (!Array.isArray(value)) return undefined;
  const [name, ...args] = value as [unknown, ...unknown[]];
  if (!METHODS.includes(name as Method)) return undefined;
  // What was left out comes as nothing.
  const given = args.map((arg) => arg ?? undefined);
  return isQuestion(name as Method, given) ? [name as Method, given] : undefined;
}
