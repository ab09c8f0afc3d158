import { defined } from "../../content/defined.js";
import type { Chord } from "../chord.js";
import type { Copied, DesktopWindow, Offered, Windows } from "../desktop.js";
import { holdOnClipboard } from "../hold.js";
import type { X11Display } from "./display.js";
import { X11Keyboard } from "./keyboard.js";
import type { X11Desktop } from "./index.js";

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
  constructor(
    readonly desktop: X11Desktop,
    readonly display: X11Display,
  ) {}

  async front(): Promise<DesktopWindow | undefined> {
    const { display } = this;
    const active = await display.property(display.root, await display.atom("_NET_ACTIVE_WINDOW"));
    const id = active && active.data.length >= 4 ? active.data.readUInt32LE(0) : 0;
    return id === 0 ? undefined : this.#windowOf(await this.#owner(id));
  }

  /** The window that a dialog belongs to (ICCCM 4.1.2.6); a window that is none belongs to itself. */
  async #owner(id: number): Promise<number> {
    const { display } = this;
    const said = await display.property(id, await display.atom("WM_TRANSIENT_FOR"));
    const owner = said && said.data.length >= 4 ? said.data.readUInt32LE(0) : 0;
    return owner === 0 || owner === display.root || owner === id ? id : this.#owner(owner);
  }

  /** A window with its program and its title (EWMH; ICCCM 4.1.2.5), as far as they are known. */
  async #windowOf(id: number): Promise<DesktopWindow> {
    const read = async (name: string) =>
      (await this.display.property(id, await this.display.atom(name)))?.data;
    const title =
      (await read("_NET_WM_NAME"))?.toString("utf8") ?? (await read("WM_NAME"))?.toString("latin1");
    // Two names, each ended by a zero: of the instance, and of the program.
    const app = (await read("WM_CLASS"))?.toString("latin1").split("\0")[1];
    return { id, ...defined({ app: app || undefined, title: title?.replace(/\0+$/, "") || undefined }) };
  }

  async raise({ id, app }: DesktopWindow): Promise<boolean> {
    const { display } = this;
    // The number of a window that is gone may be that of another by now.
    if ((await this.#windowOf(id)).app !== app) return false;
    const isActive = async () => (await this.front())?.id === id;
    // 2: it is asked for by the user, through a program that stands for the windows (EWMH).
    display.message(id, await display.atom("_NET_ACTIVE_WINDOW"), [2, 0, 0, 0, 0]);
    for (const until = Date.now() + RAISING; Date.now() < until;) {
      if (await isActive()) return true;
      await new Promise((next) => setTimeout(next, 20));
    }
    return false;
  }

  async copy(): Promise<Copied | undefined> {
    if (await this.#isTerminalInFront()) return this.desktop.readMouseSelection();
    const keyboard = await X11Keyboard.open(this.display);
    return this.desktop.nextCopy(() => keyboard.press(COPY), COPYING);
  }

  async paste(offered: Offered): Promise<boolean> {
    const isTerminal = await this.#isTerminalInFront();
    const before = await this.desktop.everything();
    let pasted: () => void;
    const taken = new Promise<boolean>((settle) => {
      pasted = () => settle(true);
      setTimeout(() => settle(false), PASTING).unref();
    });
    await this.desktop.offer(offered, () => pasted());
    if (isTerminal) await this.desktop.offerToMouse(offered, () => pasted());
    // Its keys may have changed since: the user has chosen another layout, or another keyboard.
    await (await X11Keyboard.open(this.display)).press(isTerminal ? PASTE_IN_TERMINAL : PASTE);
    if (!(await taken)) return false;
    if (before.size > 0) await holdOnClipboard(before);
    else this.desktop.release();
    return true;
  }

  async take(chord: Chord, pressed: () => void): Promise<() => void> {
    return (await X11Keyboard.open(this.display)).take(chord, pressed);
  }

  async #isTerminalInFront(): Promise<boolean> {
    return TERMINALS.test((await this.front())?.app ?? "");
  }
}
