import { serveStatic } from "@hono/node-server/serve-static";
import { Hono, type Context } from "hono";
import { bodyLimit } from "hono/body-limit";
import { cors } from "hono/cors";
import { secureHeaders } from "hono/secure-headers";
import * as v from "valibot";
import { reasonOf } from "../content/error.js";
import { hubAnswers, type HubRefusal } from "../messages/en/hub.js";
import { answerWithEvents } from "../stores/remote/event-stream.js";
import { MESSAGE, pack, unpackAsked } from "../stores/remote/wire.js";
import { deviceId } from "../sync/devices.js";
import { readHeader, type SealedRecord } from "../sync/records.js";
import { bytes, count, key, name } from "../sync/schemas.js";
import { isSigned } from "../sync/sealing.js";
import { Groups, NotTaken, removalOf, type Quotas, type ReadRecord } from "./groups.js";
import { Metrics } from "./metrics.js";
import { Rates, type Rate } from "./rates.js";
import { claimIn, isMadeBy, isOfNow } from "./requests.js";
import type { HubDatabase } from "./sql.js";

/** How a hub is set. */
export interface HubOptions {
  readonly quotas: Quotas;
  /** How often one device may ask, and how often somebody who has no group yet, by their address. */
  readonly rates: { readonly device: Rate; readonly stranger: Rate };
  /** The address that a request comes from, as far as it is known. */
  readonly addressOf: (context: Context) => string;
  /** The folder of the page for the telephone, where it is served. */
  readonly site?: string | undefined;
  /** Is told in a line what was asked and answered; nothing of what it held. */
  readonly log: (line: string) => void;
}

/** What a hub does for who has not said otherwise. */
export const USUAL: Pick<HubOptions, "quotas" | "rates"> = {
  quotas: { group: 2 * 1024 ** 3 },
  rates: { device: { atOnce: 600, perSecond: 50 }, stranger: { atOnce: 20, perSecond: 0.2 } },
};

/** How large a request may be, in bytes: a batch of records, or a part of a content, and what stands around it. */
const MOST_BYTES = 16 * 1024 * 1024;
const MOST_RECORDS = 1000;

const RECORDS = v.pipe(
  v.array(v.strictObject({ header: bytes, signature: bytes, body: bytes })),
  v.maxLength(MOST_RECORDS),
);
const NAMES = v.pipe(v.array(name), v.maxLength(MOST_RECORDS * 10));
const INVITATION = v.strictObject({ id: name, key, sealed: bytes, heard: count });
const NUMBERS = v.record(name, count);
const ENTERING = v.strictObject({ device: name, key, proof: bytes });
const BEGINNING = v.strictObject({ key });

/** What a request is answered from, once it is known who asks. */
interface Asked {
  readonly group: string;
  readonly device: string;
  readonly body: Uint8Array;
}

const STATUS: Readonly<Record<HubRefusal, 400 | 401 | 404 | 409 | 410 | 413 | 429 | 507>> = {
  ...{ unsigned: 401, askew: 401, unknown: 401, malformed: 400, nothing: 404, copied: 409, gap: 400 },
  ...{ part: 400, removed: 410, large: 413, often: 429, full: 507 },
};

/** What stands above what devices are answered: nothing there is for a browser to show. */
const ANSWER_HEADERS = secureHeaders({
  contentSecurityPolicy: { defaultSrc: ["'none'"] },
  crossOriginResourcePolicy: "cross-origin",
});

/** What the page for the telephone may do: nothing but what it brings itself (CSP level 3, Trusted Types). */
const PAGE_HEADERS = secureHeaders({
  contentSecurityPolicy: {
    defaultSrc: ["'none'"],
    scriptSrc: ["'self'"],
    styleSrc: ["'self'"],
    imgSrc: ["'self'", "blob:", "data:"],
    connectSrc: ["'self'"],
    manifestSrc: ["'self'"],
    workerSrc: ["'self'"],
    baseUri: ["'none'"],
    formAction: ["'none'"],
    frameAncestors: ["'none'"],
    requireTrustedTypesFor: ["'script'"],
    trustedTypes: ["drawer", "drawer-worker", "lit-html"],
  },
});

/** A hub as an application. */
export interface HubApp {
  /** Its `fetch` takes a standard `Request` and gives a `Response`. */
  readonly app: Hono;
  readonly groups: Groups;
  /** Ends what goes on without an end: the streams of news. */
  end(): void;
}

/** Makes the application of a hub over a database. */
export function hubApp(database: HubDatabase, options: HubOptions): HubApp {
  const groups = new Groups(database, options.quotas);
  const metrics = new Metrics();
  const devices = new Rates(options.rates.device);
  const strangers = new Rates(options.rates.stranger);
  const app = new Hono();
  /** What ends each stream of news that is open. */
  const streams = new Set<() => void>();
  const refuse = (context: Context, why: HubRefusal) => context.text(hubAnswers[why], STATUS[why]);

  // Any page may ask: what counts is a device's signature, which no browser adds by itself.
  app.use(cors({ origin: "*", exposeHeaders: ["date", "drawer-parts"], maxAge: 86_400 }));
  for (const path of ["/groups/*", "/invitations/*", "/health", "/metrics"]) app.use(path, ANSWER_HEADERS);
  app.use(async (context, next) => {
    const began = performance.now();
    await next();
    const { method, path } = context.req;
    const asked = `${method} ${path.split("/")[3] ?? path.split("/")[1] ?? ""}`;
    const took = performance.now() - began;
    metrics.note(asked, context.res.status, took);
    context.res.headers.set("cache-control", "no-store");
    options.log(`${asked} ${context.res.status} ${took.toFixed(1)} ms`);
  });
  app.use(bodyLimit({ maxSize: MOST_BYTES, onError: (context) => refuse(context, "large") }));

  app.get("/health", async (context) => {
    await database.rows("SELECT 1 AS one");
    return context.text("ok");
  });
  app.get("/metrics", async (context) => context.text(metrics.text(await groups.counts())));

  /** Answers who is of the group, and has signed what they ask. */
  const asked =
    (answer: (context: Context, asked: Asked) => Promise<Response>) =>
    async (context: Context): Promise<Response> => {
      const claim = claimIn(context.req.header("authorization"));
      const group = context.req.param("group") ?? "";
      if (!claim) return refuse(context, "unsigned");
      if (!isOfNow(claim, Date.now())) return refuse(context, "askew");
      if (!devices.allows(`${group} ${claim.device}`)) return refuse(context, "often");
      const known = await groups.device(group, claim.device);
      if (!known) return refuse(context, "unknown");
      const body = new Uint8Array(await context.req.arrayBuffer());
      if (!isMadeBy(known.signing, claim, context.req, body)) return refuse(context, "unknown");
      if (known.isRemoved) return refuse(context, "removed");
      try {
        return await answer(context, { group, device: claim.device, body });
      } catch (error) {
        if (!(error instanceof NotTaken)) throw error;
        return refuse(context, error.why);
      }
    };

  app.put("/groups/:group", async (context) => {
    if (!strangers.allows(options.addressOf(context))) return refuse(context, "often");
    const group = context.req.param("group");
    const claim = claimIn(context.req.header("authorization"));
    const body = new Uint8Array(await context.req.arrayBuffer());
    const begun = v.safeParse(BEGINNING, unpackAsked(body));
    if (!claim || !begun.success) return refuse(context, "malformed");
    if (!isOfNow(claim, Date.now())) return refuse(context, "askew");
    const signing = begun.output.key;
    // A group is called as the device that began it, which is called as its key.
    if (group !== deviceId(signing) || claim.device !== group || !isMadeBy(signing, claim, context.req, body))
      return refuse(context, "unknown");
    await groups.begin(group, signing);
    return context.body(null, 204);
  });

  app.post(
    "/groups/:group/records",
    asked(async (context, { group, device, body }) => {
      const read = v.safeParse(RECORDS, unpackAsked(body));
      const records = read.success ? readRecords(read.output, group, device) : undefined;
      if (!records) return refuse(context, "malformed");
      await groups.add(group, device, records);
      return context.body(null, 204);
    }),
  );
  app.get(
    "/groups/:group/records",
    asked(async (context, { group }) => {
      const { after = "0", before, limit = String(MOST_RECORDS) } = context.req.query();
      if ([after, before ?? "0", limit].some((one) => !Number.isSafeInteger(Number(one))))
        return refuse(context, "malformed");
      const most = Math.min(MOST_RECORDS, Math.max(1, Number(limit)));
      const place = before === undefined ? { after: Number(after) } : { before: Number(before) };
      return message(context, await groups.records(group, { ...place, limit: most }));
    }),
  );
  app.post(
    "/groups/:group/lacking",
    asked(async (context, { group, body }) => {
      const read = v.safeParse(NAMES, unpackAsked(body));
      if (!read.success) return refuse(context, "malformed");
      return message(context, await groups.lacking(group, read.output));
    }),
  );
  app.put(
    "/groups/:group/blobs/:blob/:part",
    asked(async (context, { group, body }) => {
      const { blob = "", part } = context.req.param();
      const of = Number(context.req.query("of"));
      if (!v.is(name, blob) || !v.is(count, Number(part)) || !v.is(count, of))
        return refuse(context, "malformed");
      await groups.addBlob(group, blob, Number(part), of, body);
      return context.body(null, 204);
    }),
  );
  app.get(
    "/groups/:group/blobs/:blob/:part",
    asked(async (context, { group }) => {
      const { blob = "", part } = context.req.param();
      if (!v.is(count, Number(part))) return refuse(context, "malformed");
      const found = await groups.blob(group, blob, Number(part));
      if (!found) return refuse(context, "nothing");
      context.header("drawer-parts", String(found.of));
      return context.body(found.bytes as Uint8Array<ArrayBuffer>);
    }),
  );
  app.post(
    "/groups/:group/invitations",
    asked(async (context, { group, device, body }) => {
      const read = v.safeParse(INVITATION, unpackAsked(body));
      if (!read.success) return refuse(context, "malformed");
      await groups.layInvitation(group, device, read.output);
      return context.body(null, 204);
    }),
  );
  app.post(
    "/groups/:group/heard",
    asked(async (context, { group, device, body }) => {
      const read = v.safeParse(NUMBERS, unpackAsked(body));
      if (!read.success) return refuse(context, "malformed");
      await groups.heard(group, device, read.output);
      return message(context, await groups.lastThere(group));
    }),
  );
  app.delete(
    "/groups/:group/devices/:device",
    asked(async (context, { group }) => {
      await groups.remove(group, context.req.param("device") ?? "");
      return context.body(null, 204);
    }),
  );
  app.get(
    "/groups/:group/news",
    asked(async (context, { group, device }) =>
      answerWithEvents(context, ({ tell, end: leave }) => {
        metrics.listening(1);
        const stop = database.listen((news) => {
          if (news === group || news === "") tell("news");
          if (news === removalOf(group, device)) leave();
        });
        streams.add(leave);
        // What came before it was heard is looked for once.
        tell("news");
        return () => {
          streams.delete(leave);
          stop();
          metrics.listening(-1);
        };
      }),
    ),
  );

  app.get("/invitations/:id", async (context) => {
    if (!strangers.allows(options.addressOf(context))) return refuse(context, "often");
    const found = await groups.invitation(context.req.param("id"));
    return found
      ? message(context, { group: found.group, sealed: found.sealed })
      : refuse(context, "nothing");
  });
  app.post("/invitations/:id", async (context) => {
    if (!strangers.allows(options.addressOf(context))) return refuse(context, "often");
    const id = context.req.param("id");
    const read = v.safeParse(ENTERING, unpackAsked(new Uint8Array(await context.req.arrayBuffer())));
    if (!read.success) return refuse(context, "malformed");
    const { device, key: signing, proof } = read.output;
    const found = await groups.invitation(id);
    if (!found || device !== deviceId(signing)) return refuse(context, "nothing");
    if (!isSigned(found.signing, "enters", pack([found.group, device, signing]), proof))
      return refuse(context, "nothing");
    const isIn = await groups.enter(id, device, signing);
    return isIn ? context.body(null, 204) : refuse(context, "nothing");
  });

  if (options.site !== undefined) app.get("*", PAGE_HEADERS, serveStatic({ root: options.site }));
  app.all("*", ANSWER_HEADERS, (context) => refuse(context, "nothing"));
  app.onError((error, context) => {
    options.log(`${context.req.method} failed: ${reasonOf(error)}`);
    return context.text(hubAnswers.failed, 500);
  });
  return { app, groups, end: () => streams.forEach((leave) => leave()) };
}

function message(context: Context, value: unknown): Response {
  return context.body(pack(value), 200, { "content-type": MESSAGE });
}

/** Records with their headers, when all of them are this device's and of this group. */
function readRecords(
  records: readonly SealedRecord[],
  group: string,
  device: string,
): ReadRecord[] | undefined {
  const found: ReadRecord[] = [];
  for (const record of records) {
    const read = readHeader(record);
    if (!read || read.group !== group || read.device !== device || !record.body) return undefined;
    found.push({ ...record, body: record.body, read });
  }
  return found;
}
