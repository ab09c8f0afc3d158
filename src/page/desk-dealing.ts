import { DrawerError } from "../content/error.js";
import { notice } from "../content/notice.js";
import type { Left } from "../drawer/operations/deal.js";
import type { Binding } from "./binding.js";
import { dealStateOf, type Deal, type DealState } from "./dealing.js";
import type { Desk } from "./desk.js";
import { pageNotices } from "../messages/en/notices/page.js";
import { placingNotices } from "../messages/en/notices/placing.js";

/** A pick that is handed out on the clipboard of the desktop, where each paste brings the next. */
export class DeskDeal implements Deal {
  state: DealState | undefined;
  /** Whether it was ended in this window; what is left can still be handed out elsewhere. */
  #isEnded = false;

  constructor(
    readonly binding: Binding,
    readonly desk: Desk,
  ) {}

  async begin(pick: string): Promise<void> {
    const { binding, desk } = this;
    await binding.act(async () => {
      const { of } = await binding.drawer.deal(pick, "clipboard");
      this.#isEnded = false;
      const { tellsPastes } = await desk.deal(binding.drawer.name);
      await this.changed();
      return [
        tellsPastes
          ? notice(placingNotices, "dealing/clipboard", { of })
          : notice(pageNotices, "dealing/in-turn", { of }),
      ];
    });
  }

  /** The next is put on the clipboard by hand, in place of what is there. */
  next(): Promise<void> {
    return this.skip();
  }

  back(): Promise<void> {
    return this.#move(() => this.binding.drawer.dealReturn());
  }

  skip(): Promise<void> {
    return this.#move(() => this.binding.drawer.dealSkip());
  }

  #move(step: () => Promise<Left>): Promise<void> {
    const { binding, desk } = this;
    return binding.act(async () => {
      await step();
      await desk.deal(binding.drawer.name);
      await this.changed();
      const dealt = await binding.drawer.dealPeek();
      if (!dealt) return [notice(pageNotices, "dealing/done", {})];
      const { number, of, snippet } = dealt;
      return [
        ...dealt.notices,
        notice(placingNotices, "dealing/offered", { number, of, snippet: snippet.entry }),
      ];
    });
  }

  end(): void {
    this.#isEnded = true;
    this.state = undefined;
    void this.binding.act(async () => {
      await this.desk.endDeal();
      return [];
    });
  }

  arrived(): void {
    // On the clipboard it is a paste that brings the next, wherever the user goes.
  }

  /** Reads how far it is: a paste in any program moves it. */
  async changed(): Promise<void> {
    const { drawer } = this.binding;
    try {
      const isHere = !this.#isEnded && (await drawer.dealLeft()).to === "clipboard";
      const state = isHere ? await dealStateOf(drawer) : undefined;
      // One that was over before the window was opened needs no word.
      this.state = state?.next === undefined && !this.state ? undefined : state;
    } catch (error) {
      if (!(error instanceof DrawerError) || error.code !== "nothing") throw error;
      this.state = undefined;
    }
  }
}
