import { defined } from "../../../content/defined.js";
import type { Chord } from "../../chord.js";
import type { Copied, DesktopWindow, Offered, Windows } from "../../desktop.js";
import type { X11Clipboard } from "./clipboard.js";
import type { X11Display } from "./display.js";
import { describeWindow, frontWindow } from "./front-window.js";
import { X11Keyboard } from "./keyboard.js";

/** How long a program may take to copy what is selected, in milliseconds. */
const COPYING = 1000;
/** How long a program may take to begin to paste, in milliseconds. */
const PASTING = 3000;
/** How long the desktop may take to bring a window to the front, in milliseconds. */
const RAISING = 2000;

/** Programs in which Ctrl-C ends what runs: what is selected there is in the selection of the mouse, and goes in from it. */
const TERMINALS = /term|konsole|kitty|alacritty|^foot$|^st-/i;

const COPY: Chord = { modifiers: ["Ctrl"], key: "c" };
const PASTE: Chord = { modifiers: ["Ctrl"], key: "v" };
const PASTE_IN_TERMINAL: Chord = { modifiers: ["Shift"], key: "Insert" };

/** The windows of an X11 display (EWMH), and the keys that their programs know. */
export class X11Windows implements Windows {
  readonly #display: X11Display;

  constructor(
    readonly clipboard: X11Clipboard,
    readonly hold: (offered: Offered) => Promise<void>,
  ) {
    this.#display = clipboard.display;
  }

  front(): Promise<DesktopWindow | undefined> {
    return frontWindow(this.#display);
  }

  async raise({ id, app }: DesktopWindow): Promise<boolean> {
    const display = this.#display;
    // The number of a window that is gone may be that of another by now.
    if ((await describeWindow(display, id)).app !== app) return false;
    const isActive = async () => (await this.front())?.id === id;
    // 2: it is asked for by the user, through a program that stands for the windows (EWMH).
    display.message(id, await display.atom("_NET_ACTIVE_WINDOW"), [2, 0, 0, 0, 0]);
    for (const until = Date.now() + RAISING; Date.now() < until;) {
      if (await isActive()) return true;
      await new Promise((next) => setTimeout(next, 20));
    }
    return false;
  }

  async copy(): Promise<{ copied?: Copied; isRestored: boolean }> {
    if (await this.#isTerminalInFront())
      return { ...defined({ copied: await this.clipboard.readMouseSelection() }), isRestored: true };
    const before = await this.clipboard.everything();
    const keyboard = await X11Keyboard.open(this.#display);
    const copied = await this.clipboard.nextCopy(() => keyboard.press(COPY), COPYING);
    if (!copied) return { isRestored: true };
    await this.#putBack(before.offered);
    return { copied, isRestored: before.isWhole };
  }

  async paste(offered: Offered): Promise<{ isTaken: boolean; isRestored: boolean }> {
    const isTerminal = await this.#isTerminalInFront();
    const before = await this.clipboard.everything();
    let pasted: () => void;
    const taken = new Promise<boolean>((settle) => {
      pasted = () => settle(true);
      setTimeout(() => settle(false), PASTING).unref();
    });
    await this.clipboard.offer(offered, () => pasted());
    if (isTerminal) await this.clipboard.offerToMouse(offered, () => pasted());
    // Its keys may have changed since: the user has chosen another layout, or another keyboard.
    await (await X11Keyboard.open(this.#display)).press(isTerminal ? PASTE_IN_TERMINAL : PASTE);
    if (!(await taken)) return { isTaken: false, isRestored: true };
    await this.#putBack(before.offered);
    return { isTaken: true, isRestored: before.isWhole };
  }

  /** Offers again what was on the clipboard; nothing at all clears it. */
  async #putBack(before: Offered): Promise<void> {
    if (before.size > 0) await this.hold(before);
    else this.clipboard.release();
  }

  async take(chord: Chord, pressed: () => void): Promise<() => void> {
    return (await X11Keyboard.open(this.#display)).take(chord, pressed);
  }

  async #isTerminalInFront(): Promise<boolean> {
    return TERMINALS.test((await this.front())?.app ?? "");
  }
}
