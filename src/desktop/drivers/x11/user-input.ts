import type { Event } from "x11";
import { Listeners } from "../../../messages/core/listeners.js";
import type { X11Display } from "./display.js";

/** Keys and mouse buttons that the user presses anywhere on a display (XInput 2), without those that this program presses. */
export class X11UserInput {
  readonly #listeners = new Listeners<[what: "key" | "button"]>();
  /** Key codes that this program has pressed, and that have not been heard of yet. */
  readonly #own: number[] = [];
  #hearing: Promise<void> | undefined;

  constructor(readonly display: X11Display) {}

  /** Calls `listener` with each. Returns an unsubscribe function. */
  async follow(listener: (what: "key" | "button") => void): Promise<() => void> {
    await (this.#hearing ??= this.#hear());
    return this.#listeners.add(listener);
  }

  /** This program presses a key. */
  readonly pressing = (code: number): void => {
    if (this.#hearing) this.#own.push(code);
  };

  async #hear(): Promise<void> {
    await this.display.hearInput();
    this.display.on(({ name, detail }: Event) => {
      if (name === "XIRawButtonPress") return this.#listeners.call("button");
      if (name !== "XIRawKeyPress") return;
      const at = this.#own.indexOf(detail!);
      if (at < 0) this.#listeners.call("key");
      else this.#own.splice(at, 1);
    });
  }
}
