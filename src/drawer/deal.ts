import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import type { Drawer } from "./drawer.js";
import { piecesOf, type Entry } from "./entry.js";
import { hiddenTraces } from "./hidden.js";
import type { Snippet } from "./picking.js";
import { Conflict, type Positioned } from "./store.js";
import { isTrace } from "./traces.js";
import { VALUES } from "./values.js";

/** One snippet that was handed out: which of how many. */
export interface Dealt {
  readonly snippet: Snippet;
  /** Its number in the deal, from 1. */
  readonly number: number;
  /** How many the deal has. */
  readonly of: number;
  /** What was passed over on the way. */
  readonly notices: readonly Notice[];
}

/** A deal as it is kept: which snippets are handed out, by their ids alone, and how many have been. */
interface Kept {
  readonly snippets: readonly { readonly id: string; readonly position: number }[];
  readonly handed: number;
}

/** What is done with a snippet that is handed out; when it fails, the snippet has not been handed out. */
export type Use = (dealt: Dealt) => Promise<void> | void;

/**
 * A pick that is handed out one snippet at a time, in order: one to each field, cell or page. It is kept with the drawer,
 * so it goes on tomorrow and in another process, and what is collected or discarded meanwhile does not disturb it. What
 * has been forgotten for good is passed over, with a notice.
 */
export class Deal {
  /** @internal */
  constructor(readonly drawer: Drawer) {}

  /**
   * Begins a deal, in place of the one before.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  static async begin(drawer: Drawer, pick: string): Promise<Deal> {
    const snippets = (await drawer.pickSome(pick)).map(({ position, entry }) => ({ id: entry.id, position }));
    const before = await drawer.store.value(drawer.name, VALUES.deal);
    const kept: Kept = { snippets, handed: 0 };
    await drawer.store.setValue(drawer.name, VALUES.deal, before, JSON.stringify(kept));
    return new Deal(drawer);
  }

  /** How many are left to hand out, of how many. */
  async left(): Promise<{ left: number; of: number }> {
    const { kept } = await this.#kept();
    return { left: kept.snippets.length - kept.handed, of: kept.snippets.length };
  }

  /** Hands out the next one; nothing when all have been handed out. */
  next(use?: Use): Promise<Dealt | undefined> {
    return this.#hand((handed) => handed, 1, use);
  }

  /** Hands out again the one before the last that was handed out; the first stays the first. */
  back(use?: Use): Promise<Dealt | undefined> {
    return this.#hand((handed) => Math.max(0, handed - 2), -1, use);
  }

  /** Passes over the next one, and hands out the one after it. */
  skip(use?: Use): Promise<Dealt | undefined> {
    return this.#hand((handed) => handed + 1, 1, use);
  }

  /** Passes over the next one, and hands out nothing. Gives how many are left, of how many. */
  async pass(): Promise<{ left: number; of: number }> {
    await this.#keep((kept) => ({ ...kept, handed: Math.min(kept.snippets.length, kept.handed + 1) }));
    return this.left();
  }

  async #hand(choose: (handed: number) => number, step: 1 | -1, use: Use = () => undefined) {
    const { text, kept } = await this.#kept();
    const of = kept.snippets.length;
    const notices: Notice[] = [];
    for (let index = choose(kept.handed); index >= 0 && index < of; index += step) {
      const snippet = await this.#find(kept.snippets[index]!);
      if (!snippet) {
        const message = `Passed over ${index + 1} of ${of}: it is gone for good, or was made private with what it was merged into.`;
        notices.push({ code: "forgotten", message });
        continue;
      }
      const dealt: Dealt = { snippet, number: index + 1, of, notices };
      await use(dealt);
      await this.#keepAfter(text, { ...kept, handed: index + 1 });
      return dealt;
    }
    if (step > 0) await this.#keepAfter(text, { ...kept, handed: of });
    return undefined;
  }

  /** Keeps how far the deal is; when another process has gone on with it meanwhile, that stands. */
  async #keepAfter(before: string, kept: Kept): Promise<void> {
    const after = JSON.stringify(kept);
    if (after === before) return;
    try {
      await this.drawer.store.setValue(this.drawer.name, VALUES.deal, before, after);
    } catch (error) {
      if (!(error instanceof Conflict)) throw error;
      throw new DrawerError(
        "conflict",
        "Another program has gone on with this deal at the same moment, and may have handed out the same snippet.",
        { cause: error },
      );
    }
  }

  async #keep(change: (kept: Kept) => Kept): Promise<void> {
    const { text, kept } = await this.#kept();
    await this.#keepAfter(text, change(kept));
  }

  /** A snippet of the deal, wherever it is now: in a drawer, among what has left one, or a piece of another. */
  async #find({ id, position }: Kept["snippets"][number]): Promise<Snippet | undefined> {
    const { store, name } = this.drawer;
    const [here] = await store.entries({ drawer: name, ids: [id] });
    const found = here ?? (await this.#elsewhere(id, position));
    if (!found) return undefined;
    const [snippet] = await this.drawer.read([found]);
    return snippet;
  }

  async #elsewhere(id: string, position: number): Promise<Positioned | undefined> {
    const { store, name } = this.drawer;
    const traces = await hiddenTraces(store);
    const mayBeShown = (entry: Entry) => entry.private || !traces || !isTrace(entry, traces);
    const gone = (await store.gone(name)).find(({ entry }) => entry.id === id);
    if (gone) return mayBeShown(gone.entry) ? { position, entry: gone.entry } : undefined;
    // Moved, merged or split: the log tells where it went last.
    for (const change of await store.changes({ about: [id] })) {
      for (const { after } of change.edits) {
        const entry = after && piecesOf(after).find((piece) => piece.id === id);
        if (entry && !mayBeShown(entry)) return undefined;
        if (entry && (await store.contents([entry.content])).has(entry.content)) return { position, entry };
      }
    }
    return undefined;
  }

  async #kept(): Promise<{ text: string; kept: Kept }> {
    const text = await this.drawer.store.value(this.drawer.name, VALUES.deal);
    if (text === undefined)
      throw new DrawerError("nothing", "Nothing is being dealt. Begin with “drawer deal” and a pick.");
    return { text, kept: JSON.parse(text) as Kept };
  }
}
