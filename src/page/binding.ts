import type { Block } from "../compose/block.js";
import type { Fit } from "../compose/recipe.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { readFlavours, type Flavours } from "../formats/flavours.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Origin } from "../drawer/model/entry.js";
import { domAdapter } from "./dom-adapter.js";
import { PlaceTracker } from "./last-place.js";
import { nameOf } from "./places/name.js";
import type { Place, Placing } from "./places/place.js";
import { LiveRegion } from "./live-region.js";
import { readSelection, readTransfer } from "./selection.js";

/** How a page is bound. */
export interface BindOptions {
  /** Tells where something came from, by the element in which it was copied; without it, the page's own title and address. */
  readonly origin?: (element: Element) => Origin;
  /** Is called before a block is placed, so that a page can bring the place into sight. */
  readonly reveal?: (place: Element) => void;
  /** Tells what one can place in, where Drawer does not know it: an editor of the page's own, for an element of it. */
  readonly placeIn?: (element: Element) => Place | undefined;
}

/** What a binding tells its listeners: what was done, or why it could not be. */
export interface ActionResult {
  readonly notices: readonly Notice[];
  readonly error?: DrawerError;
}

/** How often what is due is done while the page is open, in milliseconds. */
const RETENTION_INTERVAL = 15_000;

/**
 * A page bound to a drawer: while collecting is on, what is copied or cut on the page is collected too; and blocks are
 * placed at the caret where the user last wrote. Every act is said aloud and told to listeners.
 */
export class Binding {
  /** Whether what is copied is collected: the drawer's rule, as last read. */
  #collecting = true;
  readonly #liveRegion = new LiveRegion();
  readonly #stop = new AbortController();
  readonly #listeners = new Set<(told: ActionResult) => void>();
  readonly #moved = new Set<() => void>();
  readonly #tracker: PlaceTracker;
  /** What was placed last, and how it was called. */
  #placed: { readonly placing: Placing; readonly what: string } | undefined;

  constructor(
    readonly drawer: Drawer,
    readonly options: BindOptions = {},
  ) {
    const { signal } = this.#stop;
    const stopWatching = drawer.watch(() => void this.#readRules());
    const retention = setInterval(() => void this.#applyRetention(), RETENTION_INTERVAL);
    signal.addEventListener("abort", () => {
      stopWatching();
      clearInterval(retention);
    });
    void this.#readRules();
    void this.#applyRetention();
    document.addEventListener("copy", (event) => this.#copied(event), { signal });
    document.addEventListener("cut", (event) => this.#copied(event), { signal });
    this.#tracker = new PlaceTracker({
      placeIn: options.placeIn,
      ignore: (path) => path.some((element) => (element as Partial<Element>).localName === "snippet-drawer"),
      changed: () => this.#moved.forEach((moved) => moved()),
      signal,
    });
  }

  /** Whether what is copied is collected. */
  get collecting(): boolean {
    return this.#collecting;
  }

  async #readRules(): Promise<void> {
    this.#collecting = (await this.drawer.rules()).collecting;
  }

  /** Does what is due by the rules: what is private goes after its time, what is old after its. */
  async #applyRetention(): Promise<void> {
    try {
      this.#tell({ notices: await this.drawer.applyRetention() });
    } catch (error) {
      // It is tried again soon; the user is not kept from anything by it.
      const why = error instanceof Error ? error.message : String(error);
      this.#tell({ notices: [notice("waits", { why })] });
    }
  }

  /** Where the next block would be placed; nothing before the user was anywhere, or where nothing can be placed. */
  get target(): Place | undefined {
    return this.#tracker.last?.place;
  }

  /** What the place where the user was last is called; nothing before they were anywhere. */
  get targetName(): string | undefined {
    const { last } = this.#tracker;
    return last && nameOf(last.element);
  }

  /** Calls `moved` each time when the user is in another place. Returns an unsubscribe function. */
  follow(moved: () => void): () => void {
    this.#moved.add(moved);
    return () => this.#moved.delete(moved);
  }

  /** An editor that prepares its own copy has put it in the event by now; otherwise the selection is read. */
  #copied(event: ClipboardEvent): void {
    if (!this.#collecting || !(event.target instanceof Node)) return;
    const own = event.defaultPrevented && event.clipboardData ? readTransfer(event.clipboardData) : undefined;
    const flavours = own?.html || own?.text ? own : readSelection();
    const element = event.target instanceof Element ? event.target : event.target.parentElement;
    if (flavours && element) void this.collect(flavours, this.#origin(this.#selectedElement() ?? element));
  }

  #selectedElement(): Element | undefined {
    const node = document.getSelection()?.anchorNode;
    return (node instanceof Element ? node : node?.parentElement) ?? undefined;
  }

  #origin(element: Element): Origin {
    return this.options.origin?.(element) ?? { title: document.title, address: location.href };
  }

  /** Collects flavours from anywhere, such as a paste or a drop into the drawer. */
  async collect(flavours: Flavours, origin: Origin = {}): Promise<void> {
    await this.act(async () => {
      const { secret, ...others } = flavours;
      const reading = await readFlavours(others, { adapter: domAdapter });
      const { notices } = await this.drawer.collect([
        { ...reading, origin, ...(secret && { private: true }) },
      ]);
      return notices;
    });
  }

  /**
   * Places a block where the user last wrote.
   *
   * @param make makes the block for what the place can hold
   * @param what how the block is called when it is said that it was placed
   */
  async place(make: (fit: Fit) => Promise<Block>, what: string): Promise<void> {
    await this.act(async () => {
      const { last } = this.#tracker;
      if (!last) throw new DrawerError("nothing/target", {});
      const { element, place, caret } = last;
      if (!place) throw new DrawerError("not-placed/kind", { place: nameOf(element) });
      const block = await make(place.fit);
      this.options.reveal?.(element);
      this.#placed = { placing: await place.put(block, caret), what };
      return [...block.notices, notice("placed/page", { what })];
    });
  }

  /** Takes back what was placed last, where it was placed. */
  async takeBack(): Promise<void> {
    await this.act(async () => {
      if (!this.#placed) throw new DrawerError("nothing/placed", {});
      const { placing, what } = this.#placed;
      this.#placed = undefined;
      if (!(await placing.takeBack())) throw new DrawerError("nothing/changed", {});
      return [notice("undone/placing", { what })];
    });
  }

  /** Takes back what was done last on this page: a placing where it was placed, anything else in the drawer. */
  async undo(): Promise<void> {
    if (this.#placed) return this.takeBack();
    return this.act(() => this.drawer.undo());
  }

  /**
   * Does something and tells how it went. What is no refusal but a fault is told too, so that nobody waits for what does not
   * come, and thrown.
   */
  async act(action: () => Promise<readonly Notice[]>): Promise<void> {
    const placed = this.#placed;
    try {
      const notices = await action();
      // What is done after a placing is what is undone first.
      if (this.#placed === placed && notices.length > 0) this.#placed = undefined;
      this.#tell({ notices });
    } catch (error) {
      if (error instanceof DrawerError) return this.#tell({ notices: [], error });
      const why = error instanceof Error ? error.message : String(error);
      this.#tell({ notices: [], error: new DrawerError("failed", { why }, { cause: error }) });
      throw error;
    }
  }

  #tell(told: ActionResult): void {
    if (told.notices.length === 0 && !told.error) return;
    const sentences = [
      ...told.notices.map(({ message }) => message),
      ...(told.error ? [told.error.message] : []),
    ];
    this.#liveRegion.say(sentences.join(" "));
    for (const listener of this.#listeners) listener(told);
  }

  /** Calls `listener` after every act. Returns an unsubscribe function. */
  listen(listener: (told: ActionResult) => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Lets go of the page. */
  unbind(): void {
    this.#stop.abort();
    this.#liveRegion.remove();
    this.#listeners.clear();
  }
}
