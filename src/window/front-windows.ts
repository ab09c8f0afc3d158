import type { DesktopWindow, Windows } from "../desktop/desktop.js";

/** How many windows are remembered. */
const MOST = 16;

/** The windows that the user was in, so that a block goes into the one that they came from to a page of Drawer's. */
export class FrontWindows {
  /** The window in front; nothing when there is none. */
  front: DesktopWindow | undefined;
  /** The latest first. */
  #seen: DesktopWindow[] = [];
  /** Windows that show a page of Drawer's. */
  readonly #own = new Set<number>();

  /** @param changed is called when the user has come from another window than before, or it is called otherwise */
  constructor(
    readonly windows: Windows,
    readonly changed: () => void,
  ) {}

  /** The window that the user came from; nothing when they were in none. */
  get target(): DesktopWindow | undefined {
    return this.#seen.find(({ id }) => !this.#own.has(id));
  }

  /** The window that shows a page of Drawer's, the one that was in front last; nothing when none was. */
  get own(): DesktopWindow | undefined {
    return this.#seen.find(({ id }) => this.#own.has(id));
  }

  /** Whether a window shows a page of Drawer's. */
  isOwn(window: DesktopWindow | undefined): boolean {
    return window !== undefined && this.#own.has(window.id);
  }

  /** Follows the user from window to window. Returns what ends it. */
  begin(): Promise<() => void> {
    return this.windows.follow((front) => {
      this.front = front;
      if (front) void this.#enter(front);
    });
  }

  /** A page of Drawer's with this title has got the focus. Whatever window is in front by now, and is called so, shows it. */
  async noteOwn(title: string): Promise<void> {
    const front = await this.windows.front();
    if (!front?.title?.includes(title) || this.#own.has(front.id)) return;
    this.#own.add(front.id);
    this.changed();
  }

  /** A window is gone. */
  forget(window: DesktopWindow): void {
    this.#seen = this.#seen.filter(({ id }) => id !== window.id);
    this.#own.delete(window.id);
    this.changed();
  }

  async #enter(front: DesktopWindow): Promise<void> {
    const before = this.target;
    this.#seen = [front, ...this.#seen.filter(({ id }) => id !== front.id)].slice(0, MOST);
    // What one came from may have been closed, or saved under another name, since it came to the front.
    const now = before && (await this.windows.describe(before));
    this.#seen = this.#seen.flatMap((each) => (each.id !== before?.id ? [each] : now ? [now] : []));
    this.changed();
  }
}
