import { sources } from "../messages/en/content.js";
import { html, LitElement, nothing, type PropertyValues } from "lit";
import { repeat } from "lit/directives/repeat.js";
import { unsafeHTML } from "lit/directives/unsafe-html.js";
import { compose } from "../compose/compose.js";
import type { Fit, Recipe } from "../compose/recipe.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Rules } from "../drawer/model/rules.js";
import type { Positioned } from "../drawer/store.js";
import { writeText } from "../formats/text/write.js";
import { page } from "../messages/en/page.js";
import { many } from "../messages/en/phrases.js";
import type { ActionResult, Binding } from "./binding.js";
import { BlockPreview } from "./block-preview.js";
import { FOUND, ListViewModel, type Selection, type Viewport } from "./list-view-model.js";
import { gonePanel, rulesPanel } from "./panels.js";
import { rowOf, type ListRow, type RowActions } from "./row.js";
import { actionOfKey, type RunAction } from "./run-keys.js";
import { readTransfer } from "./selection.js";
import { DEFAULT_CHOICES, recipeOfChoices, sentenceView, type SentenceChoices } from "./sentence.js";
import { styles } from "./styles.js";
import { VirtualList } from "./virtual-list.js";

/** How many snippets may go by a change of rules without a question. */
const FEW = 3;

/** The attribute in which a look stands until it is set. */
const LOOK = "data-look";

/** HTML as it is written here, in which no `>` stands in an attribute, with its looks in an attribute of their own. */
function withLooks(html: string): string {
  return html.replace(/<[^>]*>/g, (tag) => tag.replace(' style="', ` ${LOOK}="`));
}

/** What stands in place of the run. */
type Panel = "rules" | "gone";

/**
 * `<snippet-drawer>`: the collection made visible. Above stands the run of snippets, numbered in their order, or those
 * that hold the words one looks for; choosing one places it at the caret, and its number picks it, in the order of
 * picking. Below stand the sentence that says what is placed and how, and the block as it will land. Only the rows in
 * sight are read, so the drawer may be of any size. Give it a {@link Binding} as its property `binding`.
 */
export class SnippetDrawer extends LitElement {
  /** The style sheet of its shadow tree. */
  static override styles = styles;
  static override properties = {
    binding: { attribute: false },
    panel: { state: true },
    revealed: { state: true },
    told: { state: true },
    choices: { state: true },
    which: { state: true },
  };

  declare binding: Binding | undefined;
  declare private panel: Panel | undefined;
  /** What private snippets say that the user wants to see, by id. */
  declare private revealed: ReadonlyMap<string, string>;
  declare private told: ActionResult | undefined;
  declare private choices: SentenceChoices;
  declare private which: Selection;
  readonly #list = new VirtualList(this);
  /** What of the drawer is in sight. */
  #viewModel: ListViewModel | undefined;
  #preview: BlockPreview | undefined;
  #unsubscribe: (() => void)[] = [];
  /** The position of the snippet that gets the focus once the drawer has been read again. */
  #focusNext: number | undefined;

  constructor() {
    super();
    this.revealed = new Map();
    this.choices = DEFAULT_CHOICES;
    this.which = "all";
    this.addEventListener("paste", (event) => {
      // What is pasted into a field of the drawer itself is for that field.
      if ((event.composedPath()[0] as Element).localName !== "input") this.#given(event, event.clipboardData);
    });
    this.addEventListener("dragover", (event) => event.preventDefault());
    this.addEventListener("drop", (event) => this.#given(event, event.dataTransfer));
  }

  protected override willUpdate(changed: PropertyValues): void {
    if (changed.has("binding")) this.#follow();
    if (changed.has("choices") || changed.has("which")) void this.#compose();
  }

  override connectedCallback(): void {
    super.connectedCallback();
    // A part of the page that one finds by its name.
    if (!this.hasAttribute("role")) this.setAttribute("role", "region");
    if (!this.hasAttribute("aria-label")) this.setAttribute("aria-label", page.title);
    // One that was taken out and put back, or elsewhere, goes on.
    if (this.hasUpdated) this.#follow();
  }

  /** A page may forbid style attributes; its own scripts may set looks all the same. */
  protected override updated(): void {
    for (const element of this.renderRoot.querySelectorAll<HTMLElement>(`.landing [${LOOK}]`)) {
      element.style.cssText = element.getAttribute(LOOK)!;
      element.removeAttribute(LOOK);
    }
  }

  override disconnectedCallback(): void {
    super.disconnectedCallback();
    this.#leave();
  }

  get #count(): number {
    return this.#viewModel?.count ?? 0;
  }

  get #picked(): readonly Positioned[] {
    return this.#viewModel?.picked ?? [];
  }

  #leave(): void {
    for (const unsubscribe of this.#unsubscribe.splice(0)) unsubscribe();
  }

  #follow(): void {
    this.#leave();
    const { binding } = this;
    if (!binding) return;
    const compose = () => void this.#compose();
    const redraw = () => this.requestUpdate();
    const viewModel = new ListViewModel(binding.drawer, () => this.#viewport(), redraw);
    this.#viewModel = viewModel;
    this.#preview = new BlockPreview(viewModel, () => this.#recipe(), redraw);
    this.#unsubscribe = [
      binding.drawer.watch(() => void this.#read()),
      binding.listen((told) => (this.told = told)),
      binding.follow(compose),
    ];
    void this.#read();
  }

  /** What was found begins at its top, wherever the run was scrolled to. */
  #viewport(): Viewport {
    const { top, seen } = this.#list.viewport;
    return { top: this.#viewModel?.found ? 0 : top, seen };
  }

  /** Reads the drawer again, and brings into sight what has come, or what is to have the focus. */
  async #read(): Promise<void> {
    const viewModel = this.#viewModel!;
    const grown = await viewModel.read({ gone: this.panel === "gone" });
    if (viewModel.picked.length === 0 && this.which === "picked") this.which = "all";
    void this.#compose();
    await this.updateComplete;
    if (grown) await this.#scrollTo(viewModel.count - 1);
    const next = this.#focusNext;
    this.#focusNext = undefined;
    if (next !== undefined) await this.#go(Math.min(next, viewModel.count));
  }

  /** Composes the block for the place it would land in. */
  async #compose(): Promise<void> {
    try {
      await this.#preview?.refresh(this.which);
    } catch (error) {
      // A snippet may be forgotten between being listed and being read; the drawer is read again then.
      if (!(error instanceof DrawerError)) throw error;
      this.told = { notices: [], error };
    }
  }

  #recipe(): Recipe {
    return { ...recipeOfChoices(this.choices), fit: this.binding?.target?.fit ?? "page" };
  }

  #given(event: Event, transfer: DataTransfer | null): void {
    if (!transfer || !this.binding) return;
    event.preventDefault();
    void this.binding.collect(readTransfer(transfer), { app: sources.otherWindow });
  }

  protected override render() {
    const collecting = this.#viewModel?.rules?.collecting ?? true;
    const find = (event: Event) => this.#find((event.target as HTMLInputElement).value);
    return html`
      <div class="top">
        <h2>${page.title}</h2>
        <span class="state">
          ${page.state(collecting)}
          <button @click=${() => this.#setRules({ collecting: !collecting })}>
            ${page.switchState(collecting)}
          </button>
        </span>
      </div>
      <div class="ways">
        <input
          type="search"
          aria-label=${page.find.name}
          placeholder=${page.find.short}
          .value=${this.#viewModel?.words ?? ""}
          @input=${find}
        />
        ${this.#opener("gone")} ${this.#opener("rules")}
      </div>
      ${this.#count === 0 && !this.panel ? html`<p class="none">${page.nothingYet}</p>` : nothing}
      <div class="sides">
        <div class="side">
          ${this.#left()}
          <p class="told ${this.told?.error ? "refused" : ""}">
            <span>${this.#toldLast()}</span>
            <button @click=${this.#undoLast}>${page.undo}</button>
          </p>
        </div>
        <section class="put-down" aria-label=${page.putDown}>${this.#sentence()} ${this.#landing()}</section>
      </div>
    `;
  }

  /** What is said last; that something left stands before all else. */
  #toldLast(): string {
    const { error, notices = [] } = this.told ?? {};
    if (error) return error.message;
    const leaving = notices.find(({ code }) => code === "made-room" || code === "aged");
    return [notices.findLast((notice) => notice !== leaving), leaving]
      .map((notice) => notice?.message ?? "")
      .join(" ");
  }

  #opener(panel: Panel) {
    const open = () => {
      this.panel = this.panel === panel ? undefined : panel;
      void this.#read();
    };
    return html`<button aria-expanded=${this.panel === panel} @click=${open}>${page.panels[panel]}</button>`;
  }

  /** The run, what was found, or what is looked at in place of it. */
  #left() {
    const viewModel = this.#viewModel;
    if (this.panel === "rules" && viewModel?.rules)
      return rulesPanel(viewModel.rules, (changes) => this.#setRules(changes));
    if (this.panel === "gone") {
      return gonePanel(viewModel?.gone ?? [], {
        restore: (position) => this.#act((drawer) => drawer.restore(String(position))),
        empty: () => this.#act((drawer) => drawer.empty()),
        forget: () => this.#forget(),
      });
    }
    return viewModel?.found ? this.#foundRows(viewModel.found) : this.#run();
  }

  #foundRows(found: readonly ListRow[]) {
    const words = this.#viewModel!.words.trim();
    return html`
      <p class="note found" role="status">${page.found({ count: found.length, words, most: FOUND })}</p>
      <ol class="run" aria-label=${page.foundRun} @keydown=${this.#key}>
        ${repeat(
          found,
          ({ entry }) => entry.id,
          (row) => this.#row(row),
        )}
      </ol>
    `;
  }

  #run() {
    const { rows = [], from = 0 } = this.#viewModel ?? {};
    const scrolled = () => void this.#viewModel!.readRows();
    return html`
      <ol class="run" aria-label=${page.run} @keydown=${this.#key} @scroll=${scrolled}>
        ${this.#list.view({ rows, from, count: this.#count }, (row) => this.#row(row))}
      </ol>
    `;
  }

  #row(row: ListRow) {
    const turn = this.#picked.findIndex(({ entry }) => entry.id === row.entry.id) + 1;
    return rowOf(row, { count: this.#count, turn, revealed: this.revealed.get(row.entry.id) }, this.#actions);
  }

  readonly #actions: RowActions = {
    pick: (row) => this.#pick(row),
    place: (row) => this.#placeOne(row),
    move: (row, before) => this.#move(row.position, before),
    keep: ({ position, entry }) =>
      this.#act((drawer) => (entry.kept ? drawer.release(String(position)) : drawer.keep(String(position)))),
    hide: ({ position, entry }) =>
      this.#act((drawer) =>
        entry.private ? drawer.unhide(String(position)) : drawer.hide(String(position)),
      ),
    reveal: (row) => void this.#reveal(row),
    discard: ({ position }) => this.#discard(position),
  };

  #sentence() {
    return sentenceView({
      choices: this.choices,
      which: this.which,
      count: this.#count,
      picked: this.#picked.length,
      choose: (choices) => (this.choices = choices),
      chooseWhich: (which) => (this.which = which),
    });
  }

  /** What lands is shown from the very block that is placed. Its HTML is written from content, which can hold no script. */
  #landing() {
    const block = this.#preview?.block;
    const shown = this.#preview?.shown;
    const more = this.#preview?.notShown(this.which) ?? 0;
    return html`
      <div class="landing" aria-label=${page.landing} role="region" tabindex="0">
        ${unsafeHTML(withLooks(shown?.html ?? ""))}
        ${shown?.isCut ? html`<p class="note">${page.moreOfIt}</p>` : nothing}
        ${block?.notices.map(({ message }) => html`<p class="note">${message}</p>`)}
        ${more > 0 ? html`<p class="note">${page.more(more)}</p>` : nothing}
      </div>
      <p class="note lands">${this.#landsIn()}</p>
      <button class="go" ?disabled=${this.#count === 0} @click=${this.#place}>${page.place}</button>
    `;
  }

  #landsIn(): string {
    const name = this.binding?.targetName;
    return name === undefined ? page.landsNowhere : page.landsIn(name);
  }

  /** Brings a row of the run into sight. */
  async #scrollTo(row: number): Promise<void> {
    if (this.#viewModel?.found) return;
    this.#list.scrollTo(row);
    await this.#viewModel!.readRows();
    await this.updateComplete;
  }

  #act(action: (drawer: Drawer) => Promise<readonly Notice[]>): void {
    void this.binding?.act(() => action(this.#viewModel!.drawer));
  }

  /** Takes back what was said last: a placing where it was placed, anything else in the drawer. */
  #undoLast(): void {
    void this.binding?.undo();
  }

  /** Changes rules; when many snippets would go by it, the user is asked first. */
  #setRules(changes: Partial<Rules>): void {
    this.#act(async (drawer) => {
      const leaving = await drawer.wouldLeave(changes);
      if (leaving.length > FEW && !confirm(page.askChange(leaving))) return [notice("rule/unchanged", {})];
      return drawer.setRules(changes);
    });
  }

  #find(words: string): void {
    this.panel = undefined;
    void this.#viewModel?.look(words);
  }

  /** Forgets for good what is not kept, once the user has said so twice. */
  #forget(): void {
    if (confirm(page.askForget)) this.#act((drawer) => drawer.emptyForGood());
  }

  #pick(row: ListRow): void {
    this.#viewModel!.pick(row);
    this.which = this.#picked.length > 0 ? "picked" : "all";
    void this.#compose();
  }

  async #reveal(row: ListRow): Promise<void> {
    const { id } = row.entry;
    const revealed = new Map(this.revealed);
    if (!revealed.delete(id)) {
      const [snippet] = await this.#viewModel!.drawer.read([row]);
      revealed.set(id, writeText(snippet!.content));
    }
    this.revealed = revealed;
  }

  #placeOne(row: ListRow): void {
    const { style } = recipeOfChoices(this.choices);
    const block = async (fit: Fit) =>
      compose(await this.#viewModel!.drawer.read([row]), { ...(style && { style }), fit });
    void this.binding?.place(block, page.snippet(row.position));
  }

  #place(): void {
    const block = () => this.#preview!.whole(this.which);
    void this.binding?.place(block, many(this.#viewModel!.chosenCount(this.which)));
  }

  #move(position: number, before: number): void {
    this.#focusNext = before > position ? position + 1 : position - 1;
    const to = before > this.#count ? ("end" as const) : { position: before };
    this.#act((drawer) => drawer.move(String(position), to));
  }

  #discard(position: number): void {
    this.#focusNext = position;
    this.#act((drawer) => drawer.discard(String(position)));
  }

  /** Gives a snippet the focus. */
  async #go(position: number): Promise<void> {
    await this.#scrollTo(position - 1);
    this.renderRoot.querySelector<HTMLElement>(`[data-position="${position}"] .snippet`)?.focus();
  }

  #key(event: KeyboardEvent): void {
    const item = (event.target as Element).closest("li");
    const row = (this.#viewModel?.found ?? this.#viewModel?.rows ?? []).find(
      ({ entry }) => entry.id === item?.dataset["id"],
    );
    const action = actionOfKey(event);
    if (!item || !row || !action || !this.binding) return;
    this.#perform(action, row, item);
    event.preventDefault();
  }

  #perform(action: RunAction, row: ListRow, item: Element): void {
    const { position } = row;
    switch (action) {
      case "next":
        return this.#goBeside(row, item.nextElementSibling, 1);
      case "previous":
        return this.#goBeside(row, item.previousElementSibling, -1);
      case "later":
        if (position < this.#count) this.#move(position, position + 2);
        return;
      case "earlier":
        if (position > 1) this.#move(position, position - 1);
        return;
      case "pick":
        return this.#pick(row);
      case "keep":
        return this.#actions.keep(row);
      case "discard":
        return this.#discard(position);
      case "undo":
        return this.#act((drawer) => drawer.undo());
      case "redo":
        return this.#act((drawer) => drawer.redo());
    }
  }

  /** Gives the focus to the row beside: in the run the next position, in what was found the next one found. */
  #goBeside({ position }: ListRow, sibling: Element | null, step: 1 | -1): void {
    if (this.#viewModel?.found) sibling?.querySelector<HTMLElement>(".snippet")?.focus();
    else void this.#go(position + step);
  }
}

customElements.define("snippet-drawer", SnippetDrawer);

declare global {
  interface HTMLElementTagNameMap {
    "snippet-drawer": SnippetDrawer;
  }
}
