import { html } from "lit";
import pLimit from "p-limit";
import { pickOf } from "../../drawer/model/pick.js";
import { page, row as rowWords } from "../../messages/core/page-sentences.js";
import type { DrawerHost } from "./drawer-host.js";
import { ListKeys } from "./list-keys.js";
import { SPARE, type Viewport } from "./list-view-model.js";
import { RowDetails } from "./row-details.js";
import { RowDrag } from "./row-drag.js";
import { copyRow, openRow, placeRow } from "./row-placing.js";
import { rowOf, type ListRow, type RowActions } from "./row.js";
import { VirtualList } from "./virtual-list.js";

/** What gets the focus once the drawer has been read again: a snippet wherever it is then, else what stands at a position. */
type FocusNext = { readonly id?: string | undefined; readonly position?: number };

/**
 * The run of snippets, or those that were found, with the focus in it. It is one stop of the Tab key: arrows go from row to
 * row, and in a row from its number to what it says and to its buttons.
 */
export class SnippetList {
  readonly #virtual: VirtualList;
  /** The row that the Tab key goes to, by its id. */
  #current: string | undefined;
  readonly #details: RowDetails;
  readonly #keys: ListKeys;
  #focusNext: FocusNext | undefined;
  readonly drag: RowDrag;
  /** Moves that were asked for, each of which begins when the one before is done. */
  readonly #inTurn = pLimit(1);

  constructor(readonly host: DrawerHost) {
    this.#virtual = new VirtualList(host);
    this.drag = new RowDrag(host);
    this.#details = new RowDetails(host, (id) => this.#focusRow(id));
    this.#keys = new ListKeys(host, this, this.#actions);
  }

  /** Where one looks. */
  get viewport(): Viewport {
    return this.#virtual.viewport;
  }

  /** The rows that are drawn: of the run, or of what was found. */
  get rows(): readonly ListRow[] {
    const { found, rows = [] } = this.host.viewModel ?? {};
    return found ?? rows;
  }

  /** The row that the Tab key goes to: the one that had the focus last, when it is drawn. */
  get #tabbed(): string | undefined {
    const rows = this.rows;
    const isThere = rows.some(({ entry }) => entry.id === this.#current);
    return isThere ? this.#current : (this.host.viewModel?.found ? rows[0] : rows.at(-1))?.entry.id;
  }

  view() {
    const { viewModel } = this.host;
    const found = viewModel?.found;
    const rowView = (row: ListRow) => this.#rowView(row);
    if (found) {
      const { top, seen } = this.viewport;
      const [from, to] = [Math.max(0, top - SPARE), top + seen + SPARE];
      return html`
        <p class="note found" role="status">
          ${page.found({ count: found.length, words: viewModel.words.trim(), most: viewModel.mostFound })}
        </p>
        <ol
          class="list"
          part="list"
          aria-label=${page.foundRun}
          @keydown=${this.#keys.pressed}
          @focusin=${this.#focused}
        >
          ${this.#virtual.view({ rows: found.slice(from, to), from, count: found.length }, rowView)}
        </ol>
      `;
    }
    const { rows = [], from = 0, count = 0 } = viewModel ?? {};
    const scrolled = () => void viewModel?.readRows();
    return html`
      <ol
        class="list"
        part="list"
        aria-label=${page.run}
        @keydown=${this.#keys.pressed}
        @focusin=${this.#focused}
        @scroll=${scrolled}
      >
        ${this.#virtual.view({ rows, from, count }, rowView)}
      </ol>
    `;
  }

  #rowView(row: ListRow) {
    const { id } = row.entry;
    const turn = (this.host.viewModel?.picked ?? []).findIndex(({ entry }) => entry.id === id) + 1;
    const state = {
      count: this.host.viewModel!.count,
      turn,
      revealed: this.#details.revealed(id),
      isCurrent: id === this.#tabbed,
      isLabelled: this.#details.isLabelled(id),
    };
    return rowOf(row, state, this.#actions);
  }

  readonly #actions: RowActions = {
    pick: (row) => this.#pick(row),
    place: (row) => placeRow(this.host, row),
    copy: (row) => copyRow(this.host, row),
    open: (row) => void openRow(this.host, row),
    move: (row, step) => this.#move(row, step),
    keep: (row) =>
      this.host.act((drawer) =>
        row.entry.kept ? drawer.release(pickOf([row])) : drawer.keep(pickOf([row])),
      ),
    hide: (row) =>
      this.host.act((drawer) =>
        row.entry.private ? drawer.unhide(pickOf([row])) : drawer.hide(pickOf([row])),
      ),
    reveal: (row) => void this.#details.reveal(row),
    split: ({ entry: { id, parts } }) => {
      this.#focusNext = { id: parts![0]!.id };
      this.host.act(async (drawer) => (await drawer.split({ id })).notices);
    },
    discard: (row) => this.#discard(row),
    askLabel: (row) => void this.#details.askLabel(row),
    label: (row, label) => this.#details.label(row, label),
    prepareDrag: (row) => void this.drag.prepare(row),
    drag: (row, event) => this.drag.begin(row, event),
  };

  /** Brings into sight what has come, or gives the focus to what is to have it. `grown` says whether there is more. */
  async afterRead(grown: boolean): Promise<void> {
    const { viewModel } = this.host;
    if (!this.host.isConnected) return;
    if (grown && !viewModel!.found) await this.#scrollTo(viewModel!.count - 1);
    const next = this.#focusNext;
    this.#focusNext = undefined;
    if (!next) return;
    // A row that was moved in the tree has lost the focus: it gets it back at once where it is drawn.
    const { id } = next;
    if (id !== undefined && this.rows.some(({ entry }) => entry.id === id)) return this.#focusRow(id);
    const position = (id === undefined ? undefined : await this.#positionOf(id)) ?? next.position;
    if (viewModel!.count === 0) this.host.focusFind();
    else if (position !== undefined) await this.focusAt(Math.min(position, viewModel!.count));
  }

  /** The position of a snippet now. */
  async #positionOf(id: string): Promise<number | undefined> {
    const { drawer } = this.host.viewModel!;
    const [found] = await drawer.store.entries({ drawer: drawer.name, ids: [id] });
    return found?.position;
  }

  async #scrollTo(row: number): Promise<void> {
    this.#virtual.scrollTo(row);
    if (this.host.viewModel!.found) this.host.requestUpdate();
    else await this.host.viewModel!.readRows();
    await this.host.updateComplete;
  }

  /** Scrolls to where the run begins. */
  toTop(): void {
    this.#virtual.scrollTo(0);
  }

  /** Gives the focus to the row that the Tab key goes to. */
  focus(): boolean {
    const found = this.#list?.querySelector<HTMLElement>(".current .snippet");
    found?.focus();
    return found !== undefined && found !== null;
  }

  /** Gives the focus to the run, once it is drawn; or to the field to find in while there is none. */
  async focusSoon(): Promise<void> {
    await this.host.updateComplete;
    if (this.focus()) return;
    // What has just come may not be drawn yet.
    await this.host.read();
    await this.host.updateComplete;
    if (!this.focus()) this.host.focusFind();
  }

  get #list(): Element | null {
    return this.host.renderRoot.querySelector(".list");
  }

  /** Gives a snippet the focus; of what was found, the one that stands so far down at least. */
  async focusAt(position: number): Promise<void> {
    const { found } = this.host.viewModel!;
    if (found?.length === 0) return this.host.focusFind();
    const place = found ? Math.min(position, found.length) : position;
    await this.#scrollTo(place - 1);
    const row = found ? found[place - 1] : this.rows.find((each) => each.position === place);
    if (row) this.#focusRow(row.entry.id);
  }

  #focusRow(id: string): void {
    this.#current = id;
    this.host.requestUpdate();
    this.#list?.querySelector<HTMLElement>(`[data-id="${id}"] .snippet`)?.focus();
  }

  readonly #focused = (event: FocusEvent): void => {
    const id = (event.target as Element).closest<HTMLElement>("li")?.dataset["id"];
    if (id === undefined || id === this.#current) return;
    this.#current = id;
    this.host.requestUpdate();
  };

  #pick(row: ListRow): void {
    const viewModel = this.host.viewModel!;
    viewModel.pick(row);
    this.host.choosePicked();
    const turn = viewModel.picked.findIndex(({ entry }) => entry.id === row.entry.id) + 1;
    this.host.binding?.announce(rowWords.picked({ position: row.position, turn }));
  }

  /** Moves a snippet from where it is when its turn comes: several moves may be asked for before the first is done. */
  #move(row: ListRow, step: 1 | -1): void {
    const { id } = row.entry;
    void this.#inTurn(async () => {
      const position = await this.#positionOf(id);
      const last = this.host.viewModel!.count;
      if (position === undefined || position + step < 1 || position + step > last) return;
      this.#focusNext = { id };
      const before = step < 0 ? position - 1 : position + 2;
      const to = before > last ? ("end" as const) : { position: before };
      await this.host.acting((drawer) => drawer.move(pickOf([row]), to));
    });
  }

  /** Discards a snippet. The one beside has the focus at once, so that the next key is about that one. */
  #discard(row: ListRow): void {
    const rows = this.rows;
    const at = rows.findIndex(({ entry }) => entry.id === row.entry.id);
    const beside = rows[at + 1] ?? rows[at - 1];
    this.#focusNext = { id: beside?.entry.id, position: row.position };
    if (beside) this.#focusRow(beside.entry.id);
    this.host.act((drawer) => drawer.discard(pickOf([row])));
  }
}
