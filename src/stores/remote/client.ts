import { EventSource } from "eventsource";
import { defined } from "../../content/defined.js";
import { DrawerError, errorOf, reasonOf, type Refusal } from "../../content/error.js";
import { Conflict, type Store } from "../../drawer/store.js";
import { Listeners } from "../../messages/core/listeners.js";
import { remoteErrors } from "../../messages/en/stores.js";
import { MESSAGE, METHODS, pack, STATUS, unpack, type About, type Method } from "./wire.js";

/** How a store elsewhere is reached. */
export interface RemoteOptions {
  /** Asks it, and hears of its changes; the `fetch` of where this runs when it is left out. */
  readonly fetch?: typeof fetch;
}

/** A store that lives elsewhere, and is asked over HTTP. */
export interface RemoteStore extends Store {
  /**
   * Calls `listener` when the store cannot be reached any more, and when it can again; and at once with how it is now.
   * Returns an unsubscribe function.
   */
  whenReached(listener: (isReached: boolean) => void): () => void;
}

/**
 * Opens a store that {@link remoteHandler} serves. All that works on a store works on it; a change that anybody makes there is
 * heard of at once. Closing it leaves the store itself as it is.
 *
 * @param address where it is served, such as `/store/`
 * @throws DrawerError `store` when it cannot be reached; so does each of its methods
 */
export async function openRemote(address: string | URL, options: RemoteOptions = {}): Promise<RemoteStore> {
  const base = new URL(address, globalThis.location?.href);
  if (!base.pathname.endsWith("/")) base.pathname += "/";
  const link = new Link(base, options);
  const about = (await (await link.get("about")).json()) as About;
  return Object.assign(
    Object.fromEntries(
      METHODS.map((name) => [name, (...args: unknown[]) => link.call(name, args)]),
    ) as unknown as Pick<Store, Method>,
    {
      ...about,
      watch: (listener: () => void) => link.watch(listener),
      whenReached: (listener: (isReached: boolean) => void) => link.whenReached(listener),
      close: async () => link.close(),
    },
  );
}

/** What carries questions there, and news of changes back. */
class Link {
  readonly #changed = new Listeners();
  readonly #reached = new Set<(isReached: boolean) => void>();
  #isReached = true;
  #events: EventSource | undefined;

  constructor(
    readonly base: URL,
    readonly options: RemoteOptions,
  ) {}

  get(path: string): Promise<Response> {
    return this.#fetch(path);
  }

  async call(name: Method, args: readonly unknown[]): Promise<unknown> {
    const response = await this.#fetch("call", {
      method: "POST",
      headers: { "content-type": MESSAGE },
      body: pack([name, ...args]),
    });
    // What is nothing comes as null.
    return unpack(new Uint8Array(await this.#whole(response))) ?? undefined;
  }

  async #fetch(path: string, init: RequestInit = {}): Promise<Response> {
    const ask = this.options.fetch ?? fetch;
    const response = await ask(new URL(path, this.base), init).catch((error: unknown) => {
      throw unreached(reasonOf(error), error);
    });
    if (response.ok) return response;
    if (response.status === STATUS.conflict) throw new Conflict("Somebody else was first.");
    if (response.status !== STATUS.refused) throw unreached((await response.text()) || response.statusText);
    throw errorOf(unpack(new Uint8Array(await this.#whole(response))) as Refusal);
  }

  #whole(response: Response): Promise<ArrayBuffer> {
    return response.arrayBuffer().catch((error: unknown) => {
      throw unreached(reasonOf(error), error);
    });
  }

  watch(listener: () => void): () => void {
    const stop = this.#changed.add(listener);
    this.#listen();
    return () => {
      stop();
      this.#rest();
    };
  }

  whenReached(listener: (isReached: boolean) => void): () => void {
    this.#reached.add(listener);
    this.#listen();
    listener(this.#isReached);
    return () => {
      this.#reached.delete(listener);
      this.#rest();
    };
  }

  #listen(): void {
    if (this.#events) return;
    // Unlike the browser's own, it asks as all else is asked: with what authorises it.
    const events = new EventSource(new URL("changes", this.base), defined({ fetch: this.options.fetch }));
    this.#events = events;
    let isAgain = false;
    events.addEventListener("changed", () => this.#changed.call());
    events.addEventListener("open", () => {
      this.#reach(true);
      // What was changed while nobody heard of it is read too.
      if (isAgain) this.#changed.call();
      isAgain = true;
    });
    events.addEventListener("error", () => this.#reach(false));
  }

  #reach(isReached: boolean): void {
    if (this.#isReached === isReached) return;
    this.#isReached = isReached;
    for (const listener of this.#reached) listener(isReached);
  }

  /** Hears no more when nobody listens. */
  #rest(): void {
    if (this.#changed.size === 0 && this.#reached.size === 0) this.close();
  }

  close(): void {
    this.#events?.close();
    this.#events = undefined;
  }
}

function unreached(reason: string, cause?: unknown): DrawerError {
  return new DrawerError(remoteErrors, "store/away", { reason }, { cause });
}
