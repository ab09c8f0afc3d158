import { html, nothing } from "lit";
import type { Rectangle } from "../../../content/cells.js";
import type { Part } from "../../../files/parts.js";
import { readSource, type SourceSheet } from "../../../files/source.js";
import { partsPanel as words } from "../../../messages/core/panel-sentences.js";
import { refusalFor } from "../../binding/actions.js";
import type { MarkedPart, ReadFile } from "../../capture/read-files.js";
import "../cell-grid.js";
import type { CellGrid } from "../cell-grid.js";
import type { DrawerHost } from "../drawer-host.js";
import { FileActs, type OpenFile } from "./file-acts.js";

/** A file that is looked into, and what is marked of it. */
interface LookedAt extends OpenFile {
  readonly parts: readonly Part[];
  /** How many of its parts are drawn: a long document has more than anybody looks through. */
  drawn: number;
  /** The spots that are marked: ranges of a sheet in the order of marking, parts of a document in theirs. */
  spots: readonly string[];
  /** The sheet that is shown. */
  sheet: SourceSheet | undefined;
  /** What is marked of each sheet. */
  readonly ranges: Map<string, { readonly sheet: SourceSheet; readonly cells: Rectangle }>;
}

/** How many parts of a document are drawn at first, and with each asking for more. */
const DRAWN = 300;

/** A file as one begins to look into it. */
function lookedAt(file: OpenFile): LookedAt {
  const { source } = file;
  const sheet = source.sheets?.find(({ used }) => used) ?? source.sheets?.[0];
  return { ...file, parts: source.parts(), drawn: DRAWN, spots: [], ranges: new Map(), sheet };
}

/** A file as it is now, where one looked at it as it was. */
function shownAs(now: LookedAt, { drawn, sheet }: LookedAt): LookedAt {
  const same = now.source.sheets?.find(({ name }) => name === sheet?.name);
  return { ...now, drawn, sheet: same ?? now.sheet };
}

/** Files that are looked into before anything of them is collected. */
export class LookedInto {
  #files: readonly LookedAt[] = [];
  readonly #acts: FileActs;

  /**
   * Looks into files, of which the host may know where they are.
   * @param changed is called when something else is to be drawn; settles when it is
   * @param say is told what was marked, for those who do not see it
   */
  static of(
    files: readonly ReadFile[],
    host: DrawerHost,
    changed: () => Promise<unknown>,
    say: (sentence: string) => void,
  ): LookedInto {
    const looked = new LookedInto(host, changed, say);
    const { knowsPlaces } = looked.#acts;
    looked.#files = files.map(({ path, ...file }) =>
      lookedAt({ ...file, path, isSought: path === undefined && knowsPlaces }),
    );
    // Meanwhile one looks, marks and collects.
    looked.#findPlaces().catch((error: unknown) => host.report({ notices: [], error: refusalFor(error) }));
    return looked;
  }

  private constructor(
    readonly host: DrawerHost,
    readonly changed: () => Promise<unknown>,
    readonly say: (sentence: string) => void,
  ) {
    this.#acts = new FileActs(host, async (file, bytes) => {
      const source = await readSource(bytes, file.source.name);
      const now = lookedAt({ ...file, source, bytes });
      this.#files = this.#files.map((each) => (each.bytes === file.bytes ? shownAs(now, each) : each));
      void this.changed();
    });
  }

  /** Finds out where the files are, one after another: that may take a while. */
  async #findPlaces(): Promise<void> {
    for (const file of this.#files) {
      if (!file.isSought) continue;
      const path = await this.#acts.pathOf({ source: file.source, bytes: file.bytes });
      this.#files = this.#files.map((each) =>
        each.bytes === file.bytes ? { ...each, path, isSought: false } : each,
      );
      void this.changed();
    }
  }

  /** Shows files as they are now, where they were changed elsewhere, or put back. */
  async look(): Promise<void> {
    for (const file of this.#files) await this.#acts.look(file);
  }

  /** Whether there is anything to choose: more than one file of one part. */
  get isChoice(): boolean {
    return this.#files.some(({ parts, sheet }) => parts.length > 1 || sheet?.used !== undefined);
  }

  /** All of the files, each whole. */
  get whole(): MarkedPart[] {
    return this.#files.map(({ source, path }) => ({ source, path }));
  }

  /** What is marked, in order. */
  get marked(): MarkedPart[] {
    return this.#files.flatMap(({ source, path, spots }) => spots.map((spot) => ({ source, path, spot })));
  }

  /** The files of which something is marked; while nothing is, the first. */
  get #toChange(): readonly LookedAt[] {
    const marked = this.#files.filter(({ spots }) => spots.length > 0);
    return marked.length > 0 ? marked : this.#files.slice(0, 1);
  }

  view(actions: { readonly collect: (parts: readonly MarkedPart[]) => void; readonly leave: () => void }) {
    const { marked, whole } = this;
    return html`
      <section class="panel parts" aria-label=${words.name} part="panel">
        <div class="head">
          <p class="note acts">
            <button class="fill" ?disabled=${marked.length === 0} @click=${() => actions.collect(marked)}>
              ${words.collect(marked.length)}
            </button>
            <button @click=${() => actions.collect(whole)}>${words.whole(whole.length)}</button>
            <button @click=${actions.leave}>${words.leave}</button>
          </p>
          ${this.#toChange.map((file) => this.#acts.view(file, file.spots, file.sheet))}
        </div>
        ${this.#files.map((file) => (file.sheet ? this.#workbook(file, file.sheet) : this.#document(file)))}
      </section>
    `;
  }

  #set(file: LookedAt, spots: readonly string[]): void {
    file.spots = spots;
    void this.changed();
  }

  #document(file: LookedAt) {
    const { source, parts, drawn, spots } = file;
    const all = parts.map(({ spot }) => spot);
    const isMarked = new Set(spots);
    const box = (spot: string, event: Event) => {
      const wanted = new Set(isMarked);
      if ((event.target as HTMLInputElement).checked) wanted.add(spot);
      else wanted.delete(spot);
      this.#set(
        file,
        all.filter((each) => wanted.has(each)),
      );
    };
    const every = (event: Event) => this.#set(file, (event.target as HTMLInputElement).checked ? all : []);
    const more = async (event: Event) => {
      const list = (event.target as Element).closest("fieldset")!.querySelector("ul")!;
      file.drawn += DRAWN;
      await this.changed();
      // The button goes, or goes down: one reads on where one was.
      list.children[drawn]?.querySelector("input")?.focus();
    };
    return html`
      <fieldset>
        <legend>${source.name}</legend>
        <label class="every">
          <input type="checkbox" .checked=${spots.length === all.length} @change=${every} />
          ${words.every(all.length)}
        </label>
        <ul>
          ${parts.slice(0, drawn).map(
            ({ spot, type, text, page }, at) => html`
              ${
                page !== undefined && page !== parts[at - 1]?.page
                  ? html`<li class="page">${words.page(page)}</li>`
                  : ""
              }
              <li>
                <label>
                  <input
                    type="checkbox"
                    .checked=${isMarked.has(spot)}
                    @change=${(event: Event) => box(spot, event)}
                  />
                  <span class="says" dir="auto">${text}</span>
                  <span class="from" title=${spot}>${words.types[type]}</span>
                </label>
              </li>
            `,
          )}
        </ul>
        ${
          parts.length > drawn
            ? html`<p class="note">
                <button @click=${more}>${words.more({ shown: drawn, of: parts.length })}</button>
              </p>`
            : nothing
        }
      </fieldset>
    `;
  }

  #workbook(file: LookedAt, shown: SourceSheet) {
    const { source, spots, ranges } = file;
    const chosen = (event: Event) => {
      file.sheet = source.sheets![(event.target as HTMLSelectElement).selectedIndex];
      void this.changed();
    };
    const marked = ({ detail: cells }: CustomEvent<Rectangle>) => {
      const spot = shown.spot(cells);
      ranges.set(spot, { sheet: shown, cells });
      const { spots: before } = file;
      this.#set(file, before.includes(spot) ? before : [...before, spot]);
      this.say(words.marked(spot));
    };
    const unmark = (event: Event, spot: string) => {
      // The button goes: the focus goes back to the cells, where there are any.
      gridBeside(event)?.focus();
      this.#set(
        file,
        file.spots.filter((each) => each !== spot),
      );
      this.say(words.unmarked(spot));
    };
    const gridBeside = (event: Event) =>
      (event.target as Element).closest("fieldset")!.querySelector<CellGrid>("drawer-cell-grid");
    const mark = (event: Event) => gridBeside(event)!.mark();
    const marks = spots.flatMap((spot) => {
      const range = ranges.get(spot);
      return range?.sheet === shown ? [range.cells] : [];
    });
    return html`
      <fieldset>
        <legend>${source.name}</legend>
        ${
          source.sheets!.length > 1
            ? html`<select aria-label=${words.sheet} @change=${chosen}>
                ${source.sheets!.map((sheet) => html`<option .selected=${sheet === shown}>${sheet.name}</option>`)}
              </select>`
            : nothing
        }
        <p class="note">${shown.used ? words.draw : words.empty}</p>
        ${
          shown.used
            ? html`<drawer-cell-grid .sheet=${shown} .marks=${marks} @marked=${marked}></drawer-cell-grid>
                <p class="note"><button @click=${mark}>${words.mark}</button></p>`
            : nothing
        }
        <ol>
          ${spots.map(
            (spot) => html`
              <li>
                <span class="says">${spot}</span>
                <button aria-label=${words.unmarkOf(spot)} @click=${(event: Event) => unmark(event, spot)}>
                  ${words.unmark}
                </button>
              </li>
            `,
          )}
        </ol>
      </fieldset>
    `;
  }
}
