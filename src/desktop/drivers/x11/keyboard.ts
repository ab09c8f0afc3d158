import x11, { type Event } from "x11";
import { DrawerError } from "../../../content/error.js";
import { desktopErrors } from "../../../messages/en/desktop.js";
import { chordText, type Chord, type Modifier } from "../../chord.js";
import type { X11Display } from "./display.js";

/** The keys of the keyboard that hold, by what they are called in X11, and the bits of those whose place is fixed. */
const HELD: Readonly<Record<Modifier, string>> = {
  Ctrl: "Control_L",
  Alt: "Alt_L",
  Shift: "Shift_L",
  Super: "Super_L",
};
/** What keys are called in X11 where it is not as Drawer calls them. */
const X11_NAMES: Readonly<Record<string, string>> = {
  Space: "space",
  Enter: "Return",
  ScrollLock: "Scroll_Lock",
  PageUp: "Prior",
  PageDown: "Next",
};
const CAPS_LOCK = 2;
/** How long the user may take to let go of a key, in milliseconds. */
const LETTING_GO = 1000;

/** The keyboard of an X11 display: keys taken in every program, and keys pressed as if a user did (XTEST). */
export class X11Keyboard {
  private constructor(
    readonly display: X11Display,
    /** The key symbols of each key code, from the first. */
    readonly symbols: readonly (readonly number[])[],
    readonly first: number,
    /** The codes of the keys that hold, a row for each of the eight bits. */
    readonly held: readonly (readonly number[])[],
    /** Is told of each key that is pressed here. */
    readonly pressing: ((code: number) => void) | undefined,
  ) {}

  static async open(display: X11Display, pressing?: (code: number) => void): Promise<X11Keyboard> {
    const { first, symbols, held } = await display.keyboard();
    return new X11Keyboard(display, symbols, first, held, pressing);
  }

  /** Takes a key in every program. Returns what gives it back. */
  async take(chord: Chord, pressed: () => void): Promise<() => void> {
    const code = this.#codeOf(chord);
    const bits = chord.modifiers.reduce((all, modifier) => all | this.#bitOf(modifier), 0);
    // A key is the same whether Caps Lock and Num Lock are on or not.
    const numLock = this.#bitOfKey("Num_Lock");
    const masks = new Set([0, CAPS_LOCK, numLock, CAPS_LOCK | numLock].map((lock) => bits | lock));
    const giveBack = () => {
      off();
      for (const mask of masks) this.display.ungrabKey(code, mask);
    };
    let isDown = false;
    const off = this.display.on((event: Event) => {
      if (event.name !== "KeyPress" || event.keycode !== code) return;
      if ((event.buttons & 0xff & ~(CAPS_LOCK | numLock)) !== bits) return;
      this.display.ungrabKeyboard();
      // A key that is held comes again and again; it is pressed once.
      if (isDown) return;
      isDown = true;
      void this.#released(code).finally(() => (isDown = false));
      pressed();
    });
    try {
      for (const mask of masks) await this.display.grabKey(code, mask);
    } catch (error) {
      giveBack();
      throw new DrawerError(desktopErrors, "key-taken", { key: chordText(chord) }, { cause: error });
    }
    return giveBack;
  }

  /** Presses a key in the window in front, once the user has let go of theirs. */
  async press(chord: Chord): Promise<void> {
    const { display } = this;
    const codes = [...chord.modifiers.map((modifier) => this.#code(HELD[modifier])!), this.#codeOf(chord)];
    const until = performance.now() + LETTING_GO;
    while ((await display.pressedKeys()).length > 0 && performance.now() < until)
      await new Promise((next) => setTimeout(next, 10));
    const fake = await display.fakeKeys();
    for (const code of await display.pressedKeys()) fake(code, false);
    for (const code of codes) {
      this.pressing?.(code);
      fake(code, true);
    }
    for (const code of codes.reverse()) fake(code, false);
  }

  /** Settles when a key is up, or the display is gone. */
  async #released(code: number): Promise<void> {
    try {
      while ((await this.display.pressedKeys()).includes(code))
        await new Promise((next) => setTimeout(next, 30));
    } catch (error) {
      if (!(error instanceof DrawerError)) throw error;
    }
  }

  #codeOf(chord: Chord): number {
    const { key } = chord;
    const code = key.length === 1 ? this.#codeOfSign(key) : this.#code(X11_NAMES[key] ?? key);
    if (code === undefined)
      throw new DrawerError(desktopErrors, "bad-key/missing", { key: chordText(chord) });
    return code;
  }

  #code(name: string): number | undefined {
    const symbol = x11.keySyms[`XK_${name}`]?.code;
    return symbol === undefined ? undefined : this.#codeOfSymbol(symbol);
  }

  /** Signs of Latin-1 are their own symbols; those of Unicode stand above 0x1000000 (X11 protocol, appendix A). */
  #codeOfSign(sign: string): number | undefined {
    const point = sign.codePointAt(0)!;
    return this.#codeOfSymbol(point < 0x100 ? point : 0x1000000 + point);
  }

  #codeOfSymbol(symbol: number): number | undefined {
    const at = this.symbols.findIndex((row) => row.includes(symbol));
    return at < 0 ? undefined : this.first + at;
  }

  #bitOf(modifier: Modifier): number {
    return this.#bitOfKey(HELD[modifier]);
  }

  #bitOfKey(name: string): number {
    const code = this.#code(name);
    const row = code === undefined ? -1 : this.held.findIndex((codes) => codes.includes(code));
    return row < 0 ? 0 : 1 << row;
  }
}
