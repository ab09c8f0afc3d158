import { html, LitElement, nothing, type PropertyValues } from "lit";
import { repeat } from "lit/directives/repeat.js";
import { unsafeHTML } from "lit/directives/unsafe-html.js";
import type { Block } from "../compose/block.js";
import { compose } from "../compose/compose.js";
import type { Fit } from "../compose/recipe.js";
import { paragraph } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import { writeText } from "../content/write/text.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Snippet } from "../drawer/picking.js";
import type { Rules } from "../drawer/rules.js";
import { many } from "../drawer/saying.js";
import { MASK } from "../drawer/secret.js";
import type { Gone, Positioned } from "../drawer/store.js";
import type { Binding, Told } from "./binding.js";
import { looks } from "./looks.js";
import { gonePanel, rulesPanel } from "./panels.js";
import { rowOf, type Row, type RowDeeds } from "./row.js";
import { readTransfer } from "./selection.js";
import {
  CITE_WORDS,
  FIRST_SAID,
  LAYOUT_WORDS,
  recipeSaid,
  STYLE_WORDS,
  TIDY_WORDS,
  type Said,
} from "./sentence.js";

/** How high a row of the run is, in ems; all are the same, so that only those that can be seen need to be there. */
const ROW = 5.6;
/** How many rows are there beyond those that can be seen, on either side. */
const SPARE = 12;
/** How many snippets are shown as they will land; more are placed, but nobody reads so far. */
const SHOWN = 60;
/** How many snippets are found at once, the newest. */
const FOUND = 100;

/** Which snippets the sentence speaks of. */
type Which = "picked" | "all" | "last";

/** What stands in place of the run. */
type Panel = "rules" | "gone";

/**
 * `<snippet-drawer>`: the collection made visible. Above stands the run of snippets, numbered in their order, or those
 * that hold the words one looks for; choosing one places it at the caret, and its number picks it, in the order of
 * picking. Below stand the sentence that says what is placed and how, and the block as it will land. Only the rows in
 * sight are read, so the drawer may be of any size. Give it a {@link Binding} as its property `binding`.
 */
export class SnippetDrawer extends LitElement {
  static override styles = looks;
  static override properties = {
    binding: { attribute: false },
    count: { state: true },
    rows: { state: true },
    from: { state: true },
    words: { state: true },
    found: { state: true },
    panel: { state: true },
    rules: { state: true },
    gone: { state: true },
    picked: { state: true },
    revealed: { state: true },
    told: { state: true },
    said: { state: true },
    which: { state: true },
    block: { state: true },
  };

  declare binding: Binding | undefined;
  /** How many snippets there are. */
  declare private count: number;
  /** The rows that were read: those in sight, and some to spare. */
  declare private rows: readonly Row[];
  /** How many rows stand before them. */
  declare private from: number;
  /** The words that are looked for. */
  declare private words: string;
  /** Those that hold the words; nothing when none are looked for. */
  declare private found: readonly Row[] | undefined;
  declare private panel: Panel | undefined;
  declare private rules: Rules | undefined;
  declare private gone: readonly (Gone & Positioned)[];
  /** The snippets that are picked, in the order of picking. */
  declare private picked: readonly Positioned[];
  /** What private snippets say that the user wants to see, by id. */
  declare private revealed: ReadonlyMap<string, string>;
  declare private told: Told | undefined;
  declare private said: Said;
  declare private which: Which;
  /** What lands: of what is chosen, as much as is shown. */
  declare private block: Block | undefined;
  #stops: (() => void)[] = [];
  #reading = 0;
  #looking = 0;
  #composing = 0;
  /** Settles when the block is the one of what is chosen. */
  #ready: Promise<void> = Promise.resolve();
  /** The position of the snippet that gets the focus once the drawer has been read again. */
  #focusNext: number | undefined;

  constructor() {
    super();
    this.count = 0;
    this.rows = [];
    this.from = 0;
    this.words = "";
    this.gone = [];
    this.picked = [];
    this.revealed = new Map();
    this.said = FIRST_SAID;
    this.which = "all";
    this.addEventListener("paste", (event) => this.#given(event, event.clipboardData));
    this.addEventListener("dragover", (event) => event.preventDefault());
    this.addEventListener("drop", (event) => this.#given(event, event.dataTransfer));
  }

  protected override willUpdate(changed: PropertyValues): void {
    if (changed.has("binding")) this.#follow();
    if (["picked", "said", "which"].some((name) => changed.has(name))) this.#ready = this.#compose();
  }

  override disconnectedCallback(): void {
    super.disconnectedCallback();
    this.#leave();
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
    this.#stops = [
      binding.drawer.watch(() => void this.#read()),
      binding.listen((told) => (this.told = told)),
      () => document.removeEventListener("focusin", fitAgain),
    ];
    void this.#read();
  }

  get #drawer(): Drawer {
    return this.binding!.drawer;
  }

  /** Reads the drawer again; of several readings under way only the last one counts. */
  async #read(): Promise<void> {
    const reading = ++this.#reading;
    const drawer = this.#drawer;
    const [count, rules, gone] = [
      await drawer.count(),
      await drawer.rules(),
      this.panel === "gone" ? await drawer.gone() : [],
    ];
    const grown = count > this.count;
    const [from, limit] = this.#window(grown ? count - this.#rowsSeen() : this.#topRow());
    const rows = await drawer.list({ first: from + 1, limit });
    const ids = this.picked.map(({ entry }) => entry.id);
    const there = ids.length === 0 ? [] : await drawer.store.entries({ drawer: drawer.name, ids });
    if (reading !== this.#reading) return;
    const byId = new Map(there.map((one) => [one.entry.id, one]));
    Object.assign(this, { count, rules, gone, from, rows, picked: ids.flatMap((id) => byId.get(id) ?? []) });
    if (this.picked.length === 0 && this.which === "picked") this.which = "all";
    if (this.words !== "") void this.#look();
    this.#ready = this.#compose();
    await this.updateComplete;
    if (grown) await this.#scrollTo(count - 1);
    const next = this.#focusNext;
    this.#focusNext = undefined;
    if (next !== undefined) await this.#go(Math.min(next, count));
  }

  /** Which rows to read so that those from `top` on can be seen: after how many, and how many. */
  #window(top: number): [from: number, limit: number] {
    const from = Math.max(0, top - SPARE);
    return [from, top + this.#rowsSeen() + SPARE - from];
  }

  /** Reads the rows in sight, when they are not there. */
  async #readRows(): Promise<void> {
    const top = this.#topRow();
    const isThere =
      top >= this.from && Math.min(this.count, top + this.#rowsSeen()) <= this.from + this.rows.length;
    if (isThere || !this.binding) return;
    const reading = ++this.#reading;
    const [from, limit] = this.#window(top);
    const rows = await this.#drawer.list({ first: from + 1, limit });
    if (reading === this.#reading) Object.assign(this, { from, rows });
    if (this.#topRow() !== top) await this.#readRows();
  }

  /** Looks for the words; of several searches under way only the last one counts. */
  async #look(): Promise<void> {
    const looking = ++this.#looking;
    const found =
      this.words.trim() === ""
        ? undefined
        : await this.#drawer.find(this.words, { limit: FOUND, length: 140 });
    const positioned = found && (await this.#drawer.positioned(found.map(({ entry }) => entry)));
    if (looking !== this.#looking) return;
    const contexts = new Map(found?.map(({ entry, context }) => [entry.id, context]));
    this.found = positioned?.map((one) => ({ ...one, context: contexts.get(one.entry.id)! }));
  }

  /** What the sentence speaks of, in the order in which it is placed; at most so many. */
  async #chosen(limit = Infinity): Promise<readonly Positioned[]> {
    if (this.which === "picked") return this.picked.slice(0, limit);
    if (this.which === "last") return this.#drawer.list({ limit: 1 });
    return this.#drawer.list({ first: 1, ...(Number.isFinite(limit) && { limit }) });
  }

  get #chosenCount(): number {
    return this.which === "picked"
      ? this.picked.length
      : this.which === "last"
        ? Math.min(1, this.count)
        : this.count;
  }

  /** Makes the block of what is shown, for the place it would land in; what is private is masked in it. */
  async #compose(): Promise<void> {
    if (!this.binding) return;
    const composing = ++this.#composing;
    const snippets = await this.#drawer.read(await this.#chosen(SHOWN));
    const masked = snippets.map((one): Snippet =>
      one.entry.private ? { ...one, content: [paragraph(MASK)] } : one,
    );
    const block = this.#blockOf(masked);
    if (composing === this.#composing) this.block = block;
  }

  #blockOf(snippets: readonly Snippet[]): Block {
    const { target } = this.binding!;
    const fit: Fit =
      target instanceof HTMLInputElement ? "line" : target instanceof HTMLTextAreaElement ? "plain" : "page";
    return compose(snippets, { ...recipeSaid(this.said), fit });
  }

  #given(event: Event, transfer: DataTransfer | null): void {
    if (!transfer || !this.binding) return;
    event.preventDefault();
    void this.binding.collect(readTransfer(transfer), { app: "another window" });
  }

  protected override render() {
    const collecting = this.rules?.collecting ?? true;
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
          .value=${this.words}
          @input=${(event: Event) => this.#lookFor((event.target as HTMLInputElement).value)}
        />
        ${this.#opener("gone", "What left")} ${this.#opener("rules", "Rules")}
      </div>
      ${
        this.count === 0 && !this.panel
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
            <button @click=${() => this.#act((drawer) => drawer.undo())}>Undo</button>
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
    if (this.panel === "rules" && this.rules)
      return rulesPanel(this.rules, (changes) => this.#setRules(changes));
    if (this.panel === "gone") {
      return gonePanel(this.gone, {
        restore: (position) => this.#act((drawer) => drawer.restore(String(position))),
        empty: () => this.#act((drawer) => drawer.empty()),
        forget: () => this.#forget(),
      });
    }
    return this.found ? this.#foundRows(this.found) : this.#run();
  }

  #foundRows(found: readonly Row[]) {
    const count =
      found.length === FOUND
        ? `The newest ${FOUND} that hold`
        : `${many(found.length)} ${found.length === 1 ? "holds" : "hold"}`;
    return html`
      <p class="note found" role="status">
        ${found.length === 0 ? "Nothing holds" : count} “${this.words.trim()}”.
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
        @scroll=${() => void this.#readRows()}
      >
        ${room(this.from)}
        ${repeat(
          this.rows,
          ({ entry }) => entry.id,
          (row) => this.#row(row),
        )}
        ${room(this.count - this.from - this.rows.length)}
      </ol>
    `;
  }

  #row(row: Row) {
    const turn = this.picked.findIndex(({ entry }) => entry.id === row.entry.id) + 1;
    return rowOf(row, { count: this.count, turn, revealed: this.revealed.get(row.entry.id) }, this.#deeds);
  }

  readonly #deeds: RowDeeds = {
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
    const { count } = this;
    const which = {
      ...(this.picked.length > 0 && {
        picked: this.picked.length === 1 ? "the one picked" : `the ${this.picked.length} picked`,
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

  #say(word: Partial<Said>): void {
    this.said = { ...this.said, ...word };
  }

  /** What lands is shown from the very block that is placed. Its HTML is written from content, which can hold no script. */
  #landing() {
    const more = this.#chosenCount - SHOWN;
    return html`
      <div class="landing" aria-label="As it will land" role="region" tabindex="0">
        ${unsafeHTML(this.block?.html ?? "")}
        ${this.block?.notices.map(({ message }) => html`<p class="note">${message}</p>`)}
        ${more > 0 ? html`<p class="note">… and ${more.toLocaleString()} more, which are placed too.</p>` : nothing}
      </div>
      <button class="go" ?disabled=${this.count === 0} @click=${this.#place}>Place at the caret</button>
    `;
  }

  #rowsSeen(): number {
    const run = this.renderRoot.querySelector(".run");
    return run?.clientHeight ? Math.ceil(run.clientHeight / this.#rowHeight()) : 12;
  }

  /** How many rows are scrolled past. */
  #topRow(): number {
    const run = this.found ? null : this.renderRoot.querySelector(".run");
    return run ? Math.floor(run.scrollTop / this.#rowHeight()) : 0;
  }

  #rowHeight(): number {
    return ROW * Number.parseFloat(getComputedStyle(this).fontSize);
  }

  /** Brings a row into sight. */
  async #scrollTo(row: number): Promise<void> {
    const run = this.renderRoot.querySelector(".run");
    if (!run || this.found) return;
    const height = this.#rowHeight();
    if (row * height < run.scrollTop) run.scrollTop = row * height;
    else if ((row + 1) * height > run.scrollTop + run.clientHeight)
      run.scrollTop = (row + 1) * height - run.clientHeight;
    await this.#readRows();
    await this.updateComplete;
  }

  #act(deed: (drawer: Drawer) => Promise<readonly Notice[]>): void {
    void this.binding?.act(() => deed(this.#drawer));
  }

  #setRules(changes: Partial<Rules>): void {
    this.#act((drawer) => drawer.setRules(changes));
  }

  #lookFor(words: string): void {
    this.words = words;
    this.panel = undefined;
    void this.#look();
  }

  /** Forgets for good what is not kept, once the user has said so twice. */
  #forget(): void {
    if (confirm("Forget for good all that is not kept, and all that has left? Nothing brings it back."))
      this.#act((drawer) => drawer.emptyForGood());
  }

  #pick(row: Row): void {
    const without = this.picked.filter(({ entry }) => entry.id !== row.entry.id);
    this.picked = without.length < this.picked.length ? without : [...this.picked, row];
    this.which = this.picked.length > 0 ? "picked" : "all";
  }

  async #reveal(row: Row): Promise<void> {
    const { id } = row.entry;
    const revealed = new Map(this.revealed);
    if (!revealed.delete(id)) {
      const [snippet] = await this.#drawer.read([row]);
      revealed.set(id, writeText(snippet!.content));
    }
    this.revealed = revealed;
  }

  #placeOne(row: Row): void {
    void this.binding?.place(async () => compose(await this.#drawer.read([row])), `snippet ${row.position}`);
  }

  #place(): void {
    const count = this.#chosenCount;
    void this.binding?.place(async () => {
      await this.#ready;
      const chosen = await this.#chosen();
      const isShown = this.block && chosen.length <= SHOWN && chosen.every(({ entry }) => !entry.private);
      return isShown ? this.block! : this.#blockOf(await this.#drawer.read(chosen));
    }, many(count));
  }

  #move(position: number, before: number): void {
    this.#focusNext = before > position ? position + 1 : position - 1;
    const to = before > this.count ? ("end" as const) : { position: before };
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
    const row = (this.found ?? this.rows).find(({ entry }) => entry.id === item?.dataset["id"]);
    if (!item || !row || !this.binding) return;
    const { position } = row;
    const isPlain = !event.ctrlKey && !event.metaKey && !event.altKey;
    const next = (step: 1 | -1) => {
      const sibling = step === 1 ? item.nextElementSibling : item.previousElementSibling;
      if (this.found) (sibling?.querySelector(".snippet") as HTMLElement | null)?.focus();
      else void this.#go(position + step);
    };
    const key = event.key.toLowerCase();
    if (event.altKey && key === "arrowdown" && position < this.count) this.#move(position, position + 2);
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
