import { DrawerError } from "../content/error.js";
import type { Origin } from "../content/origin.js";
import type { Flavours } from "../formats/flavours.js";

/** What a program has copied to the clipboard of a desktop. */
export interface Copied extends Flavours {
  /** The program, its window's title, and the page's address, as far as they are known. */
  readonly origin: Origin;
}

/** What is heard of a clipboard that is watched. */
export type ClipboardEvent =
  | { readonly type: "copied"; readonly copied: Copied }
  /** A program has copied something that could not be read: it hangs, has ended, or offers more than there is room for. */
  | { readonly type: "unread"; readonly error: DrawerError }
  /** The desktop is gone; nothing follows. */
  | { readonly type: "ended" };

/** What is offered to other programs: the bytes of each form, by its media type, the best form first. */
export type Offered = ReadonlyMap<string, Uint8Array>;

/**
 * The form by which programs that hold passwords declare that what they offer is one, so that no history keeps it; its
 * content is `secret`.
 */
export const SECRET_HINT = "x-kde-passwordManagerHint";

/** Something that is offered on the clipboard. */
export interface Offer {
  /** Settles when it is offered no more: another program has copied something, or the desktop is gone. */
  readonly ended: Promise<void>;
}

/** A desktop's clipboard and windows, whatever the system. */
export interface Desktop {
  /**
   * Reads what was copied last, in all flavours that Drawer knows.
   * @throws DrawerError `no-clipboard` when it is empty, or its program does not give it
   */
  read(): Promise<Copied>;
  /**
   * Tells of each copy that is made from now on, but for what Drawer itself offers. Returns a function that ends it.
   * @throws DrawerError `no-clipboard` when the desktop does not tell of copies
   */
  watch(listener: (event: ClipboardEvent) => void): Promise<() => void>;
  /**
   * Offers something on the clipboard, for as long as this program runs and no other copies something.
   * @throws DrawerError `no-clipboard` when the desktop does not give the clipboard away
   */
  offer(offered: Offered): Promise<Offer>;
  /** Lets go of the desktop. What was offered is offered no more. */
  close(): void;
}

/**
 * The desktop that this program runs on.
 * @throws DrawerError `no-clipboard` where there is none that Drawer reaches
 */
export async function openDesktop(): Promise<Desktop> {
  if (process.platform !== "linux" || !process.env["DISPLAY"]) throw new DrawerError("no-clipboard", {});
  const { X11Desktop } = await import("./x11/index.js");
  return X11Desktop.open();
}
