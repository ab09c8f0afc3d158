import { html, LitElement, nothing, type PropertyValues } from "lit";
import { repeat } from "lit/directives/repeat.js";
import { unsafeHTML } from "lit/directives/unsafe-html.js";
import type { Block } from "../compose/block.js";
import { compose } from "../compose/compose.js";
import type { Fit } from "../compose/recipe.js";
import { originText } from "../content/origin.js";
import type { Positioned } from "../drawer/store.js";
import type { Binding, Told } from "./binding.js";
import { looks } from "./looks.js";
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
const SPARE = 8;
/** How many snippets are shown as they will land; more are placed, but nobody reads so far. */
const SHOWN = 60;

/** Which snippets the sentence speaks of. */
type Which = "picked" | "all" | "last";

/**
 * `<snippet-drawer>`: the collection made visible. Above stands the run of snippets, numbered in their order; choosing
 * one places it at the caret, and its number picks it, in the order of picking. Below stand the sentence that says what
 * is placed and how, and the block as it will land. Give it a {@link Binding} as its property `binding`.
 */
export class SnippetDrawer extends LitElement {
  static override styles = looks;
  static override properties = {
    binding: { attribute: false },
    snippets: { state: true },
    picked: { state: true },
    told: { state: true },
    said: { state: true },
    which: { state: true },
    block: { state: true },
    top: { state: true },
  };

  declare binding: Binding | undefined;
  declare private snippets: readonly Positioned[];
  /** The ids of the snippets that are picked, in the order of picking. */
  declare private picked: readonly string[];
  declare private told: Told | undefined;
  declare private said: Said;
  declare private which: Which;
  /** What lands: of what is chosen, as much as is shown. */
  declare private block: Block | undefined;
  /** The first row that is there. */
  declare private top: number;
  #stops: (() => void)[] = [];
  #reading = 0;
  #composing = 0;
  /** Settles when the block is the one of what is chosen. */
  #ready: Promise<void> = Promise.resolve();
  /** The id of the snippet that gets the focus once the drawer has been read again. */
  #focusNext: string | undefined;

  constructor() {
    super();
    this.snippets = [];
    this.picked = [];
    this.said = FIRST_SAID;
    this.which = "all";
    this.top = 0;
    this.addEventListener("paste", (event) => this.#given(event, event.clipboardData));
    this.addEventListener("dragover", (event) => event.preventDefault());
    this.addEventListener("drop", (event) => this.#given(event, event.dataTransfer));
  }

  protected override willUpdate(changed: PropertyValues): void {
    if (changed.has("binding")) this.#follow();
    if (["snippets", "picked", "said", "which"].some((name) => changed.has(name)))
      this.#ready = this.#compose();
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

  /** Reads the drawer again; of several readings under way only the last one counts. */
  async #read(): Promise<void> {
    const reading = ++this.#reading;
    const snippets = await this.binding!.drawer.list();
    if (reading !== this.#reading) return;
    const grown = snippets.length > this.snippets.length;
    const here = new Set(snippets.map(({ entry }) => entry.id));
    this.snippets = snippets;
    this.picked = this.picked.filter((id) => here.has(id));
    if (this.picked.length === 0 && this.which === "picked") this.which = "all";
    await this.updateComplete;
    if (grown) this.#scrollTo(snippets.length - 1);
    this.#focus(this.#focusNext);
    this.#focusNext = undefined;
  }

  #focus(id: string | undefined): void {
    if (id !== undefined) this.renderRoot.querySelector<HTMLElement>(`[data-id="${id}"] .snippet`)?.focus();
  }

  /** What the sentence speaks of, in the order in which it is placed. */
  get #chosen(): readonly Positioned[] {
    if (this.which === "all") return this.snippets;
    if (this.which === "last") return this.snippets.slice(-1);
    const byId = new Map(this.snippets.map((snippet) => [snippet.entry.id, snippet]));
    return this.picked.flatMap((id) => byId.get(id) ?? []);
  }

  /** Makes the block of what is shown, for the place it would land in. */
  async #compose(): Promise<void> {
    if (!this.binding) return;
    const composing = ++this.#composing;
    const block = await this.#blockOf(this.#chosen.slice(0, SHOWN));
    if (composing === this.#composing) this.block = block;
  }

  async #blockOf(chosen: readonly Positioned[]): Promise<Block> {
    const { drawer, target } = this.binding!;
    const fit: Fit =
      target instanceof HTMLInputElement ? "line" : target instanceof HTMLTextAreaElement ? "plain" : "page";
    return compose(await drawer.read(chosen), { ...recipeSaid(this.said), fit });
  }

  #given(event: Event, transfer: DataTransfer | null): void {
    if (!transfer || !this.binding) return;
    event.preventDefault();
    void this.binding.collect(readTransfer(transfer), { app: "another window" });
  }

  protected override render() {
    const collecting = this.binding?.collecting ?? false;
    return html`
      <header>
        <h2>Drawer</h2>
        <span class="state">
          ${collecting ? "Collects what you copy. " : "Does not collect. "}
          <button @click=${this.#toggle}>${collecting ? "Pause" : "Resume"}</button>
        </span>
      </header>
      ${
        this.snippets.length === 0
          ? html`<p class="none">
              Nothing here yet. Select something and copy it; it will stand here, numbered, in the order of
              gathering.
            </p>`
          : nothing
      }
      <div class="sides">
        <div class="side">
          ${this.#run()}
          <p class="told ${this.told?.error ? "refused" : ""}">
            <span>${this.told?.error?.message ?? this.told?.notices.at(-1)?.message ?? ""}</span>
            <button @click=${this.#undo}>Undo</button>
          </p>
        </div>
        <section class="put-down" aria-label="Put down">${this.#sentence()} ${this.#landing()}</section>
      </div>
    `;
  }

  /** The rows that can be seen, and some to spare; the rest is room. */
  #run() {
    const count = this.snippets.length;
    const seen = this.snippets.slice(this.top, this.top + this.#rowsSeen() + 2 * SPARE);
    const room = (rows: number) => `height: ${rows * ROW}em`;
    return html`
      <ol class="run" aria-label="Snippets, in order" @keydown=${this.#key} @scroll=${this.#scrolled}>
        <div class="room" role="presentation" aria-hidden="true" style=${room(this.top)}></div>
        ${repeat(
          seen,
          ({ entry }) => entry.id,
          (snippet) => this.#row(snippet, count),
        )}
        <div
          class="room"
          role="presentation"
          aria-hidden="true"
          style=${room(Math.max(0, count - this.top - seen.length))}
        ></div>
      </ol>
    `;
  }

  #row({ position, entry }: Positioned, count: number) {
    const from = originText(entry.origin);
    const kind = entry.kind === "text" ? "" : entry.kind;
    const turn = this.picked.indexOf(entry.id) + 1;
    const pick = turn > 0 ? `Picked as number ${turn}; take out of the pick` : `Pick snippet ${position}`;
    return html`
      <li
        data-position=${position}
        data-id=${entry.id}
        aria-setsize=${count}
        aria-posinset=${position}
        class=${turn > 0 ? "picked" : ""}
      >
        <button
          class="position"
          aria-pressed=${turn > 0}
          aria-label=${pick}
          title=${pick}
          @click=${() => this.#pick(entry.id)}
        >
          ${turn > 0 ? html`<b>${turn}</b>` : position}
        </button>
        <button
          class="snippet"
          aria-label="${position}, ${entry.text}, from ${from || "elsewhere"}. Place at the caret"
          title="Place at the caret"
          @click=${() => this.#placeOne(position, entry.id)}
        >
          <span class="says" dir="auto"
            >${entry.label ? html`<b>${entry.label}</b> ` : nothing}${entry.text}</span
          >
          <span class="from">${[kind, from].filter(Boolean).join(" · ")}</span>
        </button>
        <span class="deeds">
          <button ?disabled=${position === 1} @click=${() => this.#move(position, position - 1)}>
            Earlier
          </button>
          <button ?disabled=${position === count} @click=${() => this.#move(position, position + 2)}>
            Later
          </button>
          <button @click=${() => this.#discard(position)}>Discard</button>
        </span>
      </li>
    `;
  }

  #sentence() {
    const { as, style, tidy, cite } = this.said;
    const count = this.snippets.length;
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
    const more = this.#chosen.length - SHOWN;
    return html`
      <div class="landing" aria-label="As it will land" role="region" tabindex="0">
        ${unsafeHTML(this.block?.html ?? "")}
        ${this.block?.notices.map(({ message }) => html`<p class="note">${message}</p>`)}
        ${more > 0 ? html`<p class="note">… and ${more} more, which are placed too.</p>` : nothing}
      </div>
      <button class="go" ?disabled=${this.snippets.length === 0} @click=${this.#place}>
        Place at the caret
      </button>
    `;
  }

  #rowsSeen(): number {
    const run = this.renderRoot.querySelector(".run");
    return run ? Math.ceil(run.clientHeight / this.#rowHeight()) : 12;
  }

  #rowHeight(): number {
    return ROW * Number.parseFloat(getComputedStyle(this).fontSize);
  }

  #scrolled(event: Event): void {
    const first = Math.floor((event.currentTarget as Element).scrollTop / this.#rowHeight());
    this.top = Math.max(0, first - SPARE);
  }

  /** Brings a row into sight. */
  #scrollTo(row: number): void {
    const run = this.renderRoot.querySelector(".run")!;
    const height = this.#rowHeight();
    if (row * height < run.scrollTop) run.scrollTop = row * height;
    else if ((row + 1) * height > run.scrollTop + run.clientHeight)
      run.scrollTop = (row + 1) * height - run.clientHeight;
    this.top = Math.max(0, Math.floor(run.scrollTop / height) - SPARE);
  }

  #undo(): void {
    void this.binding?.act(() => this.binding!.drawer.undo());
  }

  #toggle(): void {
    const { binding } = this;
    if (!binding) return;
    binding.collecting = !binding.collecting;
    void binding.act(async () => [
      binding.collecting
        ? { code: "resumed", message: "Collecting again: what you copy is collected." }
        : { code: "paused", message: "Paused: what you copy is not collected." },
    ]);
    this.requestUpdate();
  }

  #pick(id: string): void {
    this.picked = this.picked.includes(id) ? this.picked.filter((each) => each !== id) : [...this.picked, id];
    this.which = this.picked.length > 0 ? "picked" : "all";
  }

  #placeOne(position: number, id: string): void {
    const chosen = this.snippets.filter(({ entry }) => entry.id === id);
    void this.binding?.place(() => this.#blockAsItIs(chosen), `snippet ${position}`);
  }

  async #blockAsItIs(chosen: readonly Positioned[]): Promise<Block> {
    return compose(await this.binding!.drawer.read(chosen));
  }

  #place(): void {
    const chosen = this.#chosen;
    const what = chosen.length === 1 ? "one snippet" : `${chosen.length} snippets`;
    void this.binding?.place(async () => {
      await this.#ready;
      return this.block && chosen.length <= SHOWN ? this.block : this.#blockOf(chosen);
    }, what);
  }

  #move(position: number, before: number): void {
    this.#focusNext = this.snippets[position - 1]?.entry.id;
    const to = before > this.snippets.length ? ("end" as const) : { position: before };
    void this.binding?.act(() => this.binding!.drawer.move(String(position), to));
  }

  #discard(position: number): void {
    this.#focusNext = (this.snippets[position] ?? this.snippets[position - 2])?.entry.id;
    void this.binding?.act(() => this.binding!.drawer.discard(String(position)));
  }

  async #go(position: number): Promise<void> {
    const next = this.snippets[position - 1];
    if (!next) return;
    this.#scrollTo(position - 1);
    await this.updateComplete;
    this.#focus(next.entry.id);
  }

  /** In the run: arrows go from snippet to snippet, with Alt they move it; P picks; Delete discards; Ctrl+Z undoes. */
  #key(event: KeyboardEvent): void {
    const item = (event.target as Element).closest("li");
    const position = Number(item?.dataset["position"]);
    const id = item?.dataset["id"];
    if (!item || id === undefined || !this.binding) return;
    if (event.key === "ArrowDown" && event.altKey) this.#move(position, position + 2);
    else if (event.key === "ArrowUp" && event.altKey && position > 1) this.#move(position, position - 1);
    else if (event.key === "ArrowDown") void this.#go(position + 1);
    else if (event.key === "ArrowUp") void this.#go(position - 1);
    else if (event.key === "Delete") this.#discard(position);
    else if (event.key.toLowerCase() === "z" && (event.ctrlKey || event.metaKey)) {
      void this.binding.act(() =>
        event.shiftKey ? this.binding!.drawer.redo() : this.binding!.drawer.undo(),
      );
    } else if (event.key.toLowerCase() === "p" && !event.ctrlKey && !event.metaKey && !event.altKey)
      this.#pick(id);
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
