import type { Recipe } from "../../compose/recipe.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import type { DealStep, DealTarget } from "../../drawer/deal-step.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Dealt } from "../../drawer/operations/deal.js";
import { displayText } from "../../drawer/snippets.js";
import { page as words } from "../../messages/core/page-sentences.js";
import { pageNotices } from "../../messages/en/page.js";
import { beginCopy } from "../places/carrying.js";
import type { Place } from "../places/place.js";
import type { HostDesktop } from "./host-desktop.js";
import { composed, dealing } from "./lazy.js";
import type { PlaceRequest } from "./placements.js";

/** How far a deal on a page is. */
export interface DealState {
  /** How many are left to hand out, of how many. */
  readonly left: number;
  readonly of: number;
  /** What the next one says; nothing when all have been handed out. */
  readonly next: string | undefined;
}

/** What a deal needs of the binding that it belongs to. */
export interface DealHost {
  readonly drawer: Drawer;
  /** Where the user is. */
  readonly target: Place | undefined;
  readonly act: (action: () => Promise<readonly Notice[]>) => Promise<void>;
  /** Places a snippet where the user is. `takenBack` is called when that is taken back. */
  readonly putDealt: (request: PlaceRequest, takenBack: () => Promise<unknown>) => Promise<readonly Notice[]>;
}

/**
 * A pick that is handed out, one snippet at a time. On a page the next goes to the next field, editor or cell that the user
 * goes to, or to the caret when they ask for it; a place that has got one gets no other by being gone to again. In a window
 * beside other programs the next stands on the clipboard of the desktop.
 */
export class PageDeal {
  /** How far it is; nothing when nothing is being dealt here. */
  state: DealState | undefined;
  /** The places that have got a snippet. */
  #served = new WeakSet<Element>();
  /** Whether it was ended here; what is left can still be handed out elsewhere. */
  #isEnded = false;

  constructor(
    readonly host: DealHost,
    readonly desktop: HostDesktop | undefined,
  ) {}

  /**
   * Begins a deal. The place where the user is gets none by itself, as they have not gone there for it.
   * @param pick which snippets, as on the command line
   * @param recipe how each is made into a block
   */
  async begin(pick: string | Promise<string>, recipe: Recipe = {}): Promise<void> {
    const { host, desktop } = this;
    await this.#copying(async () => {
      const { of, notices = [] } = await host.drawer.deal(await pick, {
        recipe,
        ...(desktop && { to: "clipboard" }),
      });
      this.#isEnded = false;
      this.#served = new WeakSet();
      if (host.target) this.#served.add(host.target.element);
      const started = desktop && (await desktop.deal(host.drawer.name));
      await this.#read();
      if (!started) return [...notices, notice(pageNotices, "dealing/page", { of })];
      return [
        ...notices,
        started.tellsPastes
          ? (await dealing()).begunOnClipboard(of)
          : notice(pageNotices, "dealing/in-turn", { of }),
      ];
    });
  }

  /** Hands out the next snippet. */
  next(): Promise<void> {
    return this.#step("next");
  }

  /** Hands out again the one before the last. */
  back(): Promise<void> {
    return this.#step("back");
  }

  /** Passes over the next snippet. */
  skip(): Promise<void> {
    return this.#step("skip");
  }

  /** Hands out nothing more here. What is left can still be handed out elsewhere. */
  end(): void {
    this.#isEnded = true;
    this.state = undefined;
    const { desktop } = this;
    if (desktop) void this.host.act(async () => (await desktop.endDeal(), []));
  }

  /** @internal The user is in another place. */
  arrived(): void {
    const { target } = this.host;
    // On the clipboard it is a paste that brings the next, wherever the user goes.
    if (this.desktop || !this.state?.next || !target || this.#served.has(target.element)) return;
    // The caret is there when the click, or the key, that led there is done with.
    setTimeout(() => {
      if (this.host.target?.element === target.element && !this.#served.has(target.element)) void this.next();
    });
  }

  /** @internal The drawer has changed: a paste in any program moves a deal on the clipboard. */
  async changed(): Promise<void> {
    if (!this.desktop) return;
    try {
      const isHere = !this.#isEnded && (await this.host.drawer.dealStatus()).to === "clipboard";
      const before = this.state;
      await (isHere ? this.#read() : (this.state = undefined));
      // One that was over before the window was opened needs no word.
      if (!before && this.state?.next === undefined) this.state = undefined;
    } catch (error) {
      if (!(error instanceof DrawerError) || error.code !== "nothing") throw error;
      this.state = undefined;
    }
  }

  /** Does what may copy a snippet: on a telephone it is the browser that does. */
  async #copying(action: () => Promise<readonly Notice[]>): Promise<void> {
    const endCopy = this.desktop ? beginCopy() : () => undefined;
    try {
      await this.host.act(action);
    } finally {
      endCopy();
    }
  }

  #step(step: DealStep): Promise<void> {
    return this.#copying(async () => {
      const { allDealt, stepDeal } = await dealing();
      const { dealt, left, notices } = await stepDeal(this.host.drawer, step, this.#target);
      await this.#read();
      const isLast = left === 0 && dealt !== undefined && !this.desktop;
      return isLast ? [...notices, allDealt()] : notices;
    });
  }

  readonly #target: DealTarget = {
    handOver: (dealt) => this.#handOver(dealt),
    offer: (drawer) => this.desktop?.deal(drawer) ?? Promise.resolve(),
  };

  /** Places a snippet where the user is. */
  async #handOver({ snippet, number, of, recipe }: Dealt): Promise<readonly Notice[]> {
    const { host } = this;
    const { element } = host.target ?? {};
    if (element) this.#served.add(element);
    const takenBack = async () => {
      if (element) this.#served.delete(element);
      await host.drawer.dealReturn();
      await this.#read();
    };
    try {
      return await host.putDealt(
        {
          ids: [snippet.entry.id],
          make: (fit) => composed([snippet], { ...recipe, fit }),
          what: words.dealt(number, of),
        },
        takenBack,
      );
    } catch (error) {
      if (element) this.#served.delete(element);
      throw error;
    }
  }

  async #read(): Promise<void> {
    const { drawer } = this.host;
    const [{ left, of }, peek] = [await drawer.dealStatus(), await drawer.dealPeek()];
    this.state = { left, of, next: peek && displayText(peek.snippet.entry) };
  }
}
