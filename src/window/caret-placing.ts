import pLimit from "p-limit";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import type { Chord } from "../desktop/chord.js";
import type { Desktop, DesktopWindow, Offered, Pasted, Windows } from "../desktop/desktop.js";
import { cliNotices } from "../messages/en/cli.js";
import { pageErrors, pageNotices } from "../messages/en/page.js";
import type { CaretPlace, DesktopTarget, HostDesktop } from "../page/binding/host-desktop.js";
import { FrontWindows } from "./front-windows.js";

/** What a page asks to be put at the caret of the window that the user came from: one block; or several, each by itself. */
export interface CaretRequest extends CaretPlace {
  readonly offered: readonly Offered[];
}

/** What is told of how it went. */
export type CaretPlaced = Awaited<ReturnType<HostDesktop["placeAtCaret"]>>;

/**
 * When nothing more is placed for so long, what was on the clipboard before is put back, in milliseconds: not between one and
 * the next, where programs would have to hear of both.
 */
const PUTTING_BACK = 1500;

const UNDO: Chord = { modifiers: ["Ctrl"], key: "z" };

/** What each reason to stop is told by. */
const STOPPED = {
  key: "stopped/key",
  window: "stopped/window",
  "not-taken": "stopped/not-taken",
} as const satisfies Record<NonNullable<Pasted["stopped"]>, string>;

/** Puts blocks at the caret of the window that the user came from, and takes them back there. */
export class CaretPlacing {
  readonly #fronts: FrontWindows;
  /** How many blocks can be taken back, and where they are; none once anything else was done there. */
  #placed: { readonly window: DesktopWindow; count: number } | undefined;
  /** Whether this program is at work in another window, so that what happens there is its own doing. */
  #isPlacing = false;
  readonly #inTurn = pLimit(1);
  #puttingBack: NodeJS.Timeout | undefined;
  #stop: (() => void)[] = [];

  /**
   * @param on a desktop, one whose windows a program may do something with
   * @param hears `changed` is called when it would be another window, `pasted` when something was pasted in the window in front;
   * `told` is what is told later
   */
  constructor(
    readonly on: { readonly desktop: Desktop; readonly windows: Windows },
    readonly hears: {
      readonly changed: () => void;
      readonly pasted: (desktop: Desktop) => Promise<void>;
      readonly told: (notices: readonly Notice[]) => void;
      readonly failed: (error: unknown) => void;
    },
  ) {
    this.#fronts = new FrontWindows(on.windows, hears.changed);
  }

  /** Begins to follow the user. */
  async begin(): Promise<void> {
    const { windows } = this.on;
    this.#stop = [
      await this.#fronts.begin(),
      await windows.followInput(() => {
        const { id } = this.#placed?.window ?? {};
        if (!this.#isPlacing && id !== undefined && this.#fronts.front?.id === id) this.#placed = undefined;
      }),
    ];
  }

  /** Follows the user no more, and leaves the clipboard as it was. */
  async end(): Promise<void> {
    for (const stop of this.#stop.splice(0)) stop();
    clearTimeout(this.#puttingBack);
    try {
      await this.#inTurn(() => this.#putBack());
    } catch (error) {
      // With the desktop its clipboard is gone.
      if (!(error instanceof DrawerError)) throw error;
    }
  }

  async #putBack(): Promise<void> {
    if (!(await this.on.windows.putBack())) this.hears.told([notice(cliNotices, "not-restored", {})]);
  }

  /** Where a block would go; nothing while the user was nowhere else. */
  get target(): DesktopTarget | undefined {
    const { target } = this.#fronts;
    return target && { id: target.id, name: nameOf(target), isTerminal: target.isTerminal === true };
  }

  /** A page of Drawer's with this title has got the focus. */
  noteOwn(title: string): Promise<void> {
    return this.#fronts.noteOwn(title);
  }

  /** Brings the window that shows a page of Drawer's to the front. Returns whether it is there. */
  async showOwn(): Promise<boolean> {
    const { own } = this.#fronts;
    if (!own) return false;
    const isThere = await this.on.windows.raise(own);
    if (!isThere) this.#fronts.forget(own);
    return isThere;
  }

  /**
   * Puts blocks at the caret of the window that the user came from.
   * @throws DrawerError `not-placed` when that is another one by now, is gone, or did not take the first
   */
  place({ offered, target, returns, between }: CaretRequest): Promise<CaretPlaced> {
    return this.#visit(target, returns, async (window) => {
      const { windows } = this.on;
      const { taken, stopped, isUnsure } = await windows.paste(
        offered,
        between && { modifiers: [], key: between },
      );
      const name = nameOf(window);
      if (taken === 0) throw new DrawerError(pageErrors, "not-placed/not-taken", { name });
      await this.hears.pasted(this.on.desktop);
      const before = this.#placed?.window.id === window.id ? this.#placed.count : 0;
      // Between several the user's program has been told to go on: that is no one step of its undo.
      this.#placed = offered.length === 1 ? { window, count: before + 1 } : undefined;
      const facts = { taken, of: offered.length, name };
      return {
        taken,
        notices: stopped ? [notice(pageNotices, STOPPED[stopped], facts)] : [],
        ...(isUnsure && { isUnsure }),
      };
    });
  }

  /**
   * Has the program take back what was placed last, by its own undo.
   * @throws DrawerError `nothing` when something else was done there since, `not-placed` when the window is gone
   */
  async takeBack({ target, returns }: Pick<CaretPlace, "target" | "returns">): Promise<void> {
    const window = this.#placed?.window;
    if (!window || window.id !== target || window.isTerminal)
      throw new DrawerError(pageErrors, "nothing/changed-there", { name: this.#nameAt(target) });
    await this.#visit(window.id, returns, async () => {
      await this.on.windows.press(UNDO);
      const { count } = this.#placed!;
      this.#placed = count > 1 ? { window, count: count - 1 } : undefined;
    });
  }

  #nameAt(id: number): string {
    const { target } = this.#fronts;
    return target?.id === id ? nameOf(target) : "";
  }

  /** Goes to the window that the user came from, does something there, and comes back if that is wanted. */
  #visit<Result>(
    id: number,
    returns: boolean,
    act: (window: DesktopWindow) => Promise<Result>,
  ): Promise<Result> {
    return this.#inTurn(async () => {
      const { windows } = this.on;
      const { target } = this.#fronts;
      if (target?.id !== id) throw new DrawerError(pageErrors, "not-placed/elsewhere", {});
      const from = await windows.front();
      clearTimeout(this.#puttingBack);
      this.#isPlacing = true;
      try {
        if (!(await windows.raise(target))) {
          if (!(await windows.describe(target))) this.#fronts.forget(target);
          throw new DrawerError(pageErrors, "not-placed/window-gone", { name: nameOf(target) });
        }
        return await act(target);
      } finally {
        if (returns && from && this.#fronts.isOwn(from)) await windows.raise(from);
        this.#isPlacing = false;
        this.#puttingBack = setTimeout(
          () => void this.#inTurn(() => this.#putBack()).catch(this.hears.failed),
          PUTTING_BACK,
        );
      }
    });
  }
}

/** What a window is called: its title without the program's name at the end, or the program. */
function nameOf({ title = "", app = "" }: DesktopWindow): string {
  return title.replace(/\s+[-–—]\s+[^-–—]+$/u, "") || app;
}
