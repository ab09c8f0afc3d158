import pLimit from "p-limit";
import { defined } from "../../../content/defined.js";
import { DrawerError } from "../../../content/error.js";
import { Listeners } from "../../../messages/core/listeners.js";
import { desktopErrors } from "../../../messages/en/desktop.js";
import type { ClipboardEvent, Copied, Offer, Offered } from "../../desktop.js";
import { copiedOf, OWN, readForms, Repeats } from "../../forms.js";
import type { X11Display } from "./display.js";
import { frontWindow } from "./front-window.js";
import { X11Offer } from "./offer.js";
import type { OnPasted } from "./pastes.js";
import { SelectionReader } from "./selection-reader.js";

/** Targets under which no content stands (ICCCM 2.6.2). */
const NO_CONTENT = ["TARGETS", "TIMESTAMP", "MULTIPLE", "SAVE_TARGETS", "DELETE", "INSERT_SELECTION", OWN];

/** How long a clipboard must stay as it is before it is read, in milliseconds: some programs set it twice for one copy. */
const SETTLED = 20;
/** How long what is offered may take to be read whole, to be put back later, in milliseconds. */
const READING = 1000;

/** The selections of an X11 display that hold what was copied, and what the mouse has selected (ICCCM 2). */
export class X11Clipboard {
  readonly #reader: SelectionReader;
  readonly #offers = new Map<number, X11Offer>();
  #watching: Promise<void> | undefined;
  readonly #listeners = new Listeners<[event: ClipboardEvent]>();
  readonly #repeats = new Repeats();
  /** Who has caused the next copy, and gets it. */
  #claim: ((copied: Copied) => void) | undefined;

  private constructor(
    readonly display: X11Display,
    readonly clipboard: number,
    /** The selection that the mouse makes. */
    readonly primary: number,
  ) {
    this.#reader = new SelectionReader(display, clipboard);
  }

  static async of(display: X11Display): Promise<X11Clipboard> {
    return new X11Clipboard(display, await display.atom("CLIPBOARD"), await display.atom("PRIMARY"));
  }

  async read(): Promise<Copied> {
    const targets = await this.#reader.targets();
    if (targets.length === 0) throw new DrawerError(desktopErrors, "no-clipboard/empty", {});
    return copiedOf(await formsOf(this.#reader, targets), await this.#origin());
  }

  /** What is selected by the mouse; nothing when nothing is. */
  async readMouseSelection(): Promise<Copied | undefined> {
    const reader = new SelectionReader(this.display, this.primary);
    const targets = await reader.targets();
    return targets.length === 0 ? undefined : copiedOf(await formsOf(reader, targets), await this.#origin());
  }

  /** What is offered on the clipboard, to be put back later, and whether that is all of it: a second is given to read it. */
  async everything(): Promise<{ readonly offered: Offered; readonly isWhole: boolean }> {
    const offered = new Map<string, Uint8Array>();
    const until = performance.now() + READING;
    try {
      for (const target of await this.#reader.targets()) {
        if (performance.now() > until) return { offered, isWhole: false };
        if (NO_CONTENT.includes(target)) continue;
        const bytes = await this.#reader.read(target);
        if (bytes) offered.set(target, bytes);
      }
      return { offered, isWhole: true };
    } catch (error) {
      // A program that does not answer, or offers more than there is room for, keeps nobody from working.
      if (error instanceof DrawerError) return { offered, isWhole: false };
      throw error;
    }
  }

  async watch(listener: (event: ClipboardEvent) => void): Promise<() => void> {
    await (this.#watching ??= this.#beginWatching());
    return this.#listeners.add(listener);
  }

  /** Reads each copy once, whoever listens. */
  async #beginWatching(): Promise<void> {
    const { display, clipboard } = this;
    let timer: NodeJS.Timeout | undefined;
    const inTurn = pLimit(1);
    let changes = 0;
    display.on(({ name, selection, subtype, owner }) => {
      if (name !== "SelectionNotify" || subtype === undefined || selection !== clipboard) return;
      clearTimeout(timer);
      const change = ++changes;
      if (owner === 0 || owner === display.window) return;
      // The window in front is asked for at once: the next moment another may be there.
      const origin = this.#origin();
      const isThere = () => change === changes;
      timer = setTimeout(() => void inTurn(() => this.#readCopy(origin, isThere)), SETTLED);
    });
    void display.gone.then(() => {
      clearTimeout(timer);
      this.#listeners.call({ type: "ended" });
    });
    await display.hearOwners(clipboard);
  }

  /** @param isThere whether it is still what the clipboard holds; what was read of it before the next one came is taken */
  async #readCopy(origin: Promise<Copied["origin"]>, isThere: () => boolean): Promise<void> {
    try {
      const targets = isThere() ? await this.#reader.targets() : undefined;
      if (targets && isThere() && (targets.length === 0 || targets.includes(OWN))) return;
      const forms = await formsOf(this.#reader, targets ?? [], isThere);
      if (forms.size === 0 && !isThere()) throw new DrawerError(desktopErrors, "no-clipboard/missed", {});
      const copied = copiedOf(forms, await origin);
      const isRepeat = this.#repeats.isRepeat(copied);
      if (this.#claim) this.#claim(copied);
      else if (!isRepeat) this.#listeners.call({ type: "copied", copied });
    } catch (error) {
      if (!(error instanceof DrawerError)) throw error;
      if (error.reason !== "no-clipboard/gone") this.#listeners.call({ type: "unread", error });
    }
  }

  /** Whether what is on the clipboard is what was offered here last. */
  async isOwn(): Promise<boolean> {
    return (await this.display.owner(this.clipboard)) === this.display.window;
  }

  /** What is copied next by an act of this program, which is told to nobody else; nothing when nothing is. */
  async nextCopy(act: () => Promise<void>, within: number): Promise<Copied | undefined> {
    await (this.#watching ??= this.#beginWatching());
    let timer: NodeJS.Timeout | undefined;
    try {
      return await new Promise<Copied | undefined>((resolve, reject) => {
        this.#claim = resolve;
        act().catch(reject);
        timer = setTimeout(() => resolve(undefined), within);
      });
    } finally {
      clearTimeout(timer);
      this.#claim = undefined;
    }
  }

  async offer(offered: Offered, pasted?: OnPasted): Promise<Offer> {
    if (offered.size === 0) {
      if ((await this.#reader.targets()).includes(OWN)) this.release();
      return { ended: Promise.resolve() };
    }
    return this.#offerAs(this.clipboard, offered, pasted);
  }

  /** Offers something as what the mouse has selected too, from where terminals paste. */
  offerToMouse(offered: Offered, pasted: OnPasted): Promise<Offer> {
    return this.#offerAs(this.primary, offered, pasted);
  }

  async #offerAs(selection: number, offered: Offered, pasted?: OnPasted): Promise<Offer> {
    this.#offers.get(selection)?.replace();
    const offer = await X11Offer.take(this.display, selection, offered, pasted);
    this.#offers.set(selection, offer);
    return offer;
  }

  /** Offers nothing any more. */
  release(): void {
    for (const offer of this.#offers.values()) offer.replace();
    for (const selection of [this.clipboard, ...this.#offers.keys()]) this.display.disown(selection);
    this.#offers.clear();
  }

  async #origin(): Promise<Copied["origin"]> {
    const window = await frontWindow(this.display);
    return defined({ app: window?.app, title: window?.title });
  }
}

/**
 * Reads the forms that Drawer knows, of those that are offered.
 * @param isThere whether the same is still offered: what is read after that is of something else, and left out
 */
function formsOf(
  reader: SelectionReader,
  offered: readonly string[],
  isThere: () => boolean = () => true,
): Promise<ReadonlyMap<string, Uint8Array>> {
  return readForms(offered, async (form) => {
    const bytes = isThere() ? await reader.read(form) : undefined;
    return isThere() ? bytes : undefined;
  });
}
