import { Drawer } from "../../drawer/drawer.js";
import type { HostDesktop } from "./host-desktop.js";

/** What a bound drawer needs of the binding that it belongs to. */
export interface BoundDrawerHost {
  readonly desktop: HostDesktop | undefined;
  /** Is called when the drawer has changed, or is another one, and its rules have been read. */
  readonly changed: () => Promise<void>;
  readonly failed: (error: unknown) => void;
}

/** The drawer that a page works with: which it is, whether it collects, and how. */
export class BoundDrawer {
  #drawer: Drawer;
  #stopWatching: () => void = () => undefined;
  #collecting = true;
  #appends = false;

  constructor(
    drawer: Drawer,
    readonly host: BoundDrawerHost,
  ) {
    this.#drawer = drawer;
  }

  get current(): Drawer {
    return this.#drawer;
  }

  /** Whether what is copied is collected: the drawer's rule, as last read. */
  get collecting(): boolean {
    return this.#collecting;
  }

  /** Whether what is copied is added to the latest snippet instead of being one of its own. */
  get appends(): boolean {
    return this.#appends;
  }

  set appends(appends: boolean) {
    this.#appends = appends;
    this.#collectInto();
  }

  /** Follows what becomes of the drawer. */
  follow(): void {
    this.#stopWatching();
    this.#collectInto();
    void this.#changed();
    this.#stopWatching = this.#drawer.watch(() => void this.#changed());
  }

  /** Works with another drawer of the same store from now on. Settles when its rules have been read. */
  async open(name: string): Promise<void> {
    this.#drawer = new Drawer(this.#drawer.store, name);
    this.follow();
    await this.#readRules();
  }

  /** Follows it no more. */
  end(): void {
    this.#stopWatching();
  }

  /** Tells the desktop where what is copied there is to go. */
  #collectInto(): void {
    void this.host.desktop
      ?.collectInto(this.#drawer.name, this.#appends)
      .catch((error: unknown) => this.host.failed(error));
  }

  async #changed(): Promise<void> {
    try {
      await this.#readRules();
      await this.host.changed();
    } catch (error) {
      this.host.failed(error);
    }
  }

  async #readRules(): Promise<void> {
    this.#collecting = (await this.#drawer.rules()).collecting;
  }
}
