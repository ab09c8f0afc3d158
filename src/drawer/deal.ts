import { DrawerError } from "../content/error.js";
import type { Drawer } from "./drawer.js";
import type { Entry } from "./entry.js";
import type { Snippet } from "./picking.js";
import { Conflict, type Positioned } from "./store.js";
import { VALUES } from "./values.js";

/** One snippet that was handed out: which of how many. */
export interface Dealt {
  readonly snippet: Snippet;
  /** Its number in the deal, from 1. */
  readonly number: number;
  /** How many the deal has. */
  readonly of: number;
}

/** A deal as it is kept: what is handed out, and how many have been. */
interface Kept {
  readonly entries: readonly Positioned[];
  readonly handed: number;
}

/**
 * A pick that is handed out one snippet at a time, in order: one to each field, cell or page. It is kept with the drawer,
 * so it goes on tomorrow and in another process, and what is collected or discarded meanwhile does not disturb it.
 */
export class Deal {
  /** @internal */
  constructor(readonly drawer: Drawer) {}

  /**
   * Begins a deal, in place of the one before.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  static async begin(drawer: Drawer, pick: string): Promise<Deal> {
    const entries = (await drawer.snippets(pick)).map(({ position, entry }) => ({
      position,
      entry: entry as Entry,
    }));
    const before = await drawer.store.value(drawer.name, VALUES.deal);
    await drawer.store.keepValue(
      drawer.name,
      VALUES.deal,
      before,
      JSON.stringify({ entries, handed: 0 } satisfies Kept),
    );
    return new Deal(drawer);
  }

  /** How many are left to hand out, of how many. */
  async left(): Promise<{ left: number; of: number }> {
    const { kept } = await this.#kept();
    return { left: kept.entries.length - kept.handed, of: kept.entries.length };
  }

  /** Hands out the next one; nothing when all have been handed out. */
  next(): Promise<Dealt | undefined> {
    return this.#hand((handed) => handed);
  }

  /** Hands out again the one before the last that was handed out; the first stays the first. */
  back(): Promise<Dealt | undefined> {
    return this.#hand((handed) => Math.max(0, handed - 2));
  }

  /** Passes over the next one, and hands out the one after it. */
  skip(): Promise<Dealt | undefined> {
    return this.#hand((handed) => handed + 1);
  }

  async #hand(choose: (handed: number) => number): Promise<Dealt | undefined> {
    for (;;) {
      const { text, kept } = await this.#kept();
      const of = kept.entries.length;
      const index = choose(kept.handed);
      const handed = Math.min(of, index + 1);
      try {
        if (handed !== kept.handed)
          await this.drawer.store.keepValue(
            this.drawer.name,
            VALUES.deal,
            text,
            JSON.stringify({ ...kept, handed }),
          );
      } catch (error) {
        if (error instanceof Conflict) continue;
        throw error;
      }
      if (index >= of) return undefined;
      const [snippet] = await this.drawer.read([kept.entries[index]!]);
      return { snippet: snippet!, number: index + 1, of };
    }
  }

  async #kept(): Promise<{ text: string; kept: Kept }> {
    const text = await this.drawer.store.value(this.drawer.name, VALUES.deal);
    if (text === undefined)
      throw new DrawerError("nothing", "Nothing is being dealt. Begin with “drawer deal” and a pick.");
    return { text, kept: JSON.parse(text) as Kept };
  }
}
