import type { Recipe } from "../compose/recipe.js";
import { notice, type Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import { displayText } from "../drawer/selection.js";
import type { Dealt } from "../drawer/operations/deal.js";
import { page as words } from "../messages/spoken-page.js";
import type { Binding } from "./binding.js";
import { composed } from "./on-first-use.js";
import { pageNotices } from "../messages/en/notices/page.js";

/** How far a deal on a page is. */
export interface DealState {
  /** How many are left to hand out, of how many. */
  readonly left: number;
  readonly of: number;
  /** What the next one says; nothing when all have been handed out. */
  readonly next: string | undefined;
}

/** A pick that is being handed out, one snippet at a time. */
export interface Deal {
  /** How far it is; nothing when nothing is being dealt here. */
  readonly state: DealState | undefined;
  /**
   * Begins a deal.
   * @param pick which snippets, as on the command line
   * @param recipe how each is made into a block
   */
  begin(pick: string, recipe?: Recipe): Promise<void>;
  /** Hands out the next snippet. */
  next(): Promise<void>;
  /** Hands out again the one before the last. */
  back(): Promise<void>;
  /** Passes over the next snippet. */
  skip(): Promise<void>;
  /** Hands out nothing more here. What is left can still be handed out elsewhere. */
  end(): void;
  /** @internal The user is in another place. */
  arrived(): void;
  /** @internal The drawer has changed. */
  changed(): Promise<void>;
}

/** How far the deal of a drawer is. */
export async function dealStateOf(drawer: Drawer): Promise<DealState> {
  const [{ left, of }, peek] = [await drawer.dealLeft(), await drawer.dealPeek()];
  return { left, of, next: peek && displayText(peek.snippet.entry) };
}

/**
 * A pick that is handed out on a page, one snippet to each place: the next goes to the next field, editor or cell that the
 * user goes to, or to the caret when they ask for it. A place that has got one gets no other by being gone to again.
 */
export class PageDeal implements Deal {
  state: DealState | undefined;
  #recipe: Recipe = {};
  /** The places that have got a snippet. */
  #served = new WeakSet<Element>();

  constructor(readonly binding: Binding) {}

  /** Begins a deal. The place where the user is gets none by itself, as they have not gone there for it. */
  async begin(pick: string, recipe: Recipe = {}): Promise<void> {
    await this.binding.act(async () => {
      const { of } = await this.binding.drawer.deal(pick);
      this.#recipe = recipe;
      this.#served = new WeakSet();
      const { target } = this.binding;
      if (target) this.#served.add(target.element);
      await this.#look();
      return [notice(pageNotices, "dealing/page", { of })];
    });
  }

  arrived(): void {
    const { target } = this.binding;
    if (!this.state?.next || !target || this.#served.has(target.element)) return;
    // The caret is there when the click, or the key, that led there is done with.
    setTimeout(() => {
      if (this.binding.target?.element === target.element && !this.#served.has(target.element))
        void this.next();
    });
  }

  next(): Promise<void> {
    return this.#hand((use) => this.binding.drawer.dealNext(use));
  }

  back(): Promise<void> {
    return this.#hand((use) => this.binding.drawer.dealBack(use));
  }

  #hand(deal: (use: (dealt: Dealt) => Promise<void>) => Promise<Dealt | undefined>): Promise<void> {
    const { binding } = this;
    return binding.act(async () => {
      let told: readonly Notice[] = [];
      const dealt = await deal(async ({ snippet, number, of }) => {
        const { element } = binding.target ?? {};
        if (element) this.#served.add(element);
        try {
          told = await binding.putDealt(
            {
              ids: [snippet.entry.id],
              make: (fit) => composed([snippet], { ...this.#recipe, fit }),
              what: words.dealt(number, of),
            },
            () => this.#takenBack(element),
          );
        } catch (error) {
          if (element) this.#served.delete(element);
          throw error;
        }
      });
      await this.#look();
      const notices = [...told, ...(dealt?.notices ?? [])];
      return this.state?.left === 0 ? [...notices, notice(pageNotices, "dealing/done", {})] : notices;
    });
  }

  async #takenBack(element: Element | undefined): Promise<void> {
    if (element) this.#served.delete(element);
    await this.binding.drawer.dealReturn();
    await this.#look();
  }

  async skip(): Promise<void> {
    await this.binding.act(async () => {
      const { left, of } = await this.binding.drawer.dealSkip();
      await this.#look();
      return [notice(pageNotices, "dealing/skipped", { number: of - left, of })];
    });
  }

  end(): void {
    this.state = undefined;
  }

  async changed(): Promise<void> {
    // What is handed out on this page is known here.
  }

  async #look(): Promise<void> {
    this.state = await dealStateOf(this.binding.drawer);
  }
}
