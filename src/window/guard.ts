import { createHmac, randomBytes, timingSafeEqual } from "node:crypto";
import type { Context, MiddlewareHandler } from "hono";
import { getCookie, setCookie } from "hono/cookie";
import type { refusedRequest } from "../messages/en/window.js";

/** Why a request was refused. */
export type WhyRefused = keyof typeof refusedRequest;

/** How long a key opens the window, in milliseconds: a browser needs less to begin. */
const KEY_LIFE = 120_000;

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
 * Who may speak to the window's server: a page of its own that was opened with a key. A key is good once and for two minutes,
 * as others on this computer may read it in the list of programs; it is exchanged for a cookie that no script can read. What
 * comes from another page, or by another name of this computer, is refused before anything is done.
 */
export class Guard {
  readonly #keys = new Map<string, number>();
  readonly #session = newSecret();

  /**
   * @param port the port that is served
   * @param refused is told each time when something was refused
   */
  constructor(
    readonly port: number,
    readonly refused: (why: WhyRefused, request: { readonly path: string; readonly from: string }) => void,
  ) {}

  get origin(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Makes a key, and returns the address that a window is opened by with it. */
  newAddress(): string {
    const key = newSecret();
    this.#keys.set(key, Date.now() + KEY_LIFE);
    return `${this.origin}/#${key}`;
  }

  get #cookie(): string {
    // Cookies of one host are shared by all of its ports.
    return `drawer-${this.port}`;
  }

  /** Lets through what comes from a page of this server, or was typed as an address. */
  readonly ownPages: MiddlewareHandler = async (context, next) => {
    const { origin, host } = new URL(this.origin);
    const site = context.req.header("sec-fetch-site");
    const from = context.req.header("origin");
    if (context.req.header("host") !== host) return this.#refuse(context, "host");
    if (from !== undefined && from !== origin) return this.#refuse(context, "origin");
    if (site !== undefined && site !== "same-origin" && site !== "none")
      return this.#refuse(context, "origin");
    return next();
  };

  /** Lets through what was opened with a key. */
  readonly opened: MiddlewareHandler = async (context, next) => {
    const session = getCookie(context, this.#cookie) ?? "";
    return isSame(session, this.#session) ? next() : this.#refuse(context, "cookie");
  };

  /** Exchanges a key for the cookie. */
  enter(context: Context, key: string): Response {
    const ends = this.#keys.get(key) ?? 0;
    this.#keys.delete(key);
    if (Date.now() > ends) return this.#refuse(context, "key");
    setCookie(context, this.#cookie, this.#session, { httpOnly: true, sameSite: "Strict", path: "/" });
    return context.body(null, 204);
  }

  /** Refuses a request, and tells it. */
  #refuse(context: Context, why: WhyRefused): Response {
    this.tell(context, why);
    return context.text(why, 403);
  }

  /** Tells of a request that was refused. */
  tell({ req }: Context, why: WhyRefused): void {
    const from = req.header("origin") ?? req.header("host") ?? "?";
    this.refused(why, { path: `${req.method} ${req.path}`, from });
  }
}
