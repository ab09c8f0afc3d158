import { defined } from "../../content/defined.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Origin } from "../../drawer/model/entry.js";
import type { Flavours } from "../../formats/flavours.js";
import { detection } from "./lazy.js";
import { databaseOf } from "./page-drawer.js";

/** A copy that was heard, and what is known of it. */
export interface HeardCopy {
  readonly flavours: Pick<Flavours, "html" | "text">;
  readonly origin: Origin;
  readonly isCut: boolean;
}

/** How long a copy that may be a secret waits for the next page, in milliseconds. */
const WAITING = 2 * 60_000;

/** A copy as it waits in the browser's storage. Of a secret nothing is written down but that there was one. */
interface LeftCopy {
  readonly copy?: HeardCopy;
  /** In milliseconds since 1970. */
  readonly at: number;
}

/** What a page has left behind. */
export interface Left {
  readonly copies: readonly HeardCopy[];
  /** How many are lost, since they were secrets, or may have been and have waited too long. */
  readonly lost: number;
}

/** Whom they are for. */
interface LeftCopiesHost {
  readonly signal: AbortSignal;
  /** Is told when they cannot be written down. */
  readonly failed: (error: unknown) => void;
}

/** Those of a drawer; nothing for one that is not kept in this browser. */
export function leftCopiesOf({ store, name }: Drawer, host: LeftCopiesHost): LeftCopies | undefined {
  const database = databaseOf(store);
  return database === undefined ? undefined : new LeftCopies(`${database}/${name}: copies`, host);
}

/** A copy that was heard here, and whether it is a secret: not known until what tells is there. */
interface Waiting extends Required<LeftCopy> {
  secret?: boolean;
}

/**
 * Copies that a page has heard and not collected yet, since what reads them is still being loaded. When the page is left, they are
 * written down for the next page of the same site: in `localStorage` what is no secret, in the `sessionStorage` of the tab what may
 * be one.
 */
export class LeftCopies {
  readonly #heard = new Set<Waiting>();

  /**
   * @param key under which they wait in the browser's storages: a key for each drawer
   */
  constructor(
    readonly key: string,
    { signal, failed }: LeftCopiesHost,
  ) {
    const write = () => {
      const heard = [...this.#heard];
      put(localStorage, key, heard.filter(({ secret }) => secret !== undefined).map(withoutSecret));
      put(sessionStorage, key, heard.filter(({ secret }) => secret === undefined).map(withoutSecret));
    };
    const left = () => {
      try {
        if (this.#heard.size > 0) write();
      } catch (error) {
        failed(error);
      }
    };
    window.addEventListener("pagehide", left, { signal });
    // A page that is shown again goes on with them itself.
    const back = ({ persisted }: PageTransitionEvent) => {
      if (!persisted || this.#heard.size === 0) return;
      for (const storage of [localStorage, sessionStorage]) storage.removeItem(key);
    };
    window.addEventListener("pageshow", back, { signal });
  }

  /** Notes a copy until it is collected. Returns what takes note of that. */
  hear({
    flavours: { secret, html, text },
    origin,
    isCut,
  }: Omit<HeardCopy, "flavours"> & { readonly flavours: Flavours }): () => void {
    const copy = { flavours: { ...defined({ html, text }) }, origin, isCut };
    const waiting: Waiting = { copy, at: Date.now(), ...(secret && { secret }) };
    this.#heard.add(waiting);
    if (!secret && text !== undefined)
      void detection().then(
        (isSecret) => (waiting.secret = isSecret(text)),
        // It stays unknown whether it is one; that what collects it does not come is told there.
        () => undefined,
      );
    return () => void this.#heard.delete(waiting);
  }

  /** Takes over what the page before has left behind, and wipes it out there. */
  take(): Left {
    const waits = take(sessionStorage, this.key);
    const here = waits.filter(({ at }) => Date.now() - at < WAITING);
    const all = [...take(localStorage, this.key), ...here].sort((one, two) => one.at - two.at);
    const copies = all.flatMap(({ copy }) => copy ?? []);
    return { copies, lost: waits.length - here.length + (all.length - copies.length) };
  }
}

function withoutSecret({ secret, copy, at }: Waiting): LeftCopy {
  return secret ? { at } : { copy, at };
}

function put(storage: Storage, key: string, copies: readonly LeftCopy[]): void {
  if (copies.length > 0) storage.setItem(key, JSON.stringify(copies));
}

function take(storage: Storage, key: string): readonly LeftCopy[] {
  const left = storage.getItem(key);
  storage.removeItem(key);
  return left === null ? [] : (JSON.parse(left) as LeftCopy[]);
}
