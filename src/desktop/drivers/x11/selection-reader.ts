import pLimit from "p-limit";
import type { Event } from "x11";
import { DrawerError } from "../../../content/error.js";
import { LIMITS } from "../../../content/limits.js";
import { desktopErrors } from "../../../messages/en/desktop.js";
import type { X11Display } from "./display.js";

/** How long a program that owns the clipboard may say nothing, in milliseconds. */
const PATIENCE = 2000;

/** Reads selections as other programs offer them (ICCCM 2.4 and 2.7). One target is asked for at a time. */
export class SelectionReader {
  readonly #inTurn = pLimit(1);

  constructor(
    readonly display: X11Display,
    readonly selection: number,
  ) {}

  /** The names of the targets that are offered; none when nobody offers anything. */
  async targets(): Promise<string[]> {
    if ((await this.display.owner(this.selection)) === 0) return [];
    const bytes = await this.read("TARGETS");
    const atoms = Array.from({ length: Math.floor((bytes?.length ?? 0) / 4) }, (_, at) =>
      Buffer.from(bytes!).readUInt32LE(at * 4),
    );
    return Promise.all(atoms.map((atom) => this.display.atomName(atom)));
  }

  /**
   * What stands under a target, whole; nothing when it is refused.
   * @throws DrawerError `no-clipboard` when the program that owns it says nothing for two seconds, `too-large`
   */
  read(target: string): Promise<Uint8Array | undefined> {
    return this.#inTurn(() => this.#read(target));
  }

  async #read(target: string): Promise<Uint8Array | undefined> {
    const { display, selection } = this;
    const { window } = display;
    const [name, property, incremental] = await Promise.all(
      [target, "DRAWER_SELECTION", "INCR"].map((each) => display.atom(each)),
    );
    display.deleteProperty(window, property!);
    const answered = display.next(
      (event) => event.name === "SelectionNotify" && event.requestor === window && event.target === name,
      PATIENCE,
    );
    display.convert(selection, name!, property!, await display.now());
    const answer = await answered;
    if (!answer) throw silent();
    if (answer.property === 0) return undefined;
    const whole = await display.property(window, property!);
    if (!whole) return undefined;
    if (whole.type !== incremental) {
      display.deleteProperty(window, property!);
      return bounded(whole.data);
    }
    return this.#readParts(property!);
  }

  /** What comes in parts, each put where the last one was taken away, up to an empty one (ICCCM 2.7.2). */
  async #readParts(property: number): Promise<Uint8Array> {
    const { display } = this;
    const { window } = display;
    const chunks: Buffer[] = [];
    let length = 0;
    const isNext = (event: Event) =>
      event.name === "PropertyNotify" && event.wid === window && event.atom === property && event.state === 0;
    for (;;) {
      const came = display.next(isNext, PATIENCE);
      display.deleteProperty(window, property);
      if (!(await came)) throw silent();
      const part = await display.property(window, property);
      if (!part) throw silent();
      if (part.data.length === 0) {
        display.deleteProperty(window, property);
        return bounded(Buffer.concat(chunks));
      }
      chunks.push(part.data);
      length += part.data.length;
      if (length > LIMITS.bytes) throw tooLarge();
    }
  }
}

function bounded(bytes: Buffer): Uint8Array {
  if (bytes.length > LIMITS.bytes) throw tooLarge();
  return new Uint8Array(bytes);
}

function silent(): DrawerError {
  return new DrawerError(desktopErrors, "no-clipboard/silent", {});
}

function tooLarge(): DrawerError {
  return new DrawerError(desktopErrors, "too-large/clipboard", { most: LIMITS.bytes });
}
