import type { DrawerError } from "../content/error.js";
import type { Origin } from "../content/origin.js";
import type { Flavours } from "../formats/flavours.js";
import type { Chord } from "./chord.js";

/** What a program has copied to the clipboard of a desktop. */
export interface Copied extends Flavours {
  /** The same as a document (ODF), where the HTML only names its pictures. */
  readonly document?: Uint8Array;
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

/** Something that is offered on the clipboard. */
export interface Offer {
  /** Settles when it is offered no more: another program has copied something, or the desktop is gone. */
  readonly ended: Promise<void>;
}

/** A window of a program. */
export interface DesktopWindow {
  /** What the system knows it by. */
  readonly id: number;
  /** The program. */
  readonly app?: string;
  readonly title?: string;
  /** The number of the process that shows it, where it is known. */
  readonly process?: number;
  /** Whether it is a terminal, which runs each line that is pasted. */
  readonly isTerminal?: boolean;
}

/** How pasting one thing after another went. */
export interface Pasted {
  /** How many the program has taken. */
  readonly taken: number;
  /** Why not all: it did not take the next, the user has pressed a key, or another window has come to the front. */
  readonly stopped?: "not-taken" | "key" | "window";
  /** Whether it is only believed that they were taken, as the desktop does not tell. */
  readonly isUnsure?: boolean;
}

/** A desktop's clipboard and windows, whatever the system. */
export interface Desktop {
  /** Whether what is offered stays when this program ends; else another has to hold it. */
  readonly keepsOffers: boolean;
  /** Whether it tells of pastes; else `pasted` is never called. */
  readonly tellsPastes: boolean;
  /** Whether something that is offered can be declared a secret, so that histories leave it out. */
  readonly declaresSecrets: boolean;
  /** The windows of other programs, where the system lets a program do something with them. */
  readonly windows?: Windows;
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
   * Offers something on the clipboard, until another program copies something. Nothing at all takes off what Drawer offers.
   * @param pasted is called each time when a program has taken it to paste it, and not only looked at what is there
   * @throws DrawerError `no-clipboard` when the desktop does not give the clipboard away
   */
  offer(offered: Offered, pasted?: () => void): Promise<Offer>;
  /** Shows a sentence by the desktop's notifications. Settles when it was handed over. */
  notify(text: string): Promise<void>;
  /** Lets go of the desktop. */
  close(): void;
}

/** What a desktop lets a program do with the windows of others. */
export interface Windows {
  /** The window that the user works in; nothing when there is none, or the desktop does not say. */
  front(): Promise<DesktopWindow | undefined>;
  /** Brings a window to the front. Returns whether it is there. */
  raise(window: DesktopWindow): Promise<boolean>;
  /**
   * Copies what is selected in the window in front, as its own key does, where the desktop tells of copies at once; and puts back what was on the clipboard before; nothing
   * is copied when nothing is selected. It is not told to those who watch. `isRestored` is false when the clipboard holds less
   * than before, or nothing.
   */
  copy?(): Promise<{ readonly copied?: Copied; readonly isRestored: boolean }>;
  /**
   * Pastes things, one after another, at the caret of the window in front, as its own key does. The first that the program does
   * not take ends it. What was pasted last stays on the clipboard while this program runs, or until {@link Windows.putBack}.
   * @param between a key that is pressed after each but the last, once the program has taken it
   */
  paste(offered: readonly Offered[], between?: Chord): Promise<Pasted>;
  /**
   * Puts back what was on the clipboard before the first paste since this was done last, unless another program has copied
   * something since, or the last paste was not taken. Returns false when the clipboard holds less than before, or nothing.
   */
  putBack(): Promise<boolean>;
  /** Presses a key in the window in front. */
  press(key: Chord): Promise<void>;
  /** Calls `listener` with the window in front now, and whenever another comes there. Returns an unsubscribe function. */
  follow(listener: (front: DesktopWindow | undefined) => void): Promise<() => void>;
  /** A window as it is called now; nothing when it is gone. */
  describe(window: DesktopWindow): Promise<DesktopWindow | undefined>;
  /**
   * Calls `listener` when the user presses a key, or a button of the mouse; keys that this program presses are not told. Returns
   * an unsubscribe function.
   */
  followInput(listener: (what: "key" | "button") => void): Promise<() => void>;
  /**
   * Takes a key in every program, where the desktop lets a program do so. Returns what gives it back.
   * @throws DrawerError `key-taken`, `bad-key` when the keyboard has no such key
   */
  take?(key: Chord, pressed: () => void): Promise<() => void>;
}
