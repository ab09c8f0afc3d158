import type { Recipe } from "../../compose/recipe.js";
import { notice, type Notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Origin } from "../../drawer/model/entry.js";
import type { Flavours } from "../../formats/flavours.js";
import type { NamedPlace } from "../../messages/core/names.js";
import { many, page as words } from "../../messages/core/page-sentences.js";
import { pageNotices } from "../../messages/en/page.js";
import { Copies } from "../capture/copies.js";
import { linesOf } from "../capture/file-lines.js";
import type { MarkedPart } from "../capture/read-files.js";
import { PageScope } from "../capture/scope.js";
import { beginCopy } from "../places/carrying.js";
import type { FieldToFill, FillPlan } from "../places/form.js";
import { describeLastPlace, focusLastPlace, PlaceTracker } from "../places/last-place.js";
import type { Place } from "../places/place.js";
import { Actions } from "./actions.js";
import { BlockCopier } from "./block-copier.js";
import { BoundDrawer } from "./bound-drawer.js";
import type { CaretPlacer } from "./caret-placer.js";
import { Collector, type CollectOptions } from "./collector.js";
import { PageDeal } from "./deal.js";
import type { PlaceDetail } from "./events.js";
import type { CaretPlace, DesktopTarget, HostDesktop } from "./host-desktop.js";
import { getReady } from "./lazy.js";
import { leftCopiesOf, type LeftCopies } from "./left-copies.js";
import { requestOf, type PlaceRequest } from "./placements.js";

/** How a page is bound. */
export interface BindOptions extends CollectOptions {
  /** Is called before a block is placed, so that a page can bring the place into sight. */
  readonly reveal?: (place: Element) => void;
  /** Tells what one can place in, where Drawer does not know it: an editor of the page's own, for an element of it. */
  readonly placeIn?: (element: Element) => Place | undefined;
  /** Only what is in this element is collected from, and placed in; the whole page when it is left out. */
  readonly root?: Element;
  /** A selector of what is left alone: nothing is collected from it, and nothing placed in it. */
  readonly exclude?: string;
  /** The desktop around the page, for one that has no places of its own: blocks go onto its clipboard. */
  readonly desktop?: HostDesktop;
}

/**
 * A page bound to a drawer: while collecting is on, what is copied or cut on the page is collected too; and blocks are
 * placed at the caret where the user last wrote. Every action is announced, and dispatched as an event
 * ({@link BindingEventMap}).
 */
export class Binding extends Actions {
  /** A pick that is handed out one snippet at a time: on this page, to each place; or on the clipboard of the desktop. */
  readonly deal: PageDeal;
  /** @internal Copies that are lost when the page is left now. */
  readonly leftCopies: LeftCopies | undefined;
  readonly #bound: BoundDrawer;
  readonly #copier: BlockCopier;
  #caretPlacer: CaretPlacer | undefined;
  readonly #stop = new AbortController();
  readonly #scope: PageScope;
  readonly #collector: Collector;
  readonly #tracker: PlaceTracker;

  constructor(
    drawer: Drawer,
    readonly options: BindOptions = {},
  ) {
    super();
    const { signal } = this.#stop;
    const failed = (error: unknown) => this.reportFailure(error);
    this.#bound = new BoundDrawer(drawer, {
      desktop: options.desktop,
      changed: async () => {
        await this.deal.changed();
        if (options.desktop) this.#emitMoved();
      },
      failed,
    });
    this.leftCopies = leftCopiesOf(drawer, { signal, failed });
    this.#scope = new PageScope(options.root, options.exclude);
    this.#copier = new BlockCopier(() => this.drawer, options.desktop);
    this.#collector = new Collector(this, this.#scope, options);
    this.deal = new PageDeal(this, options.desktop);
    this.#bound.follow();
    this.session.retain();
    void this.#collector.earlier();
    getReady({ signal, failed });
    signal.addEventListener("abort", () => this.#bound.end());
    const copies = new Copies({
      isWanted: (element) => this.collecting && !this.#copier.isCopying && this.#scope.has(element),
      copied: (copied) => void this.#collector.copied(copied),
      signal,
    });
    this.#tracker = new PlaceTracker({
      placeIn: options.placeIn,
      ignore: (path) => !this.#scope.hasPath(path),
      changed: () => {
        this.#emitMoved();
        this.deal.arrived();
      },
      entered: (document) => {
        copies.follow(document);
        this.emit("document", { document });
      },
      signal,
    });
  }

  /** The drawer that is worked with. */
  get drawer(): Drawer {
    return this.#bound.current;
  }

  /** What shows this binding, so that whoever has made it knows when nobody does any more. */
  readonly users = new Set<object>();

  /** @internal Adds one that shows it. Returns what takes it out again. */
  use(user: object): () => void {
    this.users.add(user);
    return () => void this.users.delete(user);
  }

  /** The documents that are followed: the page's own, and those of frames. The event `document` tells of another. */
  get documents(): ReadonlySet<Document> {
    return this.#tracker.documents;
  }

  #emitMoved(): void {
    this.emit("moved", { target: this.target?.element });
  }

  /** Whether what is copied is added to the latest snippet instead of being one of its own. */
  get appends(): boolean {
    return this.#bound.appends;
  }

  set appends(appends: boolean) {
    this.#bound.appends = appends;
  }

  /**
   * Works with another drawer of the same store from now on.
   * @param name which; it is made when there is none of that name
   */
  async open(name: string): Promise<void> {
    await this.act(async () => {
      this.placements.clear();
      this.deal.end();
      await this.#bound.open(name);
      this.emit("opened", { name: this.drawer.name });
      return [notice(pageNotices, "opened/page", { drawer: this.drawer.name })];
    });
  }

  /** Whether what is copied is collected. */
  get collecting(): boolean {
    return this.#bound.collecting;
  }

  /** Where the next block would be placed; nothing before the user was anywhere, or where nothing can be placed. */
  get target(): Place | undefined {
    return this.#tracker.last?.place;
  }

  /** What the place where the user was last is called; nothing before they were anywhere. */
  get targetName(): NamedPlace | undefined {
    const { last } = this.#tracker;
    return last && describeLastPlace(last);
  }

  protected override beforePlacing(detail: PlaceDetail): boolean {
    const isToBe = super.beforePlacing(detail);
    if (isToBe) this.options.reveal?.(detail.target);
    return isToBe;
  }

  /** Gives the focus back to the place where the user was last, with its caret. */
  goBack(): void {
    const { last } = this.#tracker;
    if (last) focusLastPlace(last);
  }

  /**
   * Collects flavours from anywhere, such as a paste or a drop into the drawer.
   * @param flavours HTML, text, an image
   * @param origin where they come from
   * @param element where on the page they come from
   */
  async collect(flavours: Flavours, origin: Origin = {}, element?: Element): Promise<void> {
    await this.#collector.flavours(flavours, origin, element);
  }

  /**
   * Collects files that were pasted or chosen: pictures, documents, sheets and texts, each as a snippet. What reads them is
   * loaded when it is first needed.
   */
  async collectFiles(files: readonly File[]): Promise<void> {
    await this.#collector.files(files);
  }

  /** Collects parts of files that were looked into, in this order. */
  async collectParts(parts: readonly MarkedPart[]): Promise<void> {
    await this.#collector.parts(parts);
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
    await this.#collector.selection();
  }

  /**
   * Places snippets where the user last wrote.
   * @param pick which, as on the command line: `1 3..5 last`
   * @param recipe how the block is made
   */
  async placePick(pick: string, recipe: Recipe = {}): Promise<void> {
    await this.act(async () => {
      const { snippets, notices } = await this.drawer.snippetsToGiveOut(pick);
      const request = requestOf(snippets, recipe, many(snippets.length));
      return [...notices, ...(await this.placements.put(this.#tracker.here(), request))];
    });
  }

  /** Places a block where the user last wrote: that of a request, made for what the place can hold. */
  async place(request: PlaceRequest): Promise<void> {
    await this.act(() => this.placements.put(this.#tracker.here(), request));
  }

  /**
   * Puts blocks, each by itself, at the caret of a window of another program.
   * @param what how they are called together: `snippet 3`
   * @param target the window, as it was named to the user
   * @param how whether the user comes back from there, and what is pressed between one and the next
   */
  async placeOnDesktop(
    requests: readonly PlaceRequest[],
    what: string,
    target: DesktopTarget,
    how: Omit<CaretPlace, "target">,
  ): Promise<void> {
    await this.act(async () => {
      const { CaretPlacer } = await import("./caret-placer.js");
      this.#caretPlacer ??= new CaretPlacer(() => this.drawer, this.options.desktop!, this.placements);
      return this.#caretPlacer.put(requests, what, target, how);
    });
  }

  /** Collects what is selected, and places it at once, by a recipe, where the last block went, or where the user last was. */
  async send(recipe: Recipe = {}): Promise<void> {
    const collected = await this.#collector.selection(false);
    if (collected.length === 0) return;
    await this.act(async () => {
      const to = this.placements.lastTarget && this.#tracker.at(this.placements.lastTarget);
      const snippets = await this.drawer.read(collected);
      const request = requestOf(snippets, recipe, words.snippet(collected[0]!.position));
      return this.placements.put(to ?? this.#tracker.here(), request);
    });
  }

  /**
   * Copies a block to the clipboard of the system, in all forms that other programs take. Call it while a click or a key is handled.
   * @param request the snippets, and what makes the block
   */
  async copy(request: PlaceRequest | Promise<PlaceRequest>): Promise<void> {
    const endCopy = beginCopy();
    try {
      await this.act(async () => this.#copier.copy(await request));
    } finally {
      endCopy();
    }
  }

  /**
   * Plans what the form where the user is would get of a pick, by labels. Nothing is filled.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  async planFill(pick = "all"): Promise<FillPlan> {
    const { snippets, notices } = await this.drawer.snippetsToGiveOut(pick);
    this.report({ notices });
    const { planFillOf } = await import("./form-filling.js");
    return planFillOf(snippets, this.#tracker.last?.element, (field) => this.#scope.has(field));
  }

  /** Puts what was planned into the fields of a form, all of it or, when one does not take it, nothing. */
  async fill(fields: readonly FieldToFill[]): Promise<void> {
    await this.act(async () => {
      const { fillForm } = await import("./form-filling.js");
      const { filled, notices } = await fillForm(fields);
      this.placements.add(filled);
      return notices;
    });
  }

  /** @internal Hands out a snippet of a deal here. Returns what is told of it. */
  async putDealt(request: PlaceRequest, takenBack: () => Promise<unknown>): Promise<readonly Notice[]> {
    return this.placements.put(this.#tracker.here(), request, takenBack);
  }

  /** Takes back what was placed last, where it was placed. */
  takeBack(): Promise<void> {
    return this.act(() => this.placements.takeBack(), true);
  }

  /** Takes back what was done last on this page: a placing where it was placed, anything else in the drawer. */
  undo(): Promise<void> {
    const undo = () =>
      // What was done last may have been done to a file.
      this.options.desktop?.files?.undo(this.drawer.name) ?? this.drawer.undo();
    return this.act(() => (this.placements.count > 0 ? this.placements.takeBack() : undo()), true);
  }

  /** Does again what was undone last in the drawer, or to a file. */
  redo(): Promise<void> {
    return this.act(
      async () => this.options.desktop?.files?.redo(this.drawer.name) ?? this.drawer.redo(),
      true,
    );
  }

  /** Lets go of the page. */
  unbind(): void {
    this.#stop.abort();
    this.endActions();
  }
}
