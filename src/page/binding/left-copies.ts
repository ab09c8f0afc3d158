import { defined } from "../../content/defined.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Origin } from "../../drawer/model/entry.js";
import type { Flavours } from "../../formats/flavours.js";
import { databaseOf } from "./page-drawer.js";

/** A copy that was heard, and what is known of it. */
export interface HeardCopy {
  readonly flavours: Pick<Flavours, "html" | "text">;
  readonly origin: Origin;
  readonly isCut: boolean;
}

/** How long a copy that a page has left behind waits for the next page, in milliseconds. */
const WAITING = 2 * 60_000;

/** A copy as it waits in the browser's storage. */
interface LeftCopy extends HeardCopy {
  /** In milliseconds since 1970. */
  readonly at: number;
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

/**
 * Copies that a page has heard and not collected yet, since what reads them is still being loaded. When the page is left, they are
 * written down for the next page of the same site.
 */
export class LeftCopies {
  readonly #heard = new Set<LeftCopy>();

  /**
   * @param key under which they wait in the browser's storage: a key for each drawer
   */
  constructor(
    readonly key: string,
    { signal, failed }: LeftCopiesHost,
  ) {
    const left = () => {
      try {
        if (this.#heard.size > 0) localStorage.setItem(key, JSON.stringify([...this.#heard]));
      } catch (error) {
        failed(error);
      }
    };
    window.addEventListener("pagehide", left, { signal });
    // A page that is shown again goes on with them itself.
    const back = ({ persisted }: PageTransitionEvent) =>
      void (persisted && this.#heard.size > 0 && localStorage.removeItem(key));
    window.addEventListener("pageshow", back, { signal });
  }

  /** Notes a copy until it is collected. Returns what takes note of that. What is a secret is not written down. */
  hear({
    flavours: { secret, html, text },
    origin,
    isCut,
  }: Omit<HeardCopy, "flavours"> & { readonly flavours: Flavours }): () => void {
    if (secret) return () => undefined;
    const copy: LeftCopy = {
      flavours: { ...defined({ html, text }) },
      ...{ origin, isCut, at: Date.now() },
    };
    this.#heard.add(copy);
    return () => void this.#heard.delete(copy);
  }

  /** Takes over what the page before has left behind, and wipes it out there. What is too old is gone. */
  take(): readonly HeardCopy[] {
    const left = localStorage.getItem(this.key);
    if (left === null) return [];
    localStorage.removeItem(this.key);
    return (JSON.parse(left) as LeftCopy[]).filter(({ at }) => Date.now() - at < WAITING);
  }
}
