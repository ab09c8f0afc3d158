import { safeLink } from "../../content/address.js";
import { defined } from "../../content/defined.js";
import { hashBytes } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import { decodeText } from "../../formats/text/decode.js";
import {
  type ClipboardEvent,
  type Copied,
  type Desktop,
  type Offer,
  type Offered,
  SECRET_HINT,
} from "../desktop.js";
import { X11Display } from "./display.js";
import { OWN, X11Offer } from "./offer.js";
import { SelectionReader } from "./selection.js";
import { frontWindow } from "./windows.js";

/** The targets under which X11 programs offer each flavour, the best first (ICCCM 2.6.2, freedesktop's shared MIME types). */
const TARGETS = {
  html: ["text/html"],
  tsv: ["text/tab-separated-values"],
  text: ["UTF8_STRING", "text/plain;charset=utf-8", "text/plain", "STRING"],
  picture: ["image/png", "image/jpeg"],
  address: ["chromium/x-source-url", "text/x-moz-url-priv"],
} as const;

/** How long a clipboard must stay as it is before it is read, in milliseconds: some programs set it twice for one copy. */
const SETTLED = 120;
/** Within this time the same copy is the same act, in milliseconds. */
const SAME_ACT = 1000;

/** The desktop of an X11 display (Wayland desktops have one too, as XWayland), spoken to directly. */
export class X11Desktop implements Desktop {
  readonly #reader: SelectionReader;

  private constructor(
    readonly display: X11Display,
    readonly clipboard: number,
  ) {
    this.#reader = new SelectionReader(display, clipboard);
  }

  /** @throws DrawerError `no-clipboard` when the display lets nobody in */
  static async open(): Promise<X11Desktop> {
    const display = await X11Display.open();
    return new X11Desktop(display, await display.atom("CLIPBOARD"));
  }

  async read(): Promise<Copied> {
    const targets = await this.#reader.targets();
    if (targets.length === 0) throw new DrawerError("no-clipboard/empty", {});
    return this.#copied(targets, await frontWindow(this.display));
  }

  async #copied(offered: readonly string[], origin: Copied["origin"]): Promise<Copied> {
    const read = async (targets: readonly string[]) => {
      const target = targets.find((each) => offered.includes(each));
      return target === undefined ? undefined : this.#reader.read(target);
    };
    const html = await read(TARGETS.html);
    const tsv = await read(TARGETS.tsv);
    const text = await read(TARGETS.text);
    const picture = await read(TARGETS.picture);
    const address = addressOf(await read(TARGETS.address));
    const hint = offered.includes(SECRET_HINT) ? await this.#reader.read(SECRET_HINT) : undefined;
    const secret = hint !== undefined && decodeText(hint).trim() === "secret";
    return {
      ...(secret && { secret }),
      ...(html && { html: decodeText(html, "html") }),
      ...(tsv && { tsv: decodeText(tsv) }),
      ...(text && { text: decodeText(text) }),
      ...(picture && { picture }),
      origin: { ...origin, ...defined({ address }) },
    };
  }

  async watch(listener: (event: ClipboardEvent) => void): Promise<() => void> {
    await this.display.hearOwners(this.clipboard);
    let timer: NodeJS.Timeout | undefined;
    let last: { hash: string; at: number } | undefined;
    let reading: Promise<void> = Promise.resolve();
    const tell = async (origin: Promise<Copied["origin"]>): Promise<void> => {
      try {
        const targets = await this.#reader.targets();
        if (targets.length === 0 || targets.includes(OWN)) return;
        const copied = await this.#copied(targets, await origin);
        const hash = hashOf(copied);
        const isSameAct = last?.hash === hash && Date.now() - last.at < SAME_ACT;
        last = { hash, at: Date.now() };
        if (!isSameAct) listener({ type: "copied", copied });
      } catch (error) {
        if (!(error instanceof DrawerError)) throw error;
        if (error.reason !== "no-clipboard/gone") listener({ type: "unread", error });
      }
    };
    const off = this.display.on(({ name, selection, subtype, owner }) => {
      if (name !== "SelectionNotify" || subtype === undefined || selection !== this.clipboard) return;
      clearTimeout(timer);
      if (owner === 0 || owner === this.display.window) return;
      // The window in front is asked for at once: the next moment another may be there.
      const origin = frontWindow(this.display);
      timer = setTimeout(() => (reading = reading.then(() => tell(origin))), SETTLED);
    });
    void this.display.gone.then(() => {
      clearTimeout(timer);
      off();
      listener({ type: "ended" });
    });
    return () => {
      clearTimeout(timer);
      off();
    };
  }

  offer(offered: Offered): Promise<Offer> {
    return X11Offer.take(this.display, this.clipboard, offered);
  }

  close(): void {
    this.display.close();
  }
}

/** The address of the page that something was copied from, as browsers say it: the one in UTF-8, the other in UTF-16. */
function addressOf(bytes: Uint8Array | undefined): string | undefined {
  if (!bytes) return undefined;
  const text = new TextDecoder(bytes.includes(0) ? "utf-16le" : "utf-8").decode(bytes);
  return safeLink(text.replace(/\0+$/, "").split("\n")[0]!.trim());
}

function hashOf({ html = "", tsv = "", text = "", picture }: Copied): string {
  return hashBytes(
    new TextEncoder().encode(JSON.stringify([html, tsv, text, picture && hashBytes(picture)])),
  );
}
