import { html, LitElement, type PropertyValues } from "lit";
import type { Recipe } from "../../compose/recipe.js";
import type { Notice } from "../../content/notice.js";
import type { Origin } from "../../content/origin.js";
import type { ActionResult } from "../../drawer/collecting-session.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Rules } from "../../drawer/model/rules.js";
import { onLanguageChange } from "../../messages/core/language.js";
import { page } from "../../messages/core/page-sentences.js";
import { refusalFor } from "../binding/actions.js";
import { Binding } from "../binding/binding.js";
import { BINDING_EVENTS, type BindingEventMap } from "../binding/events.js";
import { Arrangement } from "./arrangement.js";
import { baseStyles } from "./base-styles.js";
import { ComposerDrawing } from "./composer-drawing.js";
import { Composer } from "./composer.js";
import { divider } from "./divider.js";
import type { DrawerHost, LongAct } from "./drawer-host.js";
import { FileStandings } from "./file-standings.js";
import { Following } from "./following.js";
import { headerStyles } from "./header-styles.js";
import { drawerChoice, keepingView, stateView } from "./header.js";
import { Intake } from "./intake.js";
import { listStyles } from "./list-styles.js";
import type { ListViewModel } from "./list-view-model.js";
import { SnippetList } from "./list.js";
import { setLooks } from "./looked-at.js";
import { noticeLine } from "./notice-line.js";
import { noticeStyles } from "./notice-styles.js";
import { OwnAttributes } from "./own-attributes.js";
import { OwnBinding } from "./own-binding.js";
import { Panels } from "./panels/panels.js";
import type { ListRow } from "./row.js";

/** The events of a `<snippet-drawer>`: those of its binding, with `drawer-` before their names. They bubble. */
export type SnippetDrawerEventMap = {
  readonly [Name in (typeof BINDING_EVENTS)[number] as `drawer-${Name}`]: CustomEvent<BindingEventMap[Name]>;
};

/**
 * `<snippet-drawer>`: the collection made visible. The list of snippets has the room: numbered in their order, or those that hold
 * the words one looks for; choosing one places it at the caret, and its box picks it, in the order of picking. Below, or beside
 * where there is room, stand the sentence that says what is placed and how, and the block as it will land; in a strip they are
 * folded to two lines until one unfolds them. Only the rows in
 * sight are read, so the drawer may be of any size. Give it a {@link Binding} as its property `binding`, or the name of a
 * database as its attribute `database`. Until its drawer is open there is nothing to act on.
 *
 * @element snippet-drawer
 * @attr {string} database - A database of the browser's in which it keeps what it holds; it makes its binding itself then.
 * @attr {string} drawer - Which drawer of that database; `main` without it.
 * @attr {string} hotkey - The key that leads to the list from anywhere on the page; `Alt+Shift+D` without it, none when empty.
 * @attr {string} sendkey - The key that sends what is selected to where the last block went; `Alt+Shift+S` without it.
 * @attr {boolean} unfolded - Whether the sentence and the block are shown in a strip too, until the user folds them.
 * @attr {boolean} panel - A strip, however wide it is: the sentence and the block are folded below the list.
 * @attr {boolean} compact - A small strip for the side of a field: each snippet in one line, no higher than it must be.
 * @slot title - What stands at its top in place of its name.
 * @slot empty - What is said while it holds nothing.
 * @slot acts - Buttons of the page's own, beside what else is done with what is chosen.
 * @csspart top - Its one line at the top.
 * @csspart state - Whether it collects, and what changes that.
 * @csspart ways - The field to find in, and what opens all else.
 * @csspart panel - What stands beside the list, or over it: rules, what was taken out, recipes, keys, what is set on this computer, the form to fill, one snippet whole.
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
  static override styles = [baseStyles, headerStyles, noticeStyles, listStyles];
  static override properties = {
    binding: { attribute: false },
    database: {},
    drawer: {},
    hotkey: {},
    sendkey: {},
    unfolded: { type: Boolean },
    result: { state: true },
    progress: { state: true },
  };

  /** What binds it to its page and its drawer. */
  declare binding: Binding | undefined;
  /** A database of the browser's in which it keeps what it holds; it makes its binding itself then. */
  declare database: string | undefined;
  /** Which drawer of that database; `main` without it. */
  declare drawer: string | undefined;
  /** The key that leads to the list from anywhere on the page; `Alt+Shift+D` without it, none when empty. */
  declare hotkey: string;
  /** The key that sends what is selected to where the last block went; `Alt+Shift+S` without it, none when empty. */
  declare sendkey: string;
  /** Whether the sentence and the block are shown in a strip too, until the user folds them. */
  declare unfolded: boolean;
  declare private result: ActionResult | undefined;
  /** How far something is that takes long. */
  declare private progress: string | undefined;
  /** @internal How it is arranged. */
  readonly arrangement = new Arrangement(this, (error) =>
    this.report({ notices: [], error: refusalFor(error) }),
  );
  /** @internal What has become of snippets in the files that they came from. */
  readonly standings: FileStandings = new FileStandings(this);
  readonly #list = new SnippetList(this);
  readonly #composer = new Composer(this);
  readonly #composerDrawing = new ComposerDrawing(this.#composer);
  readonly #panels = new Panels(this);
  readonly #following = new Following(this, this.#list, this.#composer, this.#panels);
  readonly #intake = new Intake(this, this.#list.drag, (files) => this.lookInto(files));
  readonly #attributes = new OwnAttributes(this);
  #stopSpoken: () => void = () => undefined;
  readonly #own = new OwnBinding(
    (binding) => {
      this.#following.end();
      this.binding = binding;
    },
    (error) => this.report({ notices: [], error }),
  );

  constructor() {
    super();
    this.hotkey = "Alt+Shift+D";
    this.sendkey = "Alt+Shift+S";
    this.unfolded = false;
    this.addEventListener("keydown", (event) => this.#selectAll(event));
    // What one presses is about what there is now: what is still to be drawn is drawn before anything hears of it.
    for (const name of ["keydown", "pointerdown"])
      this.addEventListener(name, () => this.performUpdate(), { capture: true });
  }

  /** It is drawn once for all that one act changes, however many steps it takes: each drawing measures what is in sight. */
  protected override async scheduleUpdate(): Promise<void> {
    await endOfTurn();
    await super.scheduleUpdate();
  }

  protected override willUpdate(changed: PropertyValues): void {
    if (changed.has("binding")) this.#following.begin(this.binding);
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
    else this.#following.begin(this.binding);
  }

  override disconnectedCallback(): void {
    super.disconnectedCallback();
    this.#stopSpoken();
    this.#following.end();
    // One that is only moved is there again at once; for one that is gone nobody collects any more.
    setTimeout(() => {
      if (this.isConnected) return;
      this.#following.close();
      this.#own.close();
    });
  }

  /** Other sentences are said: it is drawn with them. */
  #spoken(): void {
    this.#attributes.update();
    this.requestUpdate();
  }

  protected override updated(): void {
    this.#list.drawn();
    this.style.setProperty("--beside", `${this.arrangement.beside}%`);
    setLooks(this.renderRoot);
  }

  /** @internal What of the drawer is in sight. */
  get viewModel(): ListViewModel | undefined {
    return this.#following.viewModel;
  }

  /** Which snippets are picked, by their ids, in the order of picking. */
  get picked(): readonly string[] {
    return (this.viewModel?.picked ?? []).map(({ entry }) => entry.id);
  }

  /**
   * Picks these snippets, as on the command line, in place of those that were picked; with an empty pick, none. What is private is
   * picked only by its own number or id; that others are left out is told.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   */
  async pick(pick: string): Promise<void> {
    const notices = (await this.viewModel?.pickOnly(pick)) ?? [];
    if (notices.length > 0) this.binding?.report({ notices });
    this.#composer.choosePicked();
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

  /** Does again what was undone. */
  redo(): void {
    void this.binding?.redo();
  }

  /** Ctrl+A selects what one reads, or picks all; it does not select the words of buttons. */
  #selectAll(event: KeyboardEvent): void {
    const [inside] = event.composedPath() as [HTMLElement];
    const isAll = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "a" && !event.altKey;
    if (!isAll || event.defaultPrevented || inside.localName === "input" || inside.isContentEditable) return;
    event.preventDefault();
    const read = inside.closest(".preview, .panel.whole");
    if (read) getSelection()?.selectAllChildren(read);
    else this.act(async () => (await this.pick("all"), []));
  }

  /** Gives the focus to the list, or to the field to find in while there is none. */
  override focus(): void {
    this.#panels.close();
    void this.#list.focusSoon();
  }

  /** Goes back to where the user last wrote. */
  leave(): void {
    this.binding?.goBack();
  }

  /** @internal */
  focusFind(): void {
    this.renderRoot.querySelector<HTMLElement>(".ways input")?.focus();
  }

  /** @internal Reads the drawer again. Where it cannot be read, that is told, and what is in sight stays. */
  read(): Promise<void> {
    return this.#following.read();
  }

  /** @internal Shows what was reported. */
  report(result: ActionResult): void {
    this.result = result;
  }

  /**
   * Takes in what another program offers, by a paste or a drop somewhere on the page. Files that are dropped are looked into.
   * @param isDropped whether it was dropped; else it was pasted
   * @param origin where it comes from, when it is no file; without it, another window
   */
  take(transfer: DataTransfer, isDropped: boolean, origin?: Origin): Promise<void> {
    return this.#intake.take(transfer, isDropped, origin);
  }

  /**
   * Looks into files: shows their parts, of which the user collects some. What has one part only is collected at once, and a
   * drawer file is brought in.
   */
  lookInto(files: readonly File[]): Promise<void> {
    return this.#panels.lookInto(files);
  }

  /** @internal Shows how far something is that takes long; nothing when it is done. */
  showProgress(what: LongAct | undefined, done = 0, of = 1): void {
    this.progress = what && page.progress[what](Math.floor((100 * done) / Math.max(1, of)));
  }

  protected override render() {
    return html`
      <div class="top" part="top" ?inert=${!this.binding}>
        <h2>
          <slot name="title">${page.title}</slot
          >${drawerChoice(this, this.#following.drawers, () => void this.#following.readDrawers())}
        </h2>
        ${stateView(this, (changes) => this.#setRules(changes))}
        <span class="ways" part="ways">
          <input
            type="search"
            aria-label=${page.find.name}
            placeholder=${page.find.short}
            .value=${this.viewModel?.words ?? ""}
            @input=${(event: Event) => this.#find((event.target as HTMLInputElement).value)}
          />
          ${this.#panels.menu.view()}
        </span>
      </div>
      ${keepingView(this)}
      <div class="sides">
        ${this.#panels.view()}
        <div class="side">
          ${
            this.viewModel?.count === 0
              ? html`<div class="none"><slot name="empty">${page.nothingYet}</slot></div>`
              : this.#list.view()
          }
          ${this.#intake.view()}
        </div>
        ${noticeLine(this, this.result, this.progress)} ${this.#composerDrawing.view()}
        ${divider(this.arrangement, this)}
      </div>
    `;
  }

  /** @internal */
  show(row: ListRow, isEdited = false): void {
    void this.#panels.show(row, isEdited);
  }

  /** @internal Shows what the form where the user is would get. */
  async planFill(): Promise<void> {
    await this.#panels.planFill(await this.chosenPick());
  }

  /** @internal Does something in the drawer, and tells how it went. */
  act(action: (drawer: Drawer) => Promise<readonly Notice[]>): void {
    void this.acting(action);
  }

  /** @internal The same, and settles when it is done. */
  async acting(action: (drawer: Drawer) => Promise<readonly Notice[]>): Promise<void> {
    await this.binding?.act(() => action(this.viewModel!.drawer));
  }

  #setRules(changes: Partial<Rules>): void {
    this.act(async (drawer) => {
      const { setRules } = await import("./panels/set-rules.js");
      return setRules(drawer, changes);
    });
  }

  #find(words: string): void {
    this.#panels.close();
    // What is found begins at its top, wherever one had scrolled to.
    this.#list.toTop();
    void this.viewModel?.look(words);
  }

  /** @internal */
  takeSuggestion(): void {
    void this.#composerDrawing.takeSuggestion();
  }

  /** @internal */
  choosePicked(): void {
    this.#composer.choosePicked();
  }

  /** @internal How many snippets the sentence speaks of. */
  get chosenCount(): number {
    return this.#composer.count;
  }

  /** @internal Which snippets the sentence speaks of. */
  chosenPick(): Promise<string> {
    return this.#composer.pick();
  }

  /** @internal The look that a lone snippet is placed in. */
  get styleOfOne(): Recipe {
    return this.#composer.styleOfOne;
  }
}

/** Settles when what is under way is done. A timer would wait for long where the page is hidden. */
function endOfTurn(): Promise<void> {
  return new Promise((done) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      done();
    };
    port2.postMessage(undefined);
  });
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
