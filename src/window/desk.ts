import { DrawerError, refusalOf, type Refusal } from "../content/error.js";
import { desktopErrors } from "../messages/en/errors/desktop.js";
import { notice, type Notice } from "../content/notice.js";
import type { Desktop, Offered } from "../desktop/desktop.js";
import { incomingOf } from "../desktop/incoming.js";
import { Drawer } from "../drawer/drawer.js";
import type { Incoming } from "../drawer/incoming.js";
import type { Store } from "../drawer/store.js";
import { placingNotices } from "../messages/en/notices/placing.js";

/** What the window does with the desktop, by whatever started it. */
export interface DeskWork {
  /** Reaches the desktop. */
  readonly open: () => Promise<Desktop>;
  /** Leaves something on the clipboard, also when the window has gone. */
  readonly hold: (offered: Offered) => Promise<void>;
  /** Hands out the deal of a drawer on the clipboard, also when the window has gone. */
  readonly deal: (drawer: string) => Promise<void>;
  /** Whether another program collects for a drawer what is copied: its copies are left to it. */
  readonly isWatched: (drawer: string) => Promise<boolean>;
}

/** What the pages of the window are told. */
export interface DeskNews {
  /** What was done, as a notice is told. */
  readonly notices: readonly Notice[];
  /** Why something was not. */
  readonly refused?: Refusal;
  /** Whether copies are heard, and why not. */
  readonly hearing?: Hearing;
  /** Where they go now. */
  readonly into?: CollectInto;
}

/** Whether what is copied on the desktop is heard of, and whether another program collects it here; if not, why. */
export type Hearing =
  { readonly isHearing: true; readonly isWatched: boolean } | ({ readonly isHearing: false } & Refusal);

const deaf = (error: DrawerError): Hearing => ({ isHearing: false, ...refusalOf(error) });

/** How often what is due in the drawer is done, in milliseconds: what is private goes soon. */
const RETENTION = 15_000;

/** Where what is copied goes. */
export interface CollectInto {
  readonly drawer: string;
  /** Onto the latest snippet instead of as one of its own. */
  readonly appends: boolean;
}

/** The desktop as the window has it: what is copied there is collected, and blocks go onto its clipboard. */
export class Desk {
  #into: CollectInto;
  hearing: Hearing = deaf(new DrawerError(desktopErrors, "no-clipboard", {}));
  readonly #listeners = new Set<(news: DeskNews) => void>();
  #desktop: Desktop | undefined;
  #timer: NodeJS.Timeout | undefined;
  /** Copies are collected in their turn. */
  #turn: Promise<void> = Promise.resolve();

  constructor(
    readonly store: Store,
    drawer: string,
    readonly work: DeskWork,
    readonly failed: (error: unknown) => void,
  ) {
    this.#into = { drawer, appends: false };
  }

  /** Begins to hear what is copied. Where that cannot be heard, the pages say so. */
  async begin(): Promise<void> {
    this.#timer = setInterval(() => {
      this.#inTurn(() => this.#drawer.applyRetention());
      this.#inTurn(() => this.#lookForWatch());
    }, RETENTION);
    try {
      this.#desktop = await this.work.open();
      await this.#desktop.watch((event) => {
        if (event.type === "ended") this.#hear(deaf(new DrawerError(desktopErrors, "no-clipboard/gone", {})));
        else
          this.#inTurn(async () => {
            if (event.type === "unread") throw event.error;
            return this.#collect(await incomingOf(event.copied));
          });
      });
      this.#hear({ isHearing: true, isWatched: false });
      await this.#lookForWatch();
    } catch (error) {
      if (!(error instanceof DrawerError)) throw error;
      this.#hear(deaf(error));
    }
  }

  /** Where what is copied goes: as the page says that was asked last. */
  get into(): CollectInto {
    return this.#into;
  }

  set into(into: CollectInto) {
    this.#into = into;
    this.#tell({ notices: [], into });
    this.#inTurn(() => this.#lookForWatch());
  }

  get #drawer(): Drawer {
    return new Drawer(this.store, this.into.drawer);
  }

  #hear(hearing: Hearing): void {
    this.hearing = hearing;
    this.#tell({ notices: [], hearing });
  }

  /** Sees whether another program collects into this drawer what is copied, and tells the pages when that has changed. */
  async #lookForWatch(): Promise<readonly Notice[]> {
    const { hearing } = this;
    if (!hearing.isHearing) return [];
    const isWatched = await this.work.isWatched(this.into.drawer);
    if (isWatched !== hearing.isWatched) this.#hear({ isHearing: true, isWatched });
    return [];
  }

  async #collect(incoming: Incoming): Promise<readonly Notice[]> {
    const drawer = this.#drawer;
    await this.#lookForWatch();
    if (this.hearing.isHearing && this.hearing.isWatched) return [];
    // While it is paused the window says so; each copy that is left alone needs no word.
    if (!(await drawer.rules()).collecting) return [];
    const isAppended = this.into.appends && (await drawer.count()) > 0;
    return (await (isAppended ? drawer.append([incoming]) : drawer.collect([incoming]))).notices;
  }

  #inTurn(act: () => Promise<readonly Notice[]>): void {
    this.#turn = this.#turn.then(async () => {
      try {
        const notices = await act();
        if (notices.length > 0) this.#tell({ notices });
      } catch (error) {
        if (!(error instanceof DrawerError)) return this.failed(error);
        this.#tell({ notices: [], refused: refusalOf(error) });
      }
    });
  }

  #tell(news: DeskNews): void {
    for (const listener of this.#listeners) listener(news);
  }

  /** Calls `listener` with what the pages are to be told. Returns an unsubscribe function. */
  listen(listener: (news: DeskNews) => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /**
   * Puts a block on the clipboard, where it stays.
   * @throws DrawerError `no-clipboard`
   */
  async copy(offered: Offered, isPrivate: boolean): Promise<readonly Notice[]> {
    await this.work.hold(offered);
    return isPrivate && this.#desktop?.declaresSecrets === false
      ? [notice(placingNotices, "placed/not-secret", {})]
      : [];
  }

  /**
   * Hands out the deal of a drawer on the clipboard, or, when it was gone on with by hand, what is next now.
   * @throws DrawerError `no-clipboard`
   */
  async deal(drawer: string): Promise<{ readonly tellsPastes: boolean }> {
    await this.work.deal(drawer);
    return { tellsPastes: this.#desktop?.tellsPastes ?? false };
  }

  /** Takes off the clipboard what is dealt there. */
  async endDeal(): Promise<void> {
    await this.#desktop?.offer(new Map());
  }

  /** Lets go of the desktop. */
  async end(): Promise<void> {
    clearInterval(this.#timer);
    this.#desktop?.close();
    await this.#turn;
  }
}
