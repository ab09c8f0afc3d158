import type { Block } from "../compose/block.js";
import type { Fit, Recipe } from "../compose/recipe.js";
import { DrawerError, reasonOf } from "../content/error.js";
import { LIMITS } from "../content/limits.js";
import { notice, type Notice } from "../content/notice.js";
import { Drawer } from "../drawer/drawer.js";
import type { Incoming } from "../drawer/incoming.js";
import type { Origin } from "../drawer/model/entry.js";
import type { Positioned } from "../drawer/store.js";
import type { Flavours } from "../formats/flavours.js";
import { many, page as words } from "../messages/spoken-page.js";
import { ActionQueue } from "./action-queue.js";
import { copyBlock } from "./carrying.js";
import { Copies, type CopiedOnPage } from "./copies.js";
import { PageDeal, type Deal } from "./dealing.js";
import type { Desk } from "./desk.js";
import { DeskDeal } from "./desk-dealing.js";
import type { FieldToFill, FillPlan } from "./filling.js";
import { PlaceTracker, type LastPlace } from "./last-place.js";
import { linesOf } from "./file-lines.js";
import type { MarkedPart } from "./panels/parts.js";
import { composed, filling, loadAhead, parts, readers } from "./on-first-use.js";
import { focusedRoot, hostOf } from "./page-tree.js";
import { nameOf } from "./places/name.js";
import type { Place } from "./places/place.js";
import { isField, readSelection, selectedElement } from "./selection.js";
import { pageErrors } from "../messages/en/errors/page.js";
import { pageNotices } from "../messages/en/notices/page.js";
import { placingNotices } from "../messages/en/notices/placing.js";

/** How a page is bound. */
export interface BindOptions {
  /** Tells where something came from, by the element in which it was copied; without it, the page's own title and address. */
  readonly origin?: (element: Element) => Origin;
  /** Is called before a block is placed, so that a page can bring the place into sight. */
  readonly reveal?: (place: Element) => void;
  /** Tells what one can place in, where Drawer does not know it: an editor of the page's own, for an element of it. */
  readonly placeIn?: (element: Element) => Place | undefined;
  /** Only what is in this element is collected from, and placed in; the whole page when it is left out. */
  readonly root?: Element;
  /** A selector of what is left alone: nothing is collected from it, and nothing placed in it. */
  readonly exclude?: string;
  /** How long a piece may be that is collected from the page, in characters of its HTML and text; 64 million without it. */
  readonly maxLength?: number;
  /** The desktop around the page, for one that has no places of its own: blocks go onto its clipboard. */
  readonly desk?: Desk;
}

/** A block that is to be placed. */
export interface PlaceRequest {
  /** The ids of the snippets that it is made of. */
  readonly ids: readonly string[];
  /** Makes the block for what the place can hold. */
  readonly make: (fit: Fit) => Promise<Block> | Block;
  /** How the block is called when it is said that it was placed: `snippet 3`. */
  readonly what: string;
}

/** How often what is due is done while the page is open, in milliseconds. */
const RETENTION_INTERVAL = 15_000;

/** When a page has likely come to rest, in milliseconds after a drawer was bound to it. */
const IDLE = 1_000;

/** What is no place of the page: the drawer itself. */
const OWN = "snippet-drawer";

/**
 * A page bound to a drawer: while collecting is on, what is copied or cut on the page is collected too; and blocks are
 * placed at the caret where the user last wrote. Every act is said aloud, told to listeners, and dispatched as an event
 * ({@link BindingEventMap}).
 */
export class Binding extends ActionQueue {
  /** A pick that is handed out one snippet at a time: on this page, to each place; or on the clipboard of the desktop. */
  readonly deal: Deal;
  #appends = false;
  /** Whether what is copied is collected: the drawer's rule, as last read. */
  #collecting = true;
  readonly #stop = new AbortController();
  readonly #moved = new Set<() => void>();
  readonly #documents = new Set<Document>();
  readonly #entered = new Set<(document: Document) => void>();
  readonly #tracker: PlaceTracker;
  /** Where the last block went. */
  #landing: Pick<LastPlace, "element" | "place"> | undefined;
  /** Whether Drawer itself copies now. */
  #isCopying = false;

  #drawer: Drawer;
  #stopWatching: () => void;

  constructor(
    drawer: Drawer,
    readonly options: BindOptions = {},
  ) {
    super();
    const { signal } = this.#stop;
    this.#drawer = drawer;
    const { desk } = options;
    this.deal = desk ? new DeskDeal(this, desk) : new PageDeal(this);
    this.#stopWatching = this.#watch();
    const retention = setInterval(() => void this.#applyRetention(), RETENTION_INTERVAL);
    signal.addEventListener("abort", () => {
      this.#stopWatching();
      clearInterval(retention);
    });
    void this.#applyRetention();
    // The first copy and the first block need not wait for what reads and makes them.
    const idle = window.setTimeout(loadAhead, IDLE);
    signal.addEventListener("abort", () => clearTimeout(idle));
    const copies = new Copies({
      isWanted: (element) => this.#collecting && !this.#isCopying && this.#isOfPage(element),
      copied: (copied) => void this.#copied(copied),
      signal,
    });
    this.#tracker = new PlaceTracker({
      placeIn: options.placeIn,
      ignore: (path) =>
        path.some((element) => (element as Partial<Element>).localName === OWN) || !this.#isOfPage(path[0]),
      changed: () => {
        this.#move();
        this.deal.arrived();
      },
      entered: (document) => {
        copies.follow(document);
        for (const gone of this.#documents) if (!gone.defaultView) this.#documents.delete(gone);
        this.#documents.add(document);
        for (const entered of this.#entered) entered(document);
      },
      signal,
    });
  }

  /** The drawer that is worked with. */
  get drawer(): Drawer {
    return this.#drawer;
  }

  #watch(): () => void {
    this.#collectInto();
    void this.#changed();
    return this.#drawer.watch(() => void this.#changed());
  }

  /** Reads again what is known of the drawer here. */
  async #changed(): Promise<void> {
    try {
      await this.#readRules();
      await this.deal.changed();
      if (this.options.desk) this.#move();
    } catch (error) {
      this.tellFailure(error);
    }
  }

  /** Whether what is copied is added to the latest snippet instead of being one of its own. */
  get appends(): boolean {
    return this.#appends;
  }

  set appends(appends: boolean) {
    this.#appends = appends;
    this.#collectInto();
  }

  /** Tells the desktop where what is copied there is to go. */
  #collectInto(): void {
    void this.options.desk
      ?.collectInto(this.#drawer.name, this.#appends)
      .catch((error: unknown) => this.tellFailure(error));
  }

  #move(): void {
    for (const moved of this.#moved) moved();
  }

  /**
   * Works with another drawer of the same store from now on.
   * @param name which; it is made when there is none of that name
   */
  async open(name: string): Promise<void> {
    await this.act(async () => {
      this.#drawer = new Drawer(this.#drawer.store, name);
      this.#stopWatching();
      this.#stopWatching = this.#watch();
      this.placed = [];
      this.deal.end();
      await this.#readRules();
      this.emit("opened", { name: this.#drawer.name });
      return [notice(pageNotices, "opened/page", { drawer: this.#drawer.name })];
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
      this.tell({ notices: await this.drawer.applyRetention() });
    } catch (error) {
      // It is tried again soon; the user is not kept from anything by it.
      this.tell({ notices: [notice(placingNotices, "waits", { why: reasonOf(error) })] });
    }
  }

  /** Whether an element is of the part of the page that is bound. */
  #isOfPage(target: EventTarget | undefined): boolean {
    const { root, exclude } = this.options;
    for (let element = target as Element | undefined; element?.closest; element = hostOf(element)) {
      if (element.closest(OWN) || (exclude !== undefined && element.closest(exclude))) return false;
      if (root?.contains(element)) return true;
    }
    return root === undefined;
  }

  /** Where the next block would be placed; nothing before the user was anywhere, or where nothing can be placed. */
  get target(): Place | undefined {
    return this.#tracker.last?.place;
  }

  /** What the place where the user was last is called; nothing before they were anywhere. */
  get targetName(): string | undefined {
    const { last } = this.#tracker;
    return last && placeName(last);
  }

  /** Gives the focus back to the place where the user was last, with its caret. */
  goBack(): void {
    const { last } = this.#tracker;
    if (!last) return;
    const { caret } = last;
    const element = last.element as HTMLElement;
    element.focus();
    const range = caret?.range;
    const selection = element.ownerDocument.getSelection();
    if (range && selection)
      selection.setBaseAndExtent(
        range.startContainer,
        range.startOffset,
        range.endContainer,
        range.endOffset,
      );
  }

  /** Calls `moved` each time when the user is in another place. Returns an unsubscribe function. */
  follow(moved: () => void): () => void {
    this.#moved.add(moved);
    return () => this.#moved.delete(moved);
  }

  /**
   * @internal Calls `entered` for each document that is followed: the page's own, and those of frames. Returns an unsubscribe
   * function.
   */
  eachDocument(entered: (document: Document) => void): () => void {
    for (const document of this.#documents) entered(document);
    this.#entered.add(entered);
    return () => this.#entered.delete(entered);
  }

  async #copied({ flavours, element }: CopiedOnPage): Promise<void> {
    await this.collect(flavours, this.#origin(element), element);
  }

  #origin(element: Element): Origin {
    return this.options.origin?.(element) ?? { title: document.title, address: location.href };
  }

  /**
   * Collects flavours from anywhere, such as a paste or a drop into the drawer.
   * @param element where on the page they come from
   */
  async collect(flavours: Flavours, origin: Origin = {}, element?: Element): Promise<void> {
    await this.#collect(element, () => this.#read(flavours, origin));
  }

  async #read(flavours: Flavours, origin: Origin): Promise<readonly Incoming[]> {
    const { readCopied } = await readers();
    return [await readCopied(flavours, origin, this.options.maxLength ?? LIMITS.bytes / 4)];
  }

  /**
   * Collects files that were pasted or chosen: pictures, documents, sheets and texts, each as a snippet. What reads them is
   * loaded when it is first needed.
   */
  async collectFiles(files: readonly File[]): Promise<void> {
    await this.#collect(undefined, async () => {
      const { readFiles } = await parts();
      return (await readFiles(files)).map((source) => source.at());
    });
  }

  /** Collects parts of files that were looked into, in this order. */
  async collectParts(parts: readonly MarkedPart[]): Promise<void> {
    await this.#collect(undefined, () => Promise.resolve(parts.map(({ source, spot }) => source.at(spot))));
  }

  /**
   * Brings the snippets of a drawer file in.
   * @param progress is told now and then how many of how many have been read
   */
  importFile(file: File, progress: (read: number, of: number) => void): Promise<void> {
    return this.act(() => this.drawer.importFile(() => linesOf(file), { name: file.name, progress }));
  }

  /** Collects what is selected now, as a copy of it would. */
  async collectSelection(): Promise<void> {
    const selected = this.#selected();
    if (!selected)
      return this.act(() => Promise.reject(new DrawerError(pageErrors, "nothing/selected-here", {})));
    return this.collect(selected.flavours, this.#origin(selected.element), selected.element);
  }

  /** What is selected in the page, or in the shadow tree or the frame in it that has the focus. */
  #selected(): CopiedOnPage | undefined {
    const root = focusedRoot(document, OWN);
    const flavours = readSelection(root);
    const active = root.activeElement;
    const selected = isField(active) ? active : selectedElement(active?.ownerDocument ?? document);
    const element = selected ?? document.body;
    return flavours && this.#isOfPage(element) ? { flavours, element } : undefined;
  }

  /** Adds something to the drawer, or to its latest snippet; the page may prevent it. Returns what was added. */
  async #collect(
    element: Element | undefined,
    read: () => Promise<readonly Incoming[]>,
    appends = this.appends,
  ): Promise<readonly Positioned[]> {
    if (!this.emit("collecting", { element })) return [];
    let collected: readonly Positioned[] = [];
    await this.act(async () => {
      const incoming = await read();
      const isFirst = appends && (await this.drawer.count()) === 0;
      const done =
        appends && !isFirst ? await this.drawer.append(incoming) : await this.drawer.collect(incoming);
      collected = done.collected;
      return done.notices;
    });
    if (collected.length > 0) this.emit("collected", { ids: idsOf(collected), element });
    return collected;
  }

  /**
   * Places snippets where the user last wrote.
   * @param pick which, as on the command line: `1 3..5 last`
   */
  async placePick(pick: string, recipe: Recipe = {}): Promise<void> {
    await this.act(async () => {
      const snippets = await this.drawer.snippets(pick);
      return this.#put(this.#here(), {
        ids: idsOf(snippets),
        make: (fit) => composed(snippets, { ...recipe, fit }),
        what: many(snippets.length),
      });
    });
  }

  /** Places a block where the user last wrote. */
  async place(request: PlaceRequest): Promise<void> {
    await this.act(() => this.#put(this.#here(), request));
  }

  /** Collects what is selected, and places it at once where the last block went, or where the user last was. */
  async send(recipe: Recipe = {}): Promise<void> {
    const selected = this.#selected();
    if (!selected)
      return this.act(() => Promise.reject(new DrawerError(pageErrors, "nothing/selected-here", {})));
    const collected = await this.#collect(
      selected.element,
      () => this.#read(selected.flavours, this.#origin(selected.element)),
      false,
    );
    if (collected.length === 0) return;
    await this.act(async () => {
      const to = this.#landing && this.#tracker.at(this.#landing);
      const snippets = await this.drawer.read(collected);
      return this.#put(to ?? this.#here(), {
        ids: idsOf(collected),
        make: (fit) => composed(snippets, { ...recipe, fit }),
        what: words.snippet(collected[0]!.position),
      });
    });
  }

  /** Copies a block to the clipboard of the system, in all forms that other programs take. Call it while a click or a key is handled. */
  async copy({ ids, make, what }: PlaceRequest): Promise<void> {
    await this.act(async () => {
      const block = await make("page");
      const entries = await this.drawer.store.entries({ drawer: this.drawer.name, ids: [...ids] });
      const isPrivate = entries.some(({ entry }) => entry.private);
      const { desk } = this.options;
      const told = desk ? await desk.copy(block, isPrivate) : await this.#copyHere(block, isPrivate);
      return [...block.notices, notice(pageNotices, "copied/page", { what }), ...told];
    });
  }

  /** Copies a block as the browser does, which declares nothing to be a secret. */
  async #copyHere(block: Block, isPrivate: boolean): Promise<readonly Notice[]> {
    this.#isCopying = true;
    try {
      await copyBlock(block);
    } finally {
      this.#isCopying = false;
    }
    return isPrivate ? [notice(placingNotices, "placed/not-secret", {})] : [];
  }

  /**
   * Plans what the form where the user is would get of a pick, by labels. Nothing is filled.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  async planFill(pick = "all"): Promise<FillPlan> {
    const snippets = await this.drawer.snippets(pick);
    const { formAround, planFill } = await filling();
    return planFill(formAround(this.#tracker.last?.element), snippets, (field) => this.#isOfPage(field));
  }

  /** Puts what was planned into the fields of a form, all of it or, when one does not take it, nothing. */
  async fill(fields: readonly FieldToFill[]): Promise<void> {
    await this.act(async () => {
      const { fillFields } = await filling();
      const placing = await fillFields(fields);
      this.placed.push({ placing, what: words.fields(fields.length) });
      return [notice(pageNotices, "filled/page", { count: fields.length })];
    });
  }

  /** @internal Hands out a snippet of a deal here. Returns what is said of it. */
  async putDealt(request: PlaceRequest, afterwards: () => Promise<unknown>): Promise<readonly Notice[]> {
    return this.#put(this.#here(), request, afterwards);
  }

  #here(): LastPlace {
    const { last } = this.#tracker;
    if (!last) throw new DrawerError(pageErrors, "nothing/target", {});
    return last;
  }

  async #put(
    at: LastPlace,
    request: PlaceRequest,
    afterwards?: () => Promise<unknown>,
  ): Promise<readonly Notice[]> {
    const { element, place, caret } = at;
    if (!place) throw new DrawerError(pageErrors, "not-placed/kind", { place: placeName(at) });
    const block = await request.make(place.fit);
    const told = { ids: request.ids, target: element, block };
    if (!this.emit("placing", told)) return [];
    this.options.reveal?.(element);
    const placing = await place.put(block, caret);
    this.#landing = { element, place };
    this.placed.push({ placing, what: request.what, afterwards });
    this.emit("placed", told);
    return [...block.notices, notice(pageNotices, "placed/page", { what: request.what })];
  }

  /** Takes back what was placed last, where it was placed. */
  takeBack(): Promise<void> {
    return this.act(() => this.#takeBack(), true);
  }

  async #takeBack(): Promise<readonly Notice[]> {
    const last = this.placed.pop();
    if (!last) throw new DrawerError(pageErrors, "nothing/placed", {});
    if (!(await last.placing.takeBack())) throw new DrawerError(pageErrors, "nothing/changed", {});
    await last.afterwards?.();
    return [notice(pageNotices, "undone/placing", { what: last.what })];
  }

  /** Takes back what was done last on this page: a placing where it was placed, anything else in the drawer. */
  undo(): Promise<void> {
    return this.act(() => (this.placed.length > 0 ? this.#takeBack() : this.drawer.undo()), true);
  }

  /** Lets go of the page. */
  unbind(): void {
    this.#stop.abort();
    this.fallSilent();
  }
}

function placeName({ place, element }: Pick<LastPlace, "place" | "element">): string {
  return place?.name ?? nameOf(element);
}

function idsOf(positioned: readonly Positioned[]): string[] {
  return positioned.map(({ entry }) => entry.id);
}
