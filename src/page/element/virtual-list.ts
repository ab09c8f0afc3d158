import { html, type ReactiveElement, type TemplateResult } from "lit";
import { ref } from "lit/directives/ref.js";
import { repeat } from "lit/directives/repeat.js";
import type { Viewport } from "./list-view-model.js";
import type { ListRow } from "./row.js";
import { tall } from "./tall.js";

/** How high a row of one line is, in ems of the element: what rows that are not drawn are taken for. Others are higher. */
const ROW_HEIGHT = 2.2;
/** How many rows are read before the list has been drawn, and could be measured. */
const UNMEASURED = 24;

/** What of a long list is drawn: some rows, how many stand before them, and how many there are in all. */
export interface DrawnRows {
  readonly rows: readonly ListRow[];
  readonly from: number;
  readonly count: number;
}

/**
 * A row that stays where it is while others are drawn around it: which, and how far below the upper edge it begins. Where one sees the
 * end of the list, it is the end that stays, should the list become higher or lower.
 */
interface Anchor {
  readonly id: string;
  readonly offset: number;
  readonly isAtEnd: boolean;
}

/**
 * A long list of which only the rows in sight are drawn, in an element's shadow tree; the rest is room. Rows are as high as what
 * they show: those that are drawn are measured, and what one looks at stays in its place when others turn out higher than they
 * were taken for.
 */
export class VirtualList {
  #from = 0;
  #anchor: Anchor | undefined;
  /** Whether one saw the end when it was last looked for, and how high the list was then. */
  #isAtEnd = false;
  #height = 0;
  #observed: Element | undefined;
  /** Who sees the end goes on seeing it when the list becomes lower or higher. */
  readonly #resized = new ResizeObserver(() => {
    const list = this.#list;
    if (list && this.#isAtEnd) list.scrollTop = list.scrollHeight;
    this.scrolled();
  });

  constructor(readonly host: Element & Pick<ReactiveElement, "renderRoot">) {}

  /** The list, while it can be measured: not when the element has been taken out of the page. */
  get #list(): Element | null {
    return this.host.isConnected ? this.host.renderRoot.querySelector(".list") : null;
  }

  get #rowHeight(): number {
    return ROW_HEIGHT * Number.parseFloat(getComputedStyle(this.host).fontSize);
  }

  /** Where one looks. */
  get viewport(): Viewport {
    const list = this.#list;
    if (!list) return { top: 0, seen: UNMEASURED, isAtEnd: true };
    const { scrollTop, clientHeight, scrollHeight } = list;
    const height = this.#rowHeight;
    const drawn = drawnIn(list);
    const [first, last] = [drawn[0], drawn.at(-1)];
    const end = last ? bottomOf(last) : 0;
    const top =
      !first || scrollTop < first.offsetTop
        ? Math.floor(scrollTop / height)
        : scrollTop >= end
          ? this.#from + drawn.length + Math.floor((scrollTop - end) / height)
          : this.#from + drawn.findIndex((row) => bottomOf(row) > scrollTop);
    return {
      top,
      seen: clientHeight ? Math.ceil(clientHeight / height) : UNMEASURED,
      isAtEnd: scrollTop + clientHeight > scrollHeight - 2 * height,
    };
  }

  /** Scrolls no further than needed for a row to be seen. Rows count from 0. One that is not drawn is only come near to. */
  scrollTo(row: number): void {
    const list = this.#list;
    if (!list) return;
    const element = drawnIn(list)[row - this.#from];
    const top = element?.offsetTop ?? row * this.#rowHeight;
    const bottom = element ? bottomOf(element) : top + this.#rowHeight;
    if (top < list.scrollTop) list.scrollTop = top;
    else if (bottom > list.scrollTop + list.clientHeight) list.scrollTop = bottom - list.clientHeight;
    this.scrolled();
  }

  /** Draws the rows, with room for those that are not drawn. */
  view(
    { rows, from, count }: DrawnRows,
    rowView: (row: ListRow, before: ListRow | undefined) => TemplateResult,
  ) {
    this.#hold();
    this.#from = from;
    const room = (rows: number) =>
      html`<div
        class="room"
        role="presentation"
        aria-hidden="true"
        ${ref(tall(Math.max(0, rows) * ROW_HEIGHT))}
      ></div>`;
    return html`
      ${room(from)}
      ${repeat(
        rows,
        ({ entry }) => entry.id,
        (row, at) => rowView(row, rows[at - 1]),
      )}
      ${room(count - from - rows.length)}
    `;
  }

  /** Notes which row one looks at, before others are drawn. */
  #hold(): void {
    const list = this.#list;
    const row = list && drawnIn(list).find((each) => bottomOf(each) > list.scrollTop);
    const offset = row ? row.offsetTop - list.scrollTop : 0;
    const id = row?.dataset["id"];
    this.#anchor = undefined;
    if (!list || id === undefined || offset >= list.clientHeight) return;
    this.#anchor = { id, offset, isAtEnd: this.#isAtEnd };
  }

  /** Puts it back where it was, once they are. */
  settle(): void {
    const list = this.#list;
    if (list && list !== this.#observed) {
      this.#resized.disconnect();
      this.#resized.observe(list);
      this.#observed = list;
    }
    this.#putBack();
    this.scrolled();
  }

  /** Notes whether one sees the end. */
  scrolled(): void {
    const list = this.#list;
    if (!list) return;
    this.#isAtEnd = list.scrollTop + list.clientHeight > list.scrollHeight - 2;
    this.#height = list.clientHeight;
  }

  #putBack(): void {
    const [list, anchor] = [this.#list, this.#anchor];
    this.#anchor = undefined;
    if (!list || !anchor) return;
    if (anchor.isAtEnd && list.clientHeight !== this.#height) {
      list.scrollTop = list.scrollHeight;
      return;
    }
    if (list.scrollTop === 0) return;
    const row = list.querySelector<HTMLElement>(`[data-id="${anchor.id}"]`);
    const moved = row ? row.offsetTop - list.scrollTop - anchor.offset : 0;
    if (Math.abs(moved) >= 1) list.scrollTop += moved;
  }
}

function drawnIn(list: Element): HTMLElement[] {
  return [...list.querySelectorAll<HTMLElement>(":scope > .row")];
}

function bottomOf(row: HTMLElement): number {
  return row.offsetTop + row.offsetHeight;
}
