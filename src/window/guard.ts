import { createHmac, randomBytes, timingSafeEqual } from "node:crypto";
import type { Context, MiddlewareHandler } from "hono";
import type { refusedRequest } from "../messages/en/window.js";

/** Why a request was refused. */
export type WhyRefused = keyof typeof refusedRequest;

/** How long a key opens the window, in milliseconds: a browser needs less to begin. */
export const KEY_LIFE = 120_000;

/** What the refusals are in HTTP (RFC 9110). */
const STATUS = { host: 403, origin: 403, token: 403, key: 403, body: 413, length: 411, path: 404 } as const;

/** A secret that nobody guesses: 256 bits, in base64url. */
export function newSecret(): string {
  return randomBytes(32).toString("base64url");
}

/** What proves to somebody who knows a secret too that one knows it, without saying it: an HMAC (RFC 2104) with SHA-256. */
export function proofOf(secret: string, ...said: readonly string[]): string {
  return createHmac("sha256", secret).update(said.join("\n")).digest("base64url");
}

/** Whether two secrets are the same; how long it takes tells nothing of where they differ. */
export function isSame(one: string, other: string): boolean {
  const [a, b] = [Buffer.from(one), Buffer.from(other)];
  return a.length === b.length && timingSafeEqual(a, b);
}

/**
 * Who may speak to the window's server: a page of its own that was opened with a key. A key is good once and for two minutes; it
 * is exchanged for a token, which the page keeps where only pages of this very origin reach it, and sends with each request. (A
 * cookie would go to every port of this computer.) What comes from another page, or by another name of this computer, is
 * refused before anything is read.
 */
export class Guard {
  readonly #keys = new Map<string, number>();
  readonly #token = newSecret();

  /**
   * @param port the port that is served
   * @param hears `refused` is told each time when something was refused, `used` which key opens nothing any more
   */
  constructor(
    readonly port: number,
    readonly hears: {
      readonly refused: (why: WhyRefused, request: { readonly path: string; readonly from: string }) => void;
      readonly used: (key: string) => void;
    },
  ) {}

  get origin(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Makes a key, and returns the address that a window is opened by with it. */
  newAddress(): string {
    const key = newSecret();
    this.#keys.set(key, Date.now() + KEY_LIFE);
    setTimeout(() => this.#take(key), KEY_LIFE).unref();
    return `${this.origin}/#${key}`;
  }

  /** Takes a key away. Returns whether it was good until now. */
  #take(key: string): boolean {
    const ends = this.#keys.get(key);
    if (ends === undefined) return false;
    this.#keys.delete(key);
    this.hears.used(key);
    return Date.now() <= ends;
  }

  /** Takes all keys away. */
  close(): void {
    for (const key of this.#keys.keys()) this.#take(key);
  }

  /** Lets through what comes from a page of this server, or was typed as an address; the page itself may be led to. */
  readonly ownPages: MiddlewareHandler = async (context, next) => {
    const { origin, host } = new URL(this.origin);
    const site = context.req.header("sec-fetch-site");
    const from = context.req.header("origin");
    if (context.req.header("host") !== host) return this.refuse(context, "host");
    if (from !== undefined && from !== origin) return this.refuse(context, "origin");
    const isLedTo = context.req.method === "GET" && context.req.path === "/" && isVisit(context);
    if (site !== undefined && site !== "same-origin" && site !== "none" && !isLedTo)
      return this.refuse(context, "origin");
    return next();
  };

  /** Lets through what was opened with a key. */
  readonly opened: MiddlewareHandler = async (context, next) => {
    const [scheme, token = ""] = (context.req.header("authorization") ?? "").split(" ");
    return scheme === "Bearer" && isSame(token, this.#token) ? next() : this.refuse(context, "token");
  };

  /** Exchanges a key for the token. */
  enter(context: Context, key: string): Response {
    if (!this.#take(key)) return this.refuse(context, "key");
    return context.json({ token: this.#token });
  }

  /** Lets through what says how much it brings, where that is not too much. */
  bounded(most: (path: string) => number): MiddlewareHandler {
    return async (context, next) => {
      const { req } = context;
      if (req.method === "GET" || req.method === "HEAD") return next();
      const length = Number(req.header("content-length") ?? NaN);
      if (!Number.isSafeInteger(length)) return this.refuse(context, "length");
      return length > most(req.path) ? this.refuse(context, "body") : next();
    };
  }

  /** Refuses a request, and tells it; what it brings is not read. */
  refuse(context: Context, why: WhyRefused): Response {
    this.tell(context, why);
    return context.text(why, STATUS[why], { connection: "close" });
  }

  /** Tells of a request that was refused. */
  tell({ req }: Context, why: WhyRefused): void {
    const from = req.header("origin") ?? req.header("host") ?? "?";
    this.hears.refused(why, { path: `${req.method} ${req.path}`, from });
  }
}

/** Whether a request shows a page in a tab or a window of its own (Fetch Metadata). */
function isVisit({ req }: Context): boolean {
  return req.header("sec-fetch-mode") === "navigate" && req.header("sec-fetch-dest") === "document";
}
