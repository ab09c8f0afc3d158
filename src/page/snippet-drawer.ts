import { html, LitElement, nothing, type PropertyValues } from "lit";
import { repeat } from "lit/directives/repeat.js";
import { unsafeHTML } from "lit/directives/unsafe-html.js";
import { compose } from "../compose/compose.js";
import type { Block } from "../compose/block.js";
import { originText } from "../content/origin.js";
import type { LayoutName } from "../compose/recipe.js";
import type { Snippet } from "../drawer/drawer.js";
import type { Binding, Told } from "./binding.js";
import { looks } from "./looks.js";
import { readTransfer } from "./selection.js";

/** How layouts are called in the sentence. */
const LAYOUT_WORDS: Readonly<Record<LayoutName, string>> = {
  sequence: "they are, one after another",
  lines: "lines",
  bullets: "bullets",
  numbers: "a numbered list",
  joined: "one paragraph",
  sentence: "a sentence",
  rows: "one table",
  columns: "columns side by side",
  pairs: "labels and values",
  link: "links",
  quotes: "quotes with their origins",
};

/** Which snippets the sentence can speak of. */
type Which = "all" | "last";

/**
 * `<snippet-drawer>`: the collection made visible. Above stands the run of snippets, numbered in their order; choosing
 * one places it at the caret. Below stand the sentence that says what is placed and how, and the block as it will land.
 * Give it a {@link Binding} as its property `binding`.
 */
export class SnippetDrawer extends LitElement {
  static override styles = looks;
  static override properties = {
    binding: { attribute: false },
    snippets: { state: true },
    told: { state: true },
    as: { state: true },
    which: { state: true },
  };

  declare binding: Binding | undefined;
  declare private snippets: readonly Snippet[];
  declare private told: Told | undefined;
  declare private as: LayoutName;
  declare private which: Which;
  #stops: (() => void)[] = [];
  #reading = 0;
  /** The id of the snippet that gets the focus back once the run is drawn again. */
  #focusNext: string | undefined;

  constructor() {
    super();
    this.snippets = [];
    this.as = "sequence";
    this.which = "all";
    this.addEventListener("paste", (event) => this.#given(event, event.clipboardData));
    this.addEventListener("dragover", (event) => event.preventDefault());
    this.addEventListener("drop", (event) => this.#given(event, event.dataTransfer));
  }

  protected override willUpdate(changed: PropertyValues): void {
    if (changed.has("binding")) this.#follow();
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
    this.#stops = [
      binding.drawer.watch(() => void this.#read()),
      binding.listen((told) => (this.told = told)),
    ];
    void this.#read();
  }

  /** Reads the drawer again; of several readings under way only the last one counts. */
  async #read(): Promise<void> {
    const reading = ++this.#reading;
    const drawer = this.binding!.drawer;
    const snippets = await drawer.read(await drawer.list());
    if (reading !== this.#reading) return;
    const grown = snippets.length > this.snippets.length;
    this.snippets = snippets;
    await this.updateComplete;
    this.#restoreFocus();
    if (grown) this.renderRoot.querySelector(".run")?.lastElementChild?.scrollIntoView({ block: "nearest" });
  }

  #restoreFocus(): void {
    const at = this.snippets.findIndex(({ entry }) => entry.id === this.#focusNext);
    if (at >= 0) this.renderRoot.querySelectorAll<HTMLElement>(".snippet")[at]!.focus();
    this.#focusNext = undefined;
  }

  #given(event: Event, transfer: DataTransfer | null): void {
    if (!transfer || !this.binding) return;
    event.preventDefault();
    void this.binding.collect(readTransfer(transfer), { app: "another window" });
  }

  get #picked(): readonly Snippet[] {
    return this.which === "all" ? this.snippets : this.snippets.slice(-1);
  }

  protected override render() {
    const block = compose(this.#picked, { as: this.as });
    return html`
      <header>
        <h2>Drawer</h2>
        <span class="state">
          ${this.#collecting() ? "Collects what you copy. " : "Does not collect. "}
          <button @click=${this.#toggle}>${this.#collecting() ? "Pause" : "Resume"}</button>
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
      <ol class="run" aria-label="Snippets, in order" @keydown=${this.#key}>
        ${repeat(
          this.snippets,
          ({ entry }) => entry.id,
          (snippet) => this.#row(snippet),
        )}
      </ol>
      <p class="told ${this.told?.error ? "refused" : ""}">
        <span>${this.#toldText()}</span>
        <button @click=${this.#undo}>Undo</button>
      </p>
      <section class="put-down" aria-label="Put down">${this.#sentence()} ${this.#landing(block)}</section>
    `;
  }

  #collecting(): boolean {
    return this.binding?.collecting ?? false;
  }

  #toldText(): string {
    return this.told?.error?.message ?? this.told?.notices.at(-1)?.message ?? "";
  }

  #row(snippet: Snippet) {
    const { position, entry } = snippet;
    const from = originText(entry.origin);
    const kind = entry.kind === "text" ? "" : entry.kind;
    return html`
      <li data-position=${position}>
        <span class="position" aria-hidden="true">${position}</span>
        <button
          class="snippet"
          aria-label="${position}, ${entry.text}, from ${from || "elsewhere"}. Place at the caret"
          title="Place at the caret"
          @click=${() => this.#placeOne(snippet)}
        >
          <span class="says" dir="auto">${entry.text}</span>
          <span class="from">${[kind, from].filter(Boolean).join(" · ")}</span>
        </button>
        <span class="deeds">
          <button ?disabled=${position === 1} @click=${() => this.#move(position, position - 1)}>
            Earlier
          </button>
          <button
            ?disabled=${position === this.snippets.length}
            @click=${() => this.#move(position, position + 2)}
          >
            Later
          </button>
          <button @click=${() => this.#discard(position)}>Discard</button>
        </span>
      </li>
    `;
  }

  #sentence() {
    const count = this.snippets.length;
    const choice = (value: string, words: string, chosen: string) =>
      html`<option value=${value} ?selected=${value === chosen}>${words}</option>`;
    return html`
      <p class="sentence">
        Place
        <select
          aria-label="Which snippets"
          @change=${(event: Event) => (this.which = valueOf(event) as Which)}
        >
          ${choice("all", count === 1 ? "the one snippet" : `all ${count} snippets`, this.which)}
          ${choice("last", "the latest snippet", this.which)}
        </select>
        as
        <select
          aria-label="Laid out as"
          @change=${(event: Event) => (this.as = valueOf(event) as LayoutName)}
        >
          ${Object.entries(LAYOUT_WORDS).map(([name, words]) => choice(name, words, this.as))}</select
        >.
      </p>
    `;
  }

  /** What lands is shown from the very block that is placed. Its HTML is written from content, which can hold no script. */
  #landing(block: Block) {
    return html`
      <div class="landing" aria-label="As it will land" role="region" tabindex="0">
        ${unsafeHTML(block.html)}
      </div>
      <button class="go" ?disabled=${this.snippets.length === 0} @click=${() => this.#place(block)}>
        Place at the caret
      </button>
    `;
  }

  #undo(): void {
    void this.binding?.act(() => this.binding!.drawer.undo());
  }

  #toggle(): void {
    if (!this.binding) return;
    this.binding.collecting = !this.binding.collecting;
    const message = this.binding.collecting
      ? "Collecting again: what you copy is collected."
      : "Paused: what you copy is not collected.";
    void this.binding.act(async () => [{ code: this.binding!.collecting ? "resumed" : "paused", message }]);
    this.requestUpdate();
  }

  #placeOne(snippet: Snippet): void {
    void this.binding?.place(compose([snippet]), `snippet ${snippet.position}`);
  }

  #place(block: Block): void {
    const count = this.#picked.length;
    void this.binding?.place(block, count === 1 ? "one snippet" : `${count} snippets`);
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

  /** In the run: arrows go from snippet to snippet, with Alt they move it; Delete discards; Ctrl+Z undoes. */
  #key(event: KeyboardEvent): void {
    const item = (event.target as Element).closest("li");
    const position = Number(item?.dataset["position"]);
    if (!item || !this.binding) return;
    const go = (to: Element | null) => to?.querySelector<HTMLElement>(".snippet")?.focus();
    if (event.key === "ArrowDown" && event.altKey) this.#move(position, position + 2);
    else if (event.key === "ArrowUp" && event.altKey && position > 1) this.#move(position, position - 1);
    else if (event.key === "ArrowDown") go(item.nextElementSibling);
    else if (event.key === "ArrowUp") go(item.previousElementSibling);
    else if (event.key === "Delete") this.#discard(position);
    else if (event.key.toLowerCase() === "z" && (event.ctrlKey || event.metaKey)) {
      void this.binding.act(() =>
        event.shiftKey ? this.binding!.drawer.redo() : this.binding!.drawer.undo(),
      );
    } else return;
    event.preventDefault();
  }
}

function valueOf(event: Event): string {
  return (event.target as HTMLSelectElement).value;
}

customElements.define("snippet-drawer", SnippetDrawer);

declare global {
  interface HTMLElementTagNameMap {
    "snippet-drawer": SnippetDrawer;
  }
}
