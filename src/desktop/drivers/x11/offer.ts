import type { Event } from "x11";
import { DrawerError } from "../../../content/error.js";
import { desktopErrors } from "../../../messages/en/desktop.js";
import type { Offer, Offered } from "../../desktop.js";
import { OWN, SECRET_HINT } from "../../forms.js";
import type { X11Display } from "./display.js";
import { X11Pastes, type OnPasted } from "./pastes.js";

/** How much goes into a property at once, in bytes; more goes in parts. The smallest server takes 256 KB. */
const PART = 128 * 1024;

/** How long a program may take for the next part, in milliseconds. */
const PATIENCE = 10_000;

/** The targets for text in UTF-8. */
const UTF8_TARGETS = ["UTF8_STRING", "text/plain;charset=utf-8", "TEXT"];

/** Owns a selection and answers those who ask for it (ICCCM 2.2 and 2.6). */
export class X11Offer implements Offer {
  readonly ended: Promise<void>;
  readonly #targets = new Map<number, Uint8Array>();
  readonly #atoms: Atoms;
  readonly #pastes: X11Pastes | undefined;
  #replaced: (() => void) | undefined;

  private constructor(
    readonly display: X11Display,
    readonly selection: number,
    atoms: Atoms,
    readonly since: number,
    pasted: OnPasted | undefined,
  ) {
    this.#atoms = atoms;
    this.#pastes = pasted && new X11Pastes(display, pasted);
    this.ended = new Promise((settle) => {
      const off = display.on((event) => {
        const isOurs = event.selection === selection && event.owner === display.window;
        if (event.name === "SelectionRequest" && isOurs) void this.#answer(event);
        if (event.name === "SelectionClear" && isOurs) end();
      });
      const end = () => {
        off();
        this.#pastes?.end();
        this.#replaced = undefined;
        settle();
      };
      this.#replaced = end;
      void display.gone.then(end);
    });
  }

  /** Ends this offer, because the same program offers something else in its place: the display does not tell of that. */
  replace(): void {
    this.#replaced?.();
  }

  /**
   * Takes a selection over.
   * @throws DrawerError `no-clipboard` when the display does not give it away
   */
  static async take(
    display: X11Display,
    selection: number,
    offered: Offered,
    pasted?: OnPasted,
  ): Promise<X11Offer> {
    const since = await display.now();
    const offer = new X11Offer(display, selection, await atomsOf(display), since, pasted);
    for (const [type, bytes] of offered) offer.#targets.set(await display.atom(type), bytes);
    const text = offered.get("text/plain");
    for (const [target, bytes] of text ? textTargets(text) : []) {
      const atom = await display.atom(target);
      if (!offer.#targets.has(atom)) offer.#targets.set(atom, bytes);
    }
    offer.#targets.set(await display.atom(OWN), new Uint8Array());
    display.own(selection, since);
    if ((await display.owner(selection)) !== display.window)
      throw new DrawerError(desktopErrors, "no-clipboard/kept", {});
    return offer;
  }

  async #answer(request: Event): Promise<void> {
    const { requestor, target } = request;
    // Programs of old name no property, and mean the target (ICCCM 2.2).
    const property = request.property === 0 ? target : request.property;
    const put =
      target === this.#atoms.MULTIPLE
        ? await this.#putMany(requestor, property)
        : this.#put(requestor, property, target);
    this.display.answer(request, put ? property : 0);
    if (put?.content) await this.#pastes?.heard(requestor, put.content);
  }

  /** Several targets at once: pairs of a target and a property (ICCCM 2.6.2). Those that are refused are said so. */
  async #putMany(requestor: number, property: number): Promise<Put | undefined> {
    const asked = await this.display.property(requestor, property);
    if (!asked) return undefined;
    const pairs = Buffer.from(asked.data);
    const contents: Promise<void>[] = [];
    for (let at = 0; at + 8 <= pairs.length; at += 8) {
      const put = this.#put(requestor, pairs.readUInt32LE(at + 4), pairs.readUInt32LE(at));
      if (!put) pairs.writeUInt32LE(0, at + 4);
      else if (put.content) contents.push(put.content);
    }
    this.display.setProperty(requestor, property, this.#atoms.ATOM_PAIR, 32, pairs);
    return contents.length > 0 ? { content: Promise.all(contents).then(() => undefined) } : {};
  }

  /** Puts what stands under a target into a property of who asked; nothing when there is no such target. */
  #put(requestor: number, property: number, target: number): Put | undefined {
    const { display } = this;
    const { TARGETS, TIMESTAMP, MULTIPLE, ATOM, INTEGER, INCR } = this.#atoms;
    if (target === TARGETS) {
      const all = [TARGETS, TIMESTAMP, MULTIPLE, ...this.#targets.keys()];
      display.setProperty(requestor, property, ATOM, 32, words(all));
      return {};
    }
    if (target === TIMESTAMP) {
      display.setProperty(requestor, property, INTEGER, 32, words([this.since]));
      return {};
    }
    const bytes = this.#targets.get(target);
    if (!bytes) return undefined;
    if (bytes.length <= PART) {
      display.setProperty(requestor, property, target, 8, Buffer.from(bytes));
      // What declares a secret, and what is Drawer's own mark, is no content.
      return target === this.#atoms[SECRET_HINT] || target === this.#atoms[OWN]
        ? {}
        : { content: Promise.resolve() };
    }
    display.hearProperties(requestor);
    const content = this.#putParts(requestor, property, target, bytes);
    display.setProperty(requestor, property, INCR, 32, words([bytes.length]));
    return { content };
  }

  /**
   * Puts the next part each time the one before was taken away, and an empty one at the end (ICCCM 2.7.2). Settles when
   * all of it was taken, or the program takes no more.
   */
  async #putParts(requestor: number, property: number, target: number, bytes: Uint8Array): Promise<void> {
    const isTaken = ({ name, state, wid, atom }: Event) =>
      name === "PropertyNotify" && state === 1 && wid === requestor && atom === property;
    for (let at = 0; await this.display.next(isTaken, PATIENCE); at += PART) {
      const part = Buffer.from(bytes.subarray(at, at + PART));
      this.display.setProperty(requestor, property, target, 8, part);
      if (part.length === 0) return;
    }
  }
}

/** What was put for a program: nothing but facts about the offer, or content, which settles when all of it is there. */
interface Put {
  readonly content?: Promise<void>;
}

/** Plain text under the targets by which X11 programs ask for it (ICCCM 2.6.2), besides its media type. */
function textTargets(utf8: Uint8Array): [target: string, bytes: Uint8Array][] {
  const text = new TextDecoder().decode(utf8);
  const latin = new Uint8Array(Buffer.from(text.replace(/[^\0-\xff]/gu, "?"), "latin1"));
  return [...UTF8_TARGETS.map((target) => [target, utf8] as [string, Uint8Array]), ["STRING", latin]];
}

const NAMES = [
  ...(["TARGETS", "TIMESTAMP", "MULTIPLE", "ATOM", "ATOM_PAIR", "INTEGER", "INCR"] as const),
  ...([SECRET_HINT, OWN] as const),
] as const;
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
