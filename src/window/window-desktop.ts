import { encodeContent, hashBytes } from "../content/encode.js";
import { DrawerError, refusalOf, type Refusal } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import type { Copied, Desktop, Offered } from "../desktop/desktop.js";
import { NeverFrom } from "../desktop/never-from.js";
import { incomingOf } from "../desktop/to-incoming.js";
import { CollectingSession, type ActionResult } from "../drawer/collecting-session.js";
import { Drawer } from "../drawer/drawer.js";
import { contentHash, type Incoming } from "../drawer/incoming.js";
import type { Collected } from "../drawer/operations/collect.js";
import type { Store } from "../drawer/store.js";
import { Listeners } from "../messages/core/listeners.js";
import { cliErrors } from "../messages/en/cli.js";
import { desktopErrors } from "../messages/en/desktop.js";
import { drawerNotices } from "../messages/en/drawer.js";
import type { ComputerSettings, DesktopTarget } from "../page/binding/host-desktop.js";
import { CaretPlacing } from "./caret-placing.js";

/** How the window reaches the desktop; whoever starts it says. */
export interface DesktopAccess {
  /** Reaches the desktop. */
  readonly open: () => Promise<Desktop>;
  /** Leaves something on the clipboard, also when the window has gone. */
  readonly hold: (offered: Offered) => Promise<void>;
  /** Hands out the deal of a drawer on the clipboard, also when the window has gone. */
  readonly deal: (drawer: string) => Promise<void>;
  /** Notes the window in front as the one in which was pasted last. */
  readonly notePasted: (desktop: Desktop) => Promise<void>;
  /** Takes the user's own keys, in every program. Returns what gives them back. */
  readonly takeKeys?: (keys: KeyedDesktop) => () => void;
  /** What the user can set on this computer. */
  readonly settings: ComputerSettings;
  /** Whether another program collects for a drawer what is copied: its copies are left to it. */
  readonly isWatched: (drawer: string) => Promise<boolean>;
}

/** What the user's own keys work with. */
export interface KeyedDesktop {
  readonly desktop: Desktop;
  /** The drawer in which is collected now. */
  readonly drawer: () => Drawer;
  /** Does something in its turn, and tells the pages how it went. */
  readonly act: (action: () => Promise<readonly Notice[] | ActionResult>) => void;
  /** Collects what was copied: as a snippet of its own, or onto the end of the latest. */
  readonly collect: (copied: Copied, isAppend: boolean) => Promise<Collected>;
}

/** What the pages of the window are told. */
export interface WindowNews {
  /** What was done. */
  readonly notices: readonly Notice[];
  /** Why something was not. */
  readonly refused?: Refusal;
  /** Whether copies are heard, and why not. */
  readonly listening?: ListeningState;
  /** Where they go now. */
  readonly into?: CollectInto;
  /** That the window was brought to the front. */
  readonly isShown?: boolean;
  /** Where a block would go, on a desktop that lets a program put it there; nothing while the user was nowhere else. */
  readonly caret?: { readonly target?: DesktopTarget };
}

/** Whether what is copied on the desktop is heard of, and whether another program collects it here; if not, why. */
export type ListeningState =
  { readonly isListening: true; readonly isWatched: boolean } | ({ readonly isListening: false } & Refusal);

const notListening = (error: DrawerError): ListeningState => ({ isListening: false, ...refusalOf(error) });

/** How often it is looked whether another program collects here, in milliseconds. */
const LOOKING = 15_000;

/** Where what is copied goes. */
export interface CollectInto {
  readonly drawer: string;
  /** Onto the latest snippet instead of as one of its own. */
  readonly appends: boolean;
}

/** The desktop as the window has it: what is copied there is collected, and blocks go onto its clipboard. */
export class WindowDesktop {
  readonly #neverFrom = new NeverFrom();
  #into: CollectInto;
  listening: ListeningState = notListening(new DrawerError(desktopErrors, "no-clipboard", {}));
  readonly #listeners = new Listeners<[news: WindowNews]>();
  readonly #session: CollectingSession;
  readonly #looking: NodeJS.Timeout;
  #desktop: Desktop | undefined;
  #caret: CaretPlacing | undefined;
  /** Why nothing can be put at the caret of another program, where the desktop should let one. */
  noCaret: Refusal | undefined;
  #giveKeysBack: (() => void) | undefined;

  constructor(
    readonly store: Store,
    drawer: string,
    readonly access: DesktopAccess,
    readonly failed: (error: unknown) => void,
  ) {
    this.#into = { drawer, appends: false };
    this.#session = new CollectingSession({
      drawer: () => new Drawer(store, this.#into.drawer),
      report: ({ notices, error }) =>
        this.#listeners.call({ notices, ...(error && { refused: refusalOf(error) }) }),
      fail: failed,
    });
    this.#looking = setInterval(() => this.#inTurn(() => this.#lookForWatch()), LOOKING);
  }

  /** Begins to hear what is copied. Where that cannot be heard, the pages say so. */
  async begin(): Promise<void> {
    try {
      this.#desktop = await this.access.open();
      await this.#desktop.watch((event) => {
        if (event.type === "ended")
          this.#setListening(notListening(new DrawerError(desktopErrors, "no-clipboard/gone", {})));
        else {
          // Whose copy it is, is asked at once: when its turn comes the other program may have ended.
          const { drawer } = this.into;
          const isWatched = this.access.isWatched(drawer);
          this.#inTurn(async () => {
            const wasWatched = this.listening.isListening && this.listening.isWatched;
            this.#setWatched(await isWatched);
            if (event.type === "unread") throw event.error;
            if (await isWatched) return [];
            const refused = await this.#neverFrom.refusal(new Drawer(this.store, drawer), event.copied);
            if (refused) return refused;
            const incoming = await incomingOf(event.copied);
            // What a watch had collected before it ended may be heard of here after that.
            return wasWatched && (await this.#isLatest(drawer, incoming)) ? [] : this.#collect(incoming);
          });
        }
      });
      this.#setListening({ isListening: true, isWatched: false });
      await this.#followCaret(this.#desktop);
      this.#takeKeys(this.#desktop);
      await this.#lookForWatch();
    } catch (error) {
      if (!(error instanceof DrawerError)) throw error;
      this.#setListening(notListening(error));
    }
  }

  /** Follows the user from window to window, on a desktop where blocks can be put at the caret that they came from. */
  async #followCaret(desktop: Desktop): Promise<void> {
    const { windows } = desktop;
    if (!windows) return;
    this.#caret = new CaretPlacing(
      { desktop, windows },
      {
        changed: () => this.#listeners.call({ notices: [], ...this.caret }),
        pasted: this.access.notePasted,
        told: (notices) => this.#listeners.call({ notices }),
        failed: this.failed,
      },
    );
    try {
      await this.#caret.begin();
    } catch (error) {
      // Where the user has not given leave for it, blocks are copied.
      if (!(error instanceof DrawerError)) throw error;
      this.#caret = undefined;
      this.noCaret = refusalOf(error);
    }
  }

  #takeKeys(desktop: Desktop): void {
    this.#giveKeysBack = this.access.takeKeys?.({
      desktop,
      drawer: () => new Drawer(this.store, this.into.drawer),
      act: (action) => this.#inTurn(action),
      collect: async (copied, isAppend) => {
        const refused = await this.#neverFrom.refusal(new Drawer(this.store, this.into.drawer), copied);
        if (refused) return { collected: [], notices: refused };
        return this.#session.collect([await incomingOf(copied)], isAppend ? {} : undefined);
      },
    });
  }

  /** Brings a page of the window to the front. Returns whether one is there. */
  async showOwn(): Promise<boolean> {
    const isShown = (await this.#caret?.showOwn()) ?? false;
    if (isShown) this.#listeners.call({ notices: [], isShown });
    return isShown;
  }

  /** A page of the window with this title has got the focus. */
  async noteOwn(title: string): Promise<void> {
    await this.#caret?.noteOwn(title);
  }

  /** What the pages are told of where a block would go. */
  get caret(): Pick<WindowNews, "caret"> {
    const target = this.#caret?.target;
    return this.#caret ? { caret: target ? { target } : {} } : {};
  }

  /**
   * What puts blocks at the caret of other programs.
   * @throws DrawerError `no-windows` where the desktop lets no program do so
   */
  get caretPlacing(): CaretPlacing {
    if (!this.#caret) throw new DrawerError(cliErrors, "no-windows", {});
    return this.#caret;
  }

  /** Where what is copied goes: as the page says that was asked last. */
  get into(): CollectInto {
    return this.#into;
  }

  set into(into: CollectInto) {
    this.#into = into;
    this.#listeners.call({ notices: [], into });
    this.#inTurn(() => this.#lookForWatch());
  }

  #setListening(listening: ListeningState): void {
    this.listening = listening;
    this.#listeners.call({ notices: [], listening });
  }

  /** Sees whether another program collects into this drawer what is copied, and tells the pages when that has changed. */
  async #lookForWatch(): Promise<readonly Notice[]> {
    if (this.listening.isListening) this.#setWatched(await this.access.isWatched(this.into.drawer));
    return [];
  }

  #setWatched(isWatched: boolean): void {
    const { listening } = this;
    if (listening.isListening && listening.isWatched !== isWatched)
      this.#setListening({ isListening: true, isWatched });
  }

  /** Whether something says what came into a drawer last. */
  async #isLatest(drawer: string, { content }: Incoming): Promise<boolean> {
    const [latest] = await this.store.entries({ drawer, last: 1 });
    if (!latest) return false;
    const last = latest.entry.parts?.at(-1) ?? latest.entry;
    return (await contentHash(this.store, last)) === hashBytes(encodeContent(content));
  }

  async #collect(incoming: Incoming): Promise<readonly Notice[]> {
    // While it is paused the window says so; each copy that is left alone needs no word.
    if (!(await new Drawer(this.store, this.into.drawer).rules()).collecting) return [];
    return (await this.#session.collect([incoming], this.into.appends ? {} : undefined)).notices;
  }

  #inTurn(action: () => Promise<readonly Notice[] | ActionResult>): void {
    this.#session.act(action).catch(this.failed);
  }

  /** Calls `listener` with what the pages are to be told. Returns an unsubscribe function. */
  listen(listener: (news: WindowNews) => void): () => void {
    return this.#listeners.add(listener);
  }

  /**
   * Puts a block on the clipboard, where it stays.
   * @throws DrawerError `no-clipboard`
   */
  async copy(offered: Offered, isPrivate: boolean): Promise<readonly Notice[]> {
    await this.access.hold(offered);
    return isPrivate && this.#desktop?.declaresSecrets === false
      ? [notice(drawerNotices, "placed/not-secret", {})]
      : [];
  }

  /**
   * Hands out the deal of a drawer on the clipboard, or, when it was gone on with by hand, what is next now.
   * @throws DrawerError `no-clipboard`
   */
  async deal(drawer: string): Promise<{ readonly tellsPastes: boolean }> {
    await this.access.deal(drawer);
    return { tellsPastes: this.#desktop?.tellsPastes ?? false };
  }

  /** Takes off the clipboard what is dealt there. */
  async endDeal(): Promise<void> {
    await this.#desktop?.offer(new Map());
  }

  /** Lets go of the desktop. */
  async end(): Promise<void> {
    clearInterval(this.#looking);
    this.#giveKeysBack?.();
    await this.#caret?.end();
    this.#desktop?.close();
    await this.#session.close();
  }
}
