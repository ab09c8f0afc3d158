import { defined } from "../../../content/defined.js";
import { DrawerError } from "../../../content/error.js";
import type { Chord } from "../../chord.js";
import type { Copied, DesktopWindow, Offered, Pasted, Windows } from "../../desktop.js";
import type { X11Clipboard } from "./clipboard.js";
import type { X11Display } from "./display.js";
import { activeWindow, describeWindow, frontWindow } from "./front-window.js";
import { X11Keyboard } from "./keyboard.js";
import { X11UserInput } from "./user-input.js";

/** How long a program may take to copy what is selected, in milliseconds. */
const COPYING = 1000;
/** Programs that keep the list of forms of what was copied for some seconds, whatever is offered since. */
const KEEPS_LIST = /^libreoffice|^soffice/i;
/** How long they keep it, in milliseconds: they count in seconds whether more than two have passed. */
const LIST_KEPT = 3100;
/** How long a program may take to begin to paste, in milliseconds. */
const PASTING = 10_000;
/** How long the desktop may take to bring a window to the front, in milliseconds. */
const RAISING = 2000;
/** How long a program is given to give the keyboard to what had it in its window before, in milliseconds. */
const SETTLING = 150;

const COPY: Chord = { modifiers: ["Ctrl"], key: "c" };
const PASTE: Chord = { modifiers: ["Ctrl"], key: "v" };
const PASTE_IN_TERMINAL: Chord = { modifiers: ["Shift"], key: "Insert" };

const pause = (milliseconds: number) => new Promise<void>((next) => setTimeout(next, milliseconds));

/** The windows of an X11 display (EWMH), and the keys that their programs know. */
export class X11Windows implements Windows {
  readonly #display: X11Display;
  readonly #input: X11UserInput;
  /** What was on the clipboard before something was pasted, until it is put back. */
  #before: Awaited<ReturnType<X11Clipboard["everything"]>> | undefined;
  /** The forms of what was pasted last, while it is on the clipboard. */
  #forms = "";

  constructor(
    readonly clipboard: X11Clipboard,
    readonly hold: (offered: Offered) => Promise<void>,
  ) {
    this.#display = clipboard.display;
    this.#input = new X11UserInput(this.#display);
  }

  front(): Promise<DesktopWindow | undefined> {
    return frontWindow(this.#display);
  }

  async raise(window: DesktopWindow): Promise<boolean> {
    const display = this.#display;
    const { id } = window;
    if (!(await this.describe(window))) return false;
    const isActive = async () => (await this.front())?.id === id;
    if (await isActive()) return true;
    // 2: it is asked for by the user, through a program that stands for the windows (EWMH).
    display.message(id, await display.atom("_NET_ACTIVE_WINDOW"), [2, 0, 0, 0, 0]);
    for (const until = performance.now() + RAISING; performance.now() < until;) {
      if (await isActive()) {
        await pause(SETTLING);
        return true;
      }
      await pause(20);
    }
    return false;
  }

  async copy(): Promise<{ copied?: Copied; isRestored: boolean }> {
    if ((await this.front())?.isTerminal)
      return { ...defined({ copied: await this.clipboard.readMouseSelection() }), isRestored: true };
    const before = await this.clipboard.everything();
    const copied = await this.clipboard.nextCopy(() => this.press(COPY), COPYING);
    if (!copied) return { isRestored: true };
    await this.#putBack(before.offered);
    return { copied, isRestored: before.isWhole };
  }

  async paste(series: readonly Offered[], between?: Chord): Promise<Pasted> {
    // What another program has copied since the last paste is what is put back after this one.
    if (!(await this.clipboard.isOwn())) this.#before = undefined;
    this.#before ??= await this.clipboard.everything();
    const front = (await this.front()) ?? { id: 0 };
    const window = await activeWindow(this.#display);
    let hasPressed = false;
    // A single paste is done before anybody could stop it.
    const off = series.length > 1 ? await this.followInput(() => (hasPressed = true)) : undefined;
    try {
      for (const [taken, offered] of series.entries()) {
        if (hasPressed) return { taken, stopped: "key" };
        if (taken > 0) {
          if ((await activeWindow(this.#display)) !== window) return { taken, stopped: "window" };
          if (between) await this.press(between);
        }
        if (!(await this.#pasteOne(offered, front, window))) {
          // It stays, to be pasted by hand.
          this.#before = undefined;
          return { taken, stopped: "not-taken" };
        }
      }
      return { taken: series.length };
    } finally {
      off?.();
    }
  }

  /** Pastes something at the caret of the window in front, while that is the active one. Returns whether its program has taken it. */
  async #pasteOne(
    offered: Offered,
    { app = "", isTerminal }: DesktopWindow,
    window: number,
  ): Promise<boolean> {
    const forms = [...offered.keys()].sort().join();
    // It may have looked at what was there before at any time until now.
    const isOld = KEEPS_LIST.test(app) && !(forms === this.#forms && (await this.clipboard.isOwn()));
    this.#forms = forms;
    let isTaken: () => void;
    const taken = new Promise<true>((settle) => (isTaken = () => settle(true)));
    // A program in front may look at a new offer by itself: it pastes what it takes after its keys were pressed.
    let pressedAt = Infinity;
    const pasted = (askedAt: number) => {
      if (askedAt >= pressedAt) isTaken();
    };
    await this.clipboard.offer(offered, pasted);
    if (isTerminal) await this.clipboard.offerToMouse(offered, pasted);
    if (isOld) await pause(LIST_KEPT);
    // Who has gone elsewhere meanwhile gets nothing pasted there.
    if ((await activeWindow(this.#display)) !== window) return false;
    pressedAt = performance.now();
    await this.press(isTerminal ? PASTE_IN_TERMINAL : PASTE);
    const late = new Promise<false>((settle) => setTimeout(() => settle(false), PASTING).unref());
    return Promise.race([taken, late]);
  }

  async putBack(): Promise<boolean> {
    const before = this.#before;
    this.#before = undefined;
    if (!before || !(await this.clipboard.isOwn())) return true;
    await this.#putBack(before.offered);
    return before.isWhole;
  }

  async press(chord: Chord): Promise<void> {
    // Its keys may have changed since: the user has chosen another layout, or another keyboard.
    await (await X11Keyboard.open(this.#display, this.#input.pressing)).press(chord);
  }

  followInput(listener: (what: "key" | "button") => void): Promise<() => void> {
    return this.#input.follow(listener);
  }

  async follow(listener: (front: DesktopWindow | undefined) => void): Promise<() => void> {
    const display = this.#display;
    const name = await display.atom("_NET_ACTIVE_WINDOW");
    display.hearProperties(display.root);
    const tell = async () => listener(await this.front());
    const off = display.on(({ name: event, atom, wid }) => {
      if (event === "PropertyNotify" && wid === display.root && atom === name) void tell().catch(ignoreGone);
    });
    await tell();
    return off;
  }

  async describe({ id, app, process }: DesktopWindow): Promise<DesktopWindow | undefined> {
    const now = await describeWindow(this.#display, id);
    // The number of a window that is gone may be that of another by now. Programs name a window, and themselves, after it has come.
    const isSame = process === undefined ? app === undefined || now.app === app : now.process === process;
    return isSame && now.title !== undefined ? now : undefined;
  }

  /** Offers again what was on the clipboard; nothing at all clears it. */
  async #putBack(before: Offered): Promise<void> {
    this.#forms = "";
    if (before.size > 0) await this.hold(before);
    else this.clipboard.release();
  }

  async take(chord: Chord, pressed: () => void): Promise<() => void> {
    return (await X11Keyboard.open(this.#display)).take(chord, pressed);
  }
}

/** A display that is gone has no window in front, and its watchers hear of it. */
function ignoreGone(error: unknown): void {
  if (!(error instanceof DrawerError)) throw error;
}
