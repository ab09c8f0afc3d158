import type { Event } from "x11";
import { DrawerError } from "../../content/error.js";
import type { Offer, Offered } from "../desktop.js";
import type { X11Display } from "./display.js";

/** How much goes into a property at once, in bytes; more goes in parts. The smallest server takes 256 KB. */
const PART = 128 * 1024;

/** The targets under which programs ask for plain text (ICCCM 2.6.2), besides its media type. */
const TEXT_TARGETS = ["UTF8_STRING", "text/plain;charset=utf-8", "text/plain", "TEXT"];

/** The target by which Drawer knows what it has offered itself. */
export const OWN = "application/x-drawer-block";

/** Owns a selection and answers those who ask for it (ICCCM 2.2 and 2.6). */
export class X11Offer implements Offer {
  readonly ended: Promise<void>;
  readonly #targets = new Map<number, Uint8Array>();
  readonly #atoms: Atoms;

  private constructor(
    readonly display: X11Display,
    readonly selection: number,
    atoms: Atoms,
    readonly since: number,
  ) {
    this.#atoms = atoms;
    this.ended = new Promise((settle) => {
      const off = display.on((event) => {
        const isOurs = event.selection === selection && event.owner === display.window;
        if (event.name === "SelectionRequest" && isOurs) void this.#answer(event);
        if (event.name === "SelectionClear" && isOurs) {
          off();
          settle();
        }
      });
      void display.gone.then(settle);
    });
  }

  /**
   * Takes a selection over.
   * @throws DrawerError `no-clipboard` when the display does not give it away
   */
  static async take(display: X11Display, selection: number, offered: Offered): Promise<X11Offer> {
    const since = await display.now();
    const offer = new X11Offer(display, selection, await atomsOf(display), since);
    for (const [type, bytes] of offered) {
      offer.#targets.set(await display.atom(type), bytes);
      if (type !== "text/plain") continue;
      for (const target of TEXT_TARGETS) offer.#targets.set(await display.atom(target), bytes);
      const latin = Buffer.from(Buffer.from(bytes).toString("utf8"), "latin1");
      offer.#targets.set(await display.atom("STRING"), new Uint8Array(latin));
    }
    offer.#targets.set(await display.atom(OWN), new Uint8Array());
    display.own(selection, since);
    if ((await display.owner(selection)) !== display.window) throw new DrawerError("no-clipboard/kept", {});
    return offer;
  }

  async #answer(request: Event): Promise<void> {
    // Programs of old name no property, and mean the target (ICCCM 2.2).
    const property = request.property === 0 ? request.target : request.property;
    const isDone =
      request.target === this.#atoms.MULTIPLE
        ? await this.#putMany(request.requestor, property)
        : this.#put(request.requestor, property, request.target);
    this.display.answer(request, isDone ? property : 0);
  }

  /** Several targets at once: pairs of a target and a property (ICCCM 2.6.2). Those that are refused are said so. */
  async #putMany(requestor: number, property: number): Promise<boolean> {
    const asked = await this.display.property(requestor, property);
    if (!asked) return false;
    const pairs = Buffer.from(asked.data);
    for (let at = 0; at + 8 <= pairs.length; at += 8) {
      const isPut = this.#put(requestor, pairs.readUInt32LE(at + 4), pairs.readUInt32LE(at));
      if (!isPut) pairs.writeUInt32LE(0, at + 4);
    }
    this.display.setProperty(requestor, property, this.#atoms.ATOM_PAIR, 32, pairs);
    return true;
  }

  /** Puts what stands under a target into a property of who asked. Returns whether there is such a target. */
  #put(requestor: number, property: number, target: number): boolean {
    const { display } = this;
    const { TARGETS, TIMESTAMP, MULTIPLE, ATOM, INTEGER, INCR } = this.#atoms;
    if (target === TARGETS) {
      const all = [TARGETS, TIMESTAMP, MULTIPLE, ...this.#targets.keys()];
      display.setProperty(requestor, property, ATOM, 32, words(all));
      return true;
    }
    if (target === TIMESTAMP) {
      display.setProperty(requestor, property, INTEGER, 32, words([this.since]));
      return true;
    }
    const bytes = this.#targets.get(target);
    if (!bytes) return false;
    if (bytes.length <= PART) display.setProperty(requestor, property, target, 8, Buffer.from(bytes));
    else {
      display.hearProperties(requestor);
      this.#putParts(requestor, property, target, bytes);
      display.setProperty(requestor, property, INCR, 32, words([bytes.length]));
    }
    return true;
  }

  /** Puts the next part each time the one before was taken away, and an empty one at the end (ICCCM 2.7.2). */
  #putParts(requestor: number, property: number, target: number, bytes: Uint8Array): void {
    let at = 0;
    const off = this.display.on((event) => {
      const isTaken = event.name === "PropertyNotify" && event.state === 1;
      if (!isTaken || event.wid !== requestor || event.atom !== property) return;
      const part = Buffer.from(bytes.subarray(at, at + PART));
      at += part.length;
      this.display.setProperty(requestor, property, target, 8, part);
      if (part.length === 0) off();
    });
  }
}

const NAMES = ["TARGETS", "TIMESTAMP", "MULTIPLE", "ATOM", "ATOM_PAIR", "INTEGER", "INCR"] as const;
type Atoms = Readonly<Record<(typeof NAMES)[number], number>>;

async function atomsOf(display: X11Display): Promise<Atoms> {
  const pairs = await Promise.all(NAMES.map(async (name) => [name, await display.atom(name)] as const));
  return Object.fromEntries(pairs) as Record<(typeof NAMES)[number], number>;
}

function words(numbers: readonly number[]): Buffer {
  const bytes = Buffer.alloc(numbers.length * 4);
  numbers.forEach((number, at) => bytes.writeUInt32LE(number >>> 0, at * 4));
  return bytes;
}
