import { html, nothing } from "lit";
import pLimit from "p-limit";
import type { Notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import { pickOf } from "../../drawer/model/pick.js";
import { page, row as rowWords } from "../../messages/core/page-sentences.js";
import { Arrivals } from "./arrivals.js";
import { dayName, dayOf } from "./day.js";
import type { DrawerHost } from "./drawer-host.js";
import { landing, type Landing } from "./landing.js";
import { ListKeys } from "./list-keys.js";
import type { Viewport } from "./list-view-model.js";
import { RowDetails } from "./row-details.js";
import { RowDrag } from "./row-drag.js";
import { copyRow, openRow, placeRow } from "./row-placing.js";
import { rowOf, type ListRow, type RowActions } from "./row.js";
import { VirtualList } from "./virtual-list.js";

/** So few snippets have room for two lines each. */
const ROOMY = 8;

/** How many snippets there were before the drawer was read again and are now, and whether one follows what comes. */
export interface Growth {
  readonly before: number;
  readonly after: number;
  readonly isFollowed: boolean;
}

/** What gets the focus once the drawer has been read again: a snippet wherever it is then, else what stands at a position. */
type FocusNext = { readonly id?: string | undefined; readonly position?: number };

/**
 * The list of snippets, or those that were found, with the focus in it. It is one stop of the Tab key: arrows go from row to
 * row, and in a row from its number to what it says and to its buttons.
 */
export class SnippetList {
  readonly #virtual: VirtualList;
  /** The row that the Tab key goes to, by its id. */
  #current: string | undefined;
  /** The row under the mouse, by its id. */
  #underMouse: string | undefined;
  readonly #details: RowDetails;
  readonly #keys: ListKeys;
  #focusNext: FocusNext | undefined;
  /** What has the focus while the list is drawn: what is moved in a page loses it. */
  #focusedWhileDrawn: HTMLElement | undefined;
  readonly drag: RowDrag;
  readonly #arrivals: Arrivals;
  /** Moves that were asked for, each of which begins when the one before is done. */
  readonly #inTurn = pLimit(1);

  constructor(readonly host: DrawerHost) {
    this.#virtual = new VirtualList(host);
    this.#arrivals = new Arrivals(() => host.requestUpdate());
    this.drag = new RowDrag(host);
    this.#details = new RowDetails(host, (id) => this.#focusRow(id));
    this.#keys = new ListKeys(host, this, this.#actions);
  }

  /** Where one looks. */
  get viewport(): Viewport {
    return this.#virtual.viewport;
  }

  /** The rows that are drawn: of the list, or of what was found. */
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
    const { rows = [], from = 0, count = 0 } = viewModel ?? {};
    const { unseen } = this.#arrivals;
    const tabbed = this.#tabbed;
    const drawn = found ? { rows: found, from: 0, count: found.length } : { rows, from, count };
    const scrolled = () => {
      this.#virtual.scrolled();
      if (unseen > 0 && this.viewport.isAtEnd) this.#arrivals.see();
      if (!viewModel?.found) void viewModel?.readRows();
    };
    const said =
      found &&
      page.found({ count: found.length, words: viewModel!.words.trim(), most: viewModel!.mostFound });
    const landed = landing(this.host.binding);
    this.#focusedWhileDrawn = this.#list?.querySelector<HTMLElement>(":focus") ?? undefined;
    return html`
      ${said === undefined ? nothing : html`<p class="note found" role="status">${said}</p>`}
      <div
        class=${drawn.count <= ROOMY ? "list roomy" : "list"}
        part="list"
        role="grid"
        aria-multiselectable="true"
        aria-rowcount=${count}
        aria-label=${found ? page.foundRun : page.run}
        @keydown=${this.#keys.pressed}
        @focusin=${this.#focused}
        @pointerover=${this.#pointed}
        @pointerleave=${this.#pointed}
        @scroll=${scrolled}
      >
        ${this.#virtual.view(drawn, (row, before) => this.#rowView(row, before, tabbed, landed))}
      </div>
      ${
        unseen > 0 && !found
          ? html`<button class="unseen" @click=${() => void this.#toEnd()}>${page.unseen(unseen)}</button>`
          : nothing
      }
    `;
  }

  /** Puts what one looks at back where it was, once the list is drawn. */
  drawn(): void {
    this.#virtual.settle();
    const digits = String(this.host.viewModel?.count ?? 0).length;
    (this.#list as HTMLElement | null)?.style.setProperty("--digits", String(digits));
    const focused = this.#focusedWhileDrawn;
    this.#focusedWhileDrawn = undefined;
    if (focused?.isConnected && !focused.matches(":focus")) focused.focus({ preventScroll: true });
  }

  #rowView(row: ListRow, before: ListRow | undefined, tabbed: string | undefined, landed: Landing) {
    const { id, collectedAt } = row.entry;
    const { viewModel } = this.host;
    const turn = viewModel!.turnOf(id);
    // Of rows that are not drawn it is not known: those before the first are out of sight.
    const isFirst =
      before === undefined ? row.position === 1 : dayOf(before.entry.collectedAt) !== dayOf(collectedAt);
    const state = {
      count: viewModel!.count,
      turn,
      revealed: this.#details.revealed(id),
      isCurrent: id === tabbed,
      isActive: id === tabbed || id === this.#underMouse,
      isLabelled: this.#details.isLabelled(id),
      isNew: this.#arrivals.isNew(row.position),
      day: isFirst ? dayName(collectedAt) : undefined,
      does: landed.ofRow(row.position),
      standing: this.host.standings.of(id),
    };
    return rowOf(row, state, this.#actions);
  }

  readonly #actions: RowActions = {
    pick: (row) => this.#pick(row),
    pickTo: (row) => this.#pickTo(row),
    show: (row) => void this.host.show(row),
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

  /** Brings into sight what has come, unless one looks elsewhere, or gives the focus to what is to have it. */
  async afterRead({ before, after, isFollowed }: Growth): Promise<void> {
    const { viewModel } = this.host;
    if (!this.host.isConnected) return;
    const grown = after - before;
    if (grown > 0 && !viewModel!.found) {
      this.#arrivals.came(grown, before, isFollowed);
      if (isFollowed) await this.#toEnd();
    }
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

  async #toEnd(): Promise<void> {
    this.#arrivals.see();
    await this.#scrollTo(this.host.viewModel!.count - 1);
  }

  /** The position of a snippet now. */
  async #positionOf(id: string): Promise<number | undefined> {
    const { drawer } = this.host.viewModel!;
    const [found] = await drawer.store.entries({ drawer: drawer.name, ids: [id] });
    return found?.position;
  }

  async #scrollTo(row: number): Promise<void> {
    this.#virtual.scrollTo(row);
    if (!this.host.viewModel!.found) await this.host.viewModel!.readRows();
    this.host.requestUpdate();
    await this.host.updateComplete;
    // Only what is drawn is known to be where it is.
    this.#virtual.scrollTo(row);
  }

  /** Scrolls to where the list begins. */
  toTop(): void {
    this.#virtual.scrollTo(0);
  }

  /** Gives the focus to the row that the Tab key goes to. */
  focus(): boolean {
    const found = this.#list?.querySelector<HTMLElement>(".current .snippet");
    found?.focus();
    return found !== undefined && found !== null;
  }

  /** Gives the focus to the list, once it is drawn; or to the field to find in while there is none. */
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
    const row = this.#rowAt(place);
    if (row) this.#focusRow(row.entry.id);
  }

  /** Gives a snippet the focus at once, where its row is drawn. Returns whether it is. */
  focusDrawn(position: number): boolean {
    const row = this.#rowAt(position);
    if (!row || !this.#rowElement(row.entry.id)) return false;
    this.#virtual.scrollTo(position - 1);
    this.#focusRow(row.entry.id);
    return true;
  }

  /** The row at a position or, of what was found, at a place there; nothing where it was not read. */
  #rowAt(place: number): ListRow | undefined {
    const { found } = this.host.viewModel!;
    return found ? found[place - 1] : this.rows.find(({ position }) => position === place);
  }

  #rowElement(id: string): HTMLElement | null | undefined {
    return this.#list?.querySelector<HTMLElement>(`[data-id="${id}"] .snippet`);
  }

  #focusRow(id: string): void {
    this.#current = id;
    this.host.requestUpdate();
    this.#rowElement(id)?.focus();
  }

  readonly #pointed = (event: PointerEvent): void => {
    // Under a finger nothing may come between the row and the touch.
    if (event.pointerType === "touch") return;
    const id = event.type === "pointerleave" ? undefined : idOf(event);
    if (id === this.#underMouse) return;
    this.#underMouse = id;
    this.host.requestUpdate();
  };

  readonly #focused = (event: FocusEvent): void => {
    const id = idOf(event);
    if (id === undefined || id === this.#current) return;
    this.#current = id;
    // One has gone on meanwhile.
    this.#focusNext = undefined;
    this.host.requestUpdate();
  };

  /** Picks a snippet and those between it and the one that was picked last. */
  async #pickTo(row: ListRow): Promise<void> {
    const viewModel = this.host.viewModel!;
    const last = viewModel.picked.at(-1);
    const from = last && (await this.#positionOf(last.entry.id));
    if (from === undefined) return this.#pick(row);
    await viewModel.pickFurther(from, row.position);
    this.host.choosePicked();
    this.host.binding?.announce(rowWords.pickedSeveral(viewModel.picked.length));
  }

  #pick(row: ListRow): void {
    const viewModel = this.host.viewModel!;
    viewModel.pick(row);
    this.host.choosePicked();
    const turn = viewModel.turnOf(row.entry.id);
    this.host.binding?.announce(rowWords.picked({ position: row.position, turn }));
  }

  /** Moves a snippet from where it is when its turn comes: several moves may be asked for before the first is done. */
  #move(row: ListRow, step: 1 | -1): Promise<void> {
    const { id } = row.entry;
    return this.#inTurn(async () => {
      const position = await this.#positionOf(id);
      const last = this.host.viewModel!.count;
      if (position === undefined || position + step < 1 || position + step > last) return;
      this.#focusNext = { id };
      const before = step < 0 ? position - 1 : position + 2;
      const to = before > last ? ("end" as const) : { position: before };
      await this.#actAndSee((drawer) => drawer.move(pickOf([row]), to));
    });
  }

  /** Discards a snippet. The one beside has the focus at once, so that the next key is about that one. */
  async #discard(row: ListRow): Promise<void> {
    const rows = this.rows;
    const at = rows.findIndex(({ entry }) => entry.id === row.entry.id);
    const beside = rows[at + 1] ?? rows[at - 1];
    if (beside) this.#focusRow(beside.entry.id);
    this.#focusNext = { id: beside?.entry.id, position: row.position };
    await this.#actAndSee((drawer) => drawer.discard(pickOf([row])));
  }

  /** Does something in the drawer; settles when what has become of the list is drawn. */
  async #actAndSee(act: (drawer: Drawer) => Promise<readonly Notice[]>): Promise<void> {
    await this.host.acting(act);
    await this.host.read();
    await this.host.updateComplete;
  }
}

/** The snippet in whose row something happened. */
function idOf({ target }: Event): string | undefined {
  return (target as Element).closest<HTMLElement>(".row")?.dataset["id"];
}
