import { html, LitElement, type PropertyValues } from "lit";
import type { Recipe } from "../../compose/recipe.js";
import { DrawerError } from "../../content/error.js";
import type { Notice } from "../../content/notice.js";
import type { ActionResult } from "../../drawer/collecting-session.js";
import type { Drawer } from "../../drawer/drawer.js";
import { onLanguageChange } from "../../messages/core/language.js";
import { page, partsPanel } from "../../messages/core/page-sentences.js";
import { sources } from "../../messages/en/content.js";
import { refusalFor } from "../binding/actions.js";
import { Binding } from "../binding/binding.js";
import { BINDING_EVENTS, type BindingEventMap } from "../binding/events.js";
import { composed } from "../binding/lazy.js";
import type { PlaceRequest } from "../binding/placements.js";
import { readTransfer } from "../capture/selection.js";
import { baseStyles } from "./base-styles.js";
import { composerStyles } from "./composer-styles.js";
import { Composer } from "./composer.js";
import type { DrawerHost } from "./drawer-host.js";
import { headerStyles } from "./header-styles.js";
import { drawerChoice, stateView } from "./header.js";
import { isHotkey } from "./keys.js";
import { listStyles } from "./list-styles.js";
import { ListViewModel, type SnippetScope } from "./list-view-model.js";
import { SnippetList } from "./list.js";
import { noticeLine } from "./notice-line.js";
import { noticeStyles } from "./notice-styles.js";
import { OwnBinding } from "./own-binding.js";
import { panelStyles } from "./panels/panel-styles.js";
import { Panels } from "./panels/panels.js";
import type { ListRow } from "./row.js";

/** The events of a `<snippet-drawer>`: those of its binding, with `drawer-` before their names. They bubble. */
export type SnippetDrawerEventMap = {
  readonly [Name in (typeof BINDING_EVENTS)[number] as `drawer-${Name}`]: CustomEvent<BindingEventMap[Name]>;
};

/**
 * `<snippet-drawer>`: the collection made visible. Above stands the run of snippets, numbered in their order, or those
 * that hold the words one looks for; choosing one places it at the caret, and its number picks it, in the order of
 * picking. Below stand the sentence that says what is placed and how, and the block as it will land. Only the rows in
 * sight are read, so the drawer may be of any size. Give it a {@link Binding} as its property `binding`, or the name of a
 * database as its attribute `database`.
 *
 * @element snippet-drawer
 * @attr {string} database - A database of the browser's in which it keeps what it holds; it makes its binding itself then.
 * @attr {string} drawer - Which drawer of that database; `main` without it.
 * @attr {string} hotkey - The key that leads to the run from anywhere on the page; `Alt+Shift+D` without it, none when empty.
 * @attr {string} sendkey - The key that sends what is selected to where the last block went; `Alt+Shift+S` without it.
 * @slot title - What stands at its top in place of its name.
 * @slot empty - What is said while it holds nothing.
 * @slot acts - Buttons of the page's own, beside what else is done with what is chosen.
 * @csspart top - Its name, and whether it collects.
 * @csspart state - Whether it collects, and what changes that.
 * @csspart ways - The field to find in, and what opens the panels.
 * @csspart panel - What stands in place of the run: rules, what left, recipes, keys, the form to fill.
 * @csspart list - The list of snippets.
 * @csspart row - A snippet in it.
 * @csspart picked - A snippet that is picked.
 * @csspart actions - What can be done with one.
 * @csspart notice - What was reported last.
 * @csspart sentence - The sentence whose words are choices.
 * @csspart preview - The block as it will land.
 * @csspart place - The button that places it.
 * @csspart acts - What else is done with it.
 * @csspart dealing - How far a deal is.
 * @cssprop --drawer-ink - The colour of text.
 * @cssprop --drawer-faint - The colour of what matters less.
 * @cssprop --drawer-paper - The ground.
 * @cssprop --drawer-card - The ground of fields and of the side with the sentence.
 * @cssprop --drawer-rule - Lines.
 * @cssprop --drawer-accent - Numbers, choices and the button that places.
 * @cssprop --drawer-wash - The ground of a row that is looked at or picked.
 * @cssprop --drawer-alarm - What was refused.
 * @cssprop --drawer-mark - Words that were found.
 * @cssprop --drawer-preview - The paper on which the block is shown.
 * @cssprop --drawer-text-font - The typeface of snippets and the sentence.
 * @cssprop --drawer-plain-font - The typeface of all else.
 * @cssprop --drawer-size - The size of text, `15px` without it.
 * @fires drawer-collecting - Something is about to be collected; it can be prevented.
 * @fires drawer-collected - Something was collected.
 * @fires drawer-placing - A block is about to be placed; it can be prevented.
 * @fires drawer-placed - A block was placed.
 * @fires drawer-notice - An act was done, or refused.
 * @fires drawer-opened - Another drawer is shown.
 */
export class SnippetDrawer extends LitElement implements DrawerHost {
  /** The style sheets of its shadow tree. */
  static override styles = [baseStyles, headerStyles, panelStyles, noticeStyles, listStyles, composerStyles];
  static override properties = {
    binding: { attribute: false },
    database: {},
    drawer: {},
    hotkey: {},
    sendkey: {},
    result: { state: true },
    progress: { state: true },
  };

  /** What binds it to its page and its drawer. */
  declare binding: Binding | undefined;
  /** A database of the browser's in which it keeps what it holds; it makes its binding itself then. */
  declare database: string | undefined;
  /** Which drawer of that database; `main` without it. */
  declare drawer: string | undefined;
  /** The key that leads to the run from anywhere on the page; `Alt+Shift+D` without it, none when empty. */
  declare hotkey: string;
  /** The key that sends what is selected to where the last block went; `Alt+Shift+S` without it, none when empty. */
  declare sendkey: string;
  declare private result: ActionResult | undefined;
  /** How far something is that takes long. */
  declare private progress: string | undefined;
  /** @internal What of the drawer is in sight. */
  viewModel: ListViewModel | undefined;
  readonly #list = new SnippetList(this);
  readonly #composer = new Composer(this);
  readonly #panels = new Panels(this);
  #unsubscribe: (() => void)[] = [];
  #drawers: readonly string[] = [];
  /** The name that it has given itself. */
  #named: string | undefined;
  #stopSpoken: () => void = () => undefined;
  readonly #own = new OwnBinding(
    (binding) => {
      this.#leave();
      this.binding = binding;
    },
    (error) => this.report({ notices: [], error }),
  );

  constructor() {
    super();
    this.hotkey = "Alt+Shift+D";
    this.sendkey = "Alt+Shift+S";
    this.addEventListener("paste", (event) => {
      // What is pasted into a field of the drawer itself is for that field.
      if ((event.composedPath()[0] as Element).localName !== "input") this.#given(event, event.clipboardData);
    });
    this.addEventListener("dragover", (event) => event.preventDefault());
    this.addEventListener("drop", (event) => this.#given(event, event.dataTransfer));
    this.addEventListener("dragend", () => this.#list.drag.ended());
  }

  protected override willUpdate(changed: PropertyValues): void {
    if (changed.has("binding")) this.#follow();
    if ((changed.has("database") || changed.has("drawer")) && this.database !== undefined)
      void this.#own.open(this.database, this.drawer);
  }

  override connectedCallback(): void {
    super.connectedCallback();
    // A part of the page that one finds by its name.
    if (!this.hasAttribute("role")) this.setAttribute("role", "region");
    this.#spoken();
    this.#stopSpoken = onLanguageChange(() => this.#spoken());
    // One that was taken out and put back, or elsewhere, goes on.
    if (!this.hasUpdated) return;
    if (this.database !== undefined && !this.#own.binding) void this.#own.open(this.database, this.drawer);
    else this.#follow();
  }

  override disconnectedCallback(): void {
    super.disconnectedCallback();
    this.#stopSpoken();
    this.#leave();
    // One that is only moved is there again at once; for one that is gone nobody collects any more.
    setTimeout(() => {
      if (this.isConnected) return;
      this.viewModel?.close();
      this.#leave();
      this.#own.close();
    });
  }

  /** Other sentences are said: it is drawn with them. */
  #spoken(): void {
    // The page may have given it a name of its own.
    const name = this.getAttribute("aria-label");
    if (name === null || name === this.#named) this.setAttribute("aria-label", (this.#named = page.title));
    this.requestUpdate();
  }

  protected override updated(): void {
    this.#composer.drawn();
  }

  /** Which snippets are picked, by their ids, in the order of picking. */
  get picked(): readonly string[] {
    return (this.viewModel?.picked ?? []).map(({ entry }) => entry.id);
  }

  /** Picks these snippets, as on the command line, in place of those that were picked; with an empty pick, none. */
  async pick(pick: string): Promise<void> {
    const { viewModel } = this;
    if (!viewModel) return;
    viewModel.picked = pick.trim() === "" ? [] : await viewModel.drawer.pick(pick);
    this.#composer.choose(viewModel.picked.length > 0 ? "picked" : "all");
  }

  /** The recipe that the sentence says. */
  get recipe(): Recipe {
    return this.#composer.recipe;
  }

  set recipe(recipe: Recipe) {
    this.#composer.recipe = recipe;
  }

  /** Places what the sentence says where the user last wrote. */
  place(): void {
    this.#composer.place();
  }

  /** Collects what is selected on the page, and places it at once where the last block went. */
  send(): void {
    void this.binding?.send(this.styleOfOne);
  }

  /** Takes back what was said last: a placing where it was placed, anything else in the drawer. */
  undo(): void {
    void this.binding?.undo();
  }

  /** Does again what was undone in the drawer. */
  redo(): void {
    this.act((drawer) => drawer.redo());
  }

  /** Gives the focus to the run, or to the field to find in while there is none. */
  override focus(): void {
    this.#panels.close();
    void this.#focusRun();
  }

  async #focusRun(): Promise<void> {
    await this.updateComplete;
    if (this.#list.focus()) return;
    // What has just come may not be drawn yet.
    await this.read();
    await this.updateComplete;
    if (!this.#list.focus()) this.focusFind();
  }

  /** Goes back to where the user last wrote. */
  leave(): void {
    this.binding?.goBack();
  }

  /** @internal */
  focusFind(): void {
    this.renderRoot.querySelector<HTMLElement>(".ways input")?.focus();
  }

  readonly #hotkey = (event: KeyboardEvent): void => {
    const isPressed = (key: string) => key !== "" && !event.defaultPrevented && isHotkey(event, key);
    if (isPressed(this.hotkey)) this.focus();
    else if (isPressed(this.sendkey)) this.send();
    else return;
    event.preventDefault();
  };

  #leave(): void {
    for (const unsubscribe of this.#unsubscribe.splice(0)) unsubscribe();
  }

  #follow(): void {
    this.#leave();
    this.viewModel?.close();
    const { binding } = this;
    if (!binding) return;
    const compose = () => void this.#composer.compose();
    const viewModel = new ListViewModel(
      binding.drawer,
      () => this.#list.viewport,
      () => this.requestUpdate(),
    );
    this.viewModel = viewModel;
    this.#composer.follow(viewModel);
    const keys = new AbortController();
    const listen = (root: Document) =>
      root.addEventListener("keydown", this.#hotkey, { signal: keys.signal });
    binding.documents.forEach(listen);
    this.#unsubscribe = [
      binding.use(this),
      () => keys.abort(),
      binding.on("document", ({ detail }) => listen(detail.document)),
      binding.drawer.watch(() => void this.read()),
      binding.on("notice", ({ detail }) => this.report(detail)),
      binding.on("moved", compose),
      binding.on("opened", () => this.#follow()),
      ...BINDING_EVENTS.map((name) => binding.on(name, (event) => this.#dispatch(name, event))),
    ];
    void this.read();
    void this.#readDrawers();
  }

  /** Reads which drawers there are: when one is opened, and when the user is about to choose one. */
  async #readDrawers(): Promise<void> {
    await this.#reporting(async () => {
      const drawers = await this.viewModel!.drawer.store.drawers();
      this.#drawers = drawers.map(({ drawer: name }) => name);
      this.requestUpdate();
    });
  }

  /** Dispatches an event of the binding as one of its own. */
  #dispatch(name: string, event: CustomEvent<unknown>): void {
    const { detail, cancelable } = event;
    const own = new CustomEvent(`drawer-${name}`, { detail, cancelable, bubbles: true, composed: true });
    if (!this.dispatchEvent(own)) event.preventDefault();
  }

  /** @internal Reads the drawer again. Where it cannot be read, that is told, and what is in sight stays. */
  read(): Promise<void> {
    return this.#reporting(() => this.#readAll());
  }

  /** Reads something for what is shown. Where that cannot be read, it is told. */
  async #reporting(read: () => Promise<void>): Promise<void> {
    try {
      await read();
    } catch (error) {
      this.report({ notices: [], error: refusalFor(error) });
      if (!(error instanceof DrawerError)) throw error;
    }
  }

  /** Reads it, and brings into sight what has come, or what is to have the focus. */
  async #readAll(): Promise<void> {
    const viewModel = this.viewModel!;
    const { drawer } = viewModel;
    const grown = await viewModel.read({ gone: this.#panels.open === "gone" });
    await this.#panels.read(drawer);
    if (viewModel !== this.viewModel) return;
    if (viewModel.picked.length === 0 && this.#composer.which === "picked") this.#composer.which = "all";
    void this.#composer.compose();
    await this.updateComplete;
    await this.#list.afterRead(grown);
  }

  /** @internal Shows what was reported. */
  report(result: ActionResult): void {
    this.result = result;
  }

  /** What is pasted or dropped into the drawer: one of its own rows, files, or what another program offers. */
  #given(event: ClipboardEvent | DragEvent, transfer: DataTransfer | null): void {
    if (!transfer || !this.binding) return;
    event.preventDefault();
    const isDrop = event.type === "drop";
    if (!isDrop || !this.#list.drag.dropped(event as DragEvent)) void this.take(transfer, isDrop);
  }

  /**
   * Takes in what another program offers, by a paste or a drop somewhere on the page. Files that are dropped are looked into.
   * @param isDropped whether it was dropped; else it was pasted
   */
  async take(transfer: DataTransfer, isDropped: boolean): Promise<void> {
    const flavours = readTransfer(transfer);
    const files = [...transfer.files];
    // An office program offers a picture of the cells beside them; a file is what is meant where there is nothing else.
    const isText = (flavours.html ?? flavours.text ?? "").trim() !== "";
    if (files.length === 0 || isText) await this.binding?.collect(flavours, { app: sources.otherWindow });
    else if (isDropped) await this.lookInto(files);
    else await this.binding?.collectFiles(files);
  }

  /**
   * Looks into files: shows their parts, of which the user collects some. What has one part only is collected at once, and a
   * drawer file is brought in.
   */
  lookInto(files: readonly File[]): Promise<void> {
    return this.#panels.lookInto(files);
  }

  /** @internal Shows how far something is that takes long; nothing when it is done. */
  showProgress(what: "importing" | "exporting" | undefined, done = 0, of = 1): void {
    this.progress = what && partsPanel[what](Math.floor((100 * done) / Math.max(1, of)));
  }

  protected override render() {
    const find = (event: Event) => this.#find((event.target as HTMLInputElement).value);
    return html`
      <div class="top" part="top">
        <h2>
          <slot name="title">${page.title}</slot
          >${drawerChoice(this, this.#drawers, () => void this.#readDrawers())}
        </h2>
        ${stateView(this, (changes) => this.#panels.setRules(changes))}
      </div>
      <div class="ways" part="ways">
        <input
          type="search"
          aria-label=${page.find.name}
          placeholder=${page.find.short}
          .value=${this.viewModel?.words ?? ""}
          @input=${find}
        />
        ${this.#panels.openers()}
      </div>
      <div class="sides">
        <div class="side">${this.#left()} ${noticeLine(this, this.result, this.progress)}</div>
        <section class="composer" aria-label=${page.putDown}>${this.#composer.view()}</section>
      </div>
    `;
  }

  /** The run, what was found, or what is looked at in place of it. */
  #left() {
    const panel = this.#panels.view();
    if (panel !== undefined) return panel;
    return this.viewModel?.count === 0
      ? html`<div class="none"><slot name="empty">${page.nothingYet}</slot></div>`
      : this.#list.view();
  }

  /** @internal Shows what the form where the user is would get. */
  async planFill(): Promise<void> {
    await this.#panels.planFill(await this.#composer.pick());
  }

  /** @internal Does something in the drawer, and tells how it went. */
  act(action: (drawer: Drawer) => Promise<readonly Notice[]>): void {
    void this.acting(action);
  }

  /** @internal The same, and settles when it is done. */
  async acting(action: (drawer: Drawer) => Promise<readonly Notice[]>): Promise<void> {
    await this.binding?.act(() => action(this.viewModel!.drawer));
  }

  #find(words: string): void {
    this.#panels.close();
    // What is found begins at its top, wherever one had scrolled to.
    this.#list.toTop();
    void this.viewModel?.look(words);
  }

  /** @internal Picks a snippet, or takes it out of the pick. Returns its turn in the pick; 0 when it is not in it. */
  pickRow(row: ListRow): number {
    const viewModel = this.viewModel!;
    viewModel.pick(row);
    const which: SnippetScope = viewModel.picked.length > 0 ? "picked" : "all";
    this.#composer.choose(which);
    return viewModel.picked.findIndex(({ entry }) => entry.id === row.entry.id) + 1;
  }

  /** @internal The look that a lone snippet is placed in. */
  get styleOfOne(): Recipe {
    const { style } = this.recipe;
    return style ? { style } : {};
  }

  #requestOf(row: ListRow): PlaceRequest {
    return {
      ids: [row.entry.id],
      make: async (fit) => composed(await this.viewModel!.drawer.read([row]), { ...this.styleOfOne, fit }),
      what: page.snippet(row.position),
    };
  }

  /** @internal */
  placeRow(row: ListRow): void {
    if (this.binding?.options.desktop) return this.copyRow(row);
    void this.binding?.place(this.#requestOf(row));
  }

  /** @internal */
  copyRow(row: ListRow): void {
    void this.binding?.copy(this.#requestOf(row));
  }
}

if (!customElements.get("snippet-drawer")) customElements.define("snippet-drawer", SnippetDrawer);

declare global {
  interface HTMLElementTagNameMap {
    "snippet-drawer": SnippetDrawer;
  }
  // Its events bubble to the document.
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type
  interface HTMLElementEventMap extends SnippetDrawerEventMap {}
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type
  interface DocumentEventMap extends SnippetDrawerEventMap {}
}
