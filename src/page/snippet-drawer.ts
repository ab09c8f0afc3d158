import { html, LitElement, nothing, type PropertyValues } from "lit";
import { repeat } from "lit/directives/repeat.js";
import { unsafeHTML } from "lit/directives/unsafe-html.js";
import type { Block } from "../compose/block.js";
import { compose } from "../compose/compose.js";
import type { Fit } from "../compose/recipe.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { writeText } from "../formats/text/write.js";
import type { Drawer } from "../drawer/drawer.js";
import { masked, type Snippet } from "../drawer/selection.js";
import type { Rules } from "../drawer/model/rules.js";
import { many, namedAll } from "../messages/en/phrases.js";
import type { Positioned } from "../drawer/store.js";
import type { Binding, ActionResult } from "./binding.js";
import { styles } from "./styles.js";
import { gonePanel, rulesPanel } from "./panels.js";
import { rowOf, type ListRow, type RowActions } from "./row.js";
import { readTransfer } from "./selection.js";
import { FOUND, ListViewModel, type Selection } from "./list-view-model.js";
import {
  CITE_WORDS,
  DEFAULT_CHOICES,
  LAYOUT_WORDS,
  recipeOfChoices,
  STYLE_WORDS,
  TIDY_WORDS,
  type SentenceChoices,
} from "./sentence.js";

/** How high a row of the run is, in ems; all are the same, so that only those that can be seen need to be there. */
const ROW = 5.6;
/** How many snippets are shown as they will land; more are placed, but nobody reads so far. */
const SHOWN = 60;

/** How many snippets may go by a change of rules without a question. */
const FEW = 3;

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
    said: { state: true },
    which: { state: true },
    block: { state: true },
  };

  declare binding: Binding | undefined;
  declare private panel: Panel | undefined;
  /** What private snippets say that the user wants to see, by id. */
  declare private revealed: ReadonlyMap<string, string>;
  declare private told: ActionResult | undefined;
  declare private said: SentenceChoices;
  declare private which: Selection;
  /** What lands: of what is chosen, as much as is shown. */
  declare private block: Block | undefined;
  /** What of the drawer is in sight. */
  #sight: ListViewModel | undefined;
  #stops: (() => void)[] = [];
  #composing = 0;
  /** Settles when the block is the one of what is chosen. */
  #ready: Promise<void> = Promise.resolve();
  /** The position of the snippet that gets the focus once the drawer has been read again. */
  #focusNext: number | undefined;

  constructor() {
    super();
    this.revealed = new Map();
    this.said = DEFAULT_CHOICES;
    this.which = "all";
    this.addEventListener("paste", (event) => this.#given(event, event.clipboardData));
    this.addEventListener("dragover", (event) => event.preventDefault());
    this.addEventListener("drop", (event) => this.#given(event, event.dataTransfer));
  }

  protected override willUpdate(changed: PropertyValues): void {
    if (changed.has("binding")) this.#follow();
    if (["said", "which"].some((name) => changed.has(name))) this.#ready = this.#compose();
  }

  override disconnectedCallback(): void {
    super.disconnectedCallback();
    this.#leave();
  }

  get #count(): number {
    return this.#sight?.count ?? 0;
  }

  get #picked(): readonly Positioned[] {
    return this.#sight?.picked ?? [];
  }

  #leave(): void {
    for (const stop of this.#stops.splice(0)) stop();
  }

  #follow(): void {
    this.#leave();
    const { binding } = this;
    if (!binding) return;
    const fitAgain = () => (this.#ready = this.#compose());
    document.addEventListener("focusin", fitAgain);
    this.#sight = new ListViewModel(
      binding.drawer,
      () => ({ top: this.#topRow(), seen: this.#rowsSeen() }),
      () => this.requestUpdate(),
    );
    this.#stops = [
      binding.drawer.watch(() => void this.#read()),
      binding.listen((told) => (this.told = told)),
      () => document.removeEventListener("focusin", fitAgain),
    ];
    void this.#read();
  }

  /** Reads the drawer again, and brings into sight what has come, or what is to have the focus. */
  async #read(): Promise<void> {
    const sight = this.#sight!;
    const grown = await sight.read({ gone: this.panel === "gone" });
    if (sight.picked.length === 0 && this.which === "picked") this.which = "all";
    this.#ready = this.#compose();
    await this.updateComplete;
    if (grown) await this.#scrollTo(sight.count - 1);
    const next = this.#focusNext;
    this.#focusNext = undefined;
    if (next !== undefined) await this.#go(Math.min(next, sight.count));
  }

  /** Makes the block of what is shown, for the place it would land in; what is private is masked in it. */
  async #compose(): Promise<void> {
    if (!this.#sight) return;
    const composing = ++this.#composing;
    try {
      const snippets = await this.#sight.drawer.read(await this.#sight.chosen(this.which, SHOWN));
      if (composing === this.#composing) this.block = this.#blockOf(snippets.map(masked));
    } catch (error) {
      // A snippet may be forgotten between being listed and being read; the drawer is read again then.
      if (!(error instanceof DrawerError)) throw error;
      this.told = { notices: [], error };
    }
  }

  #blockOf(snippets: readonly Snippet[]): Block {
    const { target } = this.binding!;
    const fit: Fit =
      target instanceof HTMLInputElement ? "line" : target instanceof HTMLTextAreaElement ? "plain" : "page";
    return compose(snippets, { ...recipeOfChoices(this.said), fit });
  }

  #given(event: Event, transfer: DataTransfer | null): void {
    if (!transfer || !this.binding) return;
    event.preventDefault();
    void this.binding.collect(readTransfer(transfer), { app: "another window" });
  }

  protected override render() {
    const collecting = this.#sight?.rules?.collecting ?? true;
    return html`
      <header>
        <h2>Drawer</h2>
        <span class="state">
          ${collecting ? "Collects what you copy. " : "Does not collect. "}
          <button @click=${() => this.#setRules({ collecting: !collecting })}>
            ${collecting ? "Pause" : "Resume"}
          </button>
        </span>
      </header>
      <div class="ways">
        <input
          type="search"
          aria-label="Find in the drawer"
          placeholder="Find"
          .value=${this.#sight?.words ?? ""}
          @input=${(event: Event) => this.#lookFor((event.target as HTMLInputElement).value)}
        />
        ${this.#opener("gone", "What left")} ${this.#opener("rules", "Rules")}
      </div>
      ${
        this.#count === 0 && !this.panel
          ? html`<p class="none">
              Nothing here yet. Select something and copy it; it will stand here, numbered, in the order of
              gathering.
            </p>`
          : nothing
      }
      <div class="sides">
        <div class="side">
          ${this.#left()}
          <p class="told ${this.told?.error ? "refused" : ""}">
            <span>${this.#toldLast()}</span>
            <button @click=${this.#undoLast}>Undo</button>
          </p>
        </div>
        <section class="put-down" aria-label="Put down">${this.#sentence()} ${this.#landing()}</section>
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

  #opener(panel: Panel, name: string) {
    const open = () => {
      this.panel = this.panel === panel ? undefined : panel;
      void this.#read();
    };
    return html`<button aria-expanded=${this.panel === panel} @click=${open}>${name}</button>`;
  }

  /** The run, what was found, or what is looked at in place of it. */
  #left() {
    const sight = this.#sight;
    if (this.panel === "rules" && sight?.rules)
      return rulesPanel(sight.rules, (changes) => this.#setRules(changes));
    if (this.panel === "gone") {
      return gonePanel(sight?.gone ?? [], {
        restore: (position) => this.#act((drawer) => drawer.restore(String(position))),
        empty: () => this.#act((drawer) => drawer.empty()),
        forget: () => this.#forget(),
      });
    }
    return sight?.found ? this.#foundRows(sight.found) : this.#run();
  }

  #foundRows(found: readonly ListRow[]) {
    const count =
      found.length === FOUND
        ? `The newest ${FOUND} that hold`
        : `${many(found.length)} ${found.length === 1 ? "holds" : "hold"}`;
    return html`
      <p class="note found" role="status">
        ${found.length === 0 ? "Nothing holds" : count} “${this.#sight!.words.trim()}”.
      </p>
      <ol class="run" aria-label="Snippets found, the newest first" @keydown=${this.#key}>
        ${repeat(
          found,
          ({ entry }) => entry.id,
          (row) => this.#row(row),
        )}
      </ol>
    `;
  }

  /** The rows that can be seen, and some to spare; the rest is room. */
  #run() {
    const { rows = [], from = 0 } = this.#sight ?? {};
    const room = (rows: number) =>
      html`<div
        class="room"
        role="presentation"
        aria-hidden="true"
        style="height: ${Math.max(0, rows) * ROW}em"
      ></div>`;
    return html`
      <ol
        class="run"
        aria-label="Snippets, in order"
        @keydown=${this.#key}
        @scroll=${() => void this.#sight!.readRows()}
      >
        ${room(from)}
        ${repeat(
          rows,
          ({ entry }) => entry.id,
          (row) => this.#row(row),
        )}
        ${room(this.#count - from - rows.length)}
      </ol>
    `;
  }

  #row(row: ListRow) {
    const turn = this.#picked.findIndex(({ entry }) => entry.id === row.entry.id) + 1;
    return rowOf(row, { count: this.#count, turn, revealed: this.revealed.get(row.entry.id) }, this.#deeds);
  }

  readonly #deeds: RowActions = {
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
    const { as, style, tidy, cite } = this.said;
    const count = this.#count;
    const which = {
      ...(this.#picked.length > 0 && {
        picked: this.#picked.length === 1 ? "the one picked" : `the ${this.#picked.length} picked`,
      }),
      all: count === 1 ? "the one snippet" : `all ${count} snippets`,
      last: "the latest snippet",
    };
    return html`
      <p class="sentence">
        Place ${choice("Which snippets", which, this.which, (name) => (this.which = name))} as
        ${choice("Laid out as", LAYOUT_WORDS, as, (name) => this.#say({ as: name }), ",")} in
        ${choice("Look", STYLE_WORDS, style, (name) => this.#say({ style: name }), ",")}
        ${choice("Tidying", TIDY_WORDS, tidy, (name) => this.#say({ tidy: name }), ",")}
        ${choice("Sources", CITE_WORDS, cite, (name) => this.#say({ cite: name }), ".")}
      </p>
    `;
  }

  #say(word: Partial<SentenceChoices>): void {
    this.said = { ...this.said, ...word };
  }

  /** What lands is shown from the very block that is placed. Its HTML is written from content, which can hold no script. */
  #landing() {
    const more = (this.#sight?.chosenCount(this.which) ?? 0) - SHOWN;
    return html`
      <div class="landing" aria-label="As it will land" role="region" tabindex="0">
        ${unsafeHTML(this.block?.html ?? "")}
        ${this.block?.notices.map(({ message }) => html`<p class="note">${message}</p>`)}
        ${more > 0 ? html`<p class="note">… and ${more.toLocaleString()} more, which are placed too.</p>` : nothing}
      </div>
      <button class="go" ?disabled=${this.#count === 0} @click=${this.#place}>Place at the caret</button>
    `;
  }

  #rowsSeen(): number {
    const run = this.renderRoot.querySelector(".run");
    return run?.clientHeight ? Math.ceil(run.clientHeight / this.#rowHeight()) : 12;
  }

  /** How many rows are scrolled past. */
  #topRow(): number {
    const run = this.#sight?.found ? null : this.renderRoot.querySelector(".run");
    return run ? Math.floor(run.scrollTop / this.#rowHeight()) : 0;
  }

  #rowHeight(): number {
    return ROW * Number.parseFloat(getComputedStyle(this).fontSize);
  }

  /** Brings a row into sight. */
  async #scrollTo(row: number): Promise<void> {
    const run = this.renderRoot.querySelector(".run");
    if (!run || this.#sight?.found) return;
    const height = this.#rowHeight();
    if (row * height < run.scrollTop) run.scrollTop = row * height;
    else if ((row + 1) * height > run.scrollTop + run.clientHeight)
      run.scrollTop = (row + 1) * height - run.clientHeight;
    await this.#sight!.readRows();
    await this.updateComplete;
  }

  #act(deed: (drawer: Drawer) => Promise<readonly Notice[]>): void {
    void this.binding?.act(() => deed(this.#sight!.drawer));
  }

  /** Takes back what was said last: a placing where it was placed, anything else in the drawer. */
  #undoLast(): void {
    if (this.told?.notices.some(({ code }) => code === "placed")) void this.binding?.takeBack();
    else this.#act((drawer) => drawer.undo());
  }

  /** Changes rules; when many snippets would go by it, the user is asked first. */
  #setRules(changes: Partial<Rules>): void {
    this.#act(async (drawer) => {
      const leaving = await drawer.wouldLeave(changes);
      const question = `This takes ${many(leaving.length)} out: ${namedAll(leaving)}. Go on?`;
      if (leaving.length > FEW && !confirm(question)) return [notice("rule/unchanged", {})];
      return drawer.setRules(changes);
    });
  }

  #lookFor(words: string): void {
    this.panel = undefined;
    void this.#sight?.look(words);
  }

  /** Forgets for good what is not kept, once the user has said so twice. */
  #forget(): void {
    if (confirm("Forget for good all that is not kept, and all that has left? Nothing brings it back."))
      this.#act((drawer) => drawer.emptyForGood());
  }

  #pick(row: ListRow): void {
    this.#sight!.pick(row);
    this.which = this.#picked.length > 0 ? "picked" : "all";
    this.#ready = this.#compose();
  }

  async #reveal(row: ListRow): Promise<void> {
    const { id } = row.entry;
    const revealed = new Map(this.revealed);
    if (!revealed.delete(id)) {
      const [snippet] = await this.#sight!.drawer.read([row]);
      revealed.set(id, writeText(snippet!.content));
    }
    this.revealed = revealed;
  }

  #placeOne(row: ListRow): void {
    void this.binding?.place(
      async () => compose(await this.#sight!.drawer.read([row])),
      `snippet ${row.position}`,
    );
  }

  #place(): void {
    const count = this.#sight!.chosenCount(this.which);
    void this.binding?.place(async () => {
      await this.#ready;
      const chosen = await this.#sight!.chosen(this.which);
      const isShown = this.block && chosen.length <= SHOWN && chosen.every(({ entry }) => !entry.private);
      return isShown ? this.block! : this.#blockOf(await this.#sight!.drawer.read(chosen));
    }, many(count));
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

  /** In the run: arrows go from snippet to snippet, with Alt they move it; P picks, K keeps; Delete discards; Ctrl+Z undoes. */
  #key(event: KeyboardEvent): void {
    const item = (event.target as Element).closest("li");
    const row = (this.#sight?.found ?? this.#sight?.rows ?? []).find(
      ({ entry }) => entry.id === item?.dataset["id"],
    );
    if (!item || !row || !this.binding) return;
    const { position } = row;
    const isPlain = !event.ctrlKey && !event.metaKey && !event.altKey;
    const next = (step: 1 | -1) => {
      const sibling = step === 1 ? item.nextElementSibling : item.previousElementSibling;
      if (this.#sight?.found) (sibling?.querySelector(".snippet") as HTMLElement | null)?.focus();
      else void this.#go(position + step);
    };
    const key = event.key.toLowerCase();
    if (event.altKey && key === "arrowdown" && position < this.#count) this.#move(position, position + 2);
    else if (event.altKey && key === "arrowup" && position > 1) this.#move(position, position - 1);
    else if (event.altKey) return;
    else if (key === "arrowdown") next(1);
    else if (key === "arrowup") next(-1);
    else if (key === "delete") this.#discard(position);
    else if (key === "z" && (event.ctrlKey || event.metaKey))
      this.#act((drawer) => (event.shiftKey ? drawer.redo() : drawer.undo()));
    else if (key === "p" && isPlain) this.#pick(row);
    else if (key === "k" && isPlain) this.#deeds.keep(row);
    else return;
    event.preventDefault();
  }
}

/** A word of the sentence: what it says, what else it could say, and the sign that stands after it. */
function choice<Name extends string>(
  label: string,
  words: Partial<Record<Name, string>>,
  chosen: Name,
  choose: (name: Name) => void,
  sign = "",
) {
  const options = Object.entries(words) as [Name, string][];
  const changed = (event: Event) => choose((event.target as HTMLSelectElement).value as Name);
  return html`<span class="word"
    ><select aria-label=${label} .value=${chosen} @change=${changed}>
      ${options.map(([name, said]) => html`<option value=${name} ?selected=${name === chosen}>${said}</option>`)}</select
    >${sign}</span
  >`;
}

customElements.define("snippet-drawer", SnippetDrawer);

declare global {
  interface HTMLElementTagNameMap {
    "snippet-drawer": SnippetDrawer;
  }
}
