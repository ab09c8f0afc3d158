import { html, type ReactiveElement, type TemplateResult } from "lit";
import { ref } from "lit/directives/ref.js";
import { repeat } from "lit/directives/repeat.js";
import type { Viewport } from "./list-view-model.js";
import type { ListRow } from "./row.js";
import { tall } from "./tall.js";

/** The height of a row, in ems of the element. All are the same, so that only those that can be seen need to be there. */
const ROW_HEIGHT = 5.6;
/** How many rows are read before the list has been drawn, and could be measured. */
const UNMEASURED = 12;

/** What of a long list is drawn: some rows, how many stand before them, and how many there are in all. */
export interface DrawnRows {
  readonly rows: readonly ListRow[];
  readonly from: number;
  readonly count: number;
}

/** A long list of which only the rows in sight are drawn, in an element's shadow tree; the rest is room. */
export class VirtualList {
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
    if (!list) return { top: 0, seen: UNMEASURED };
    return {
      top: Math.floor(list.scrollTop / this.#rowHeight),
      seen: list.clientHeight ? Math.ceil(list.clientHeight / this.#rowHeight) : UNMEASURED,
    };
  }

  /** Scrolls no further than needed for a row to be seen. Rows count from 0. */
  scrollTo(row: number): void {
    const list = this.#list;
    if (!list) return;
    const height = this.#rowHeight;
    if (row * height < list.scrollTop) list.scrollTop = row * height;
    else if ((row + 1) * height > list.scrollTop + list.clientHeight)
      list.scrollTop = (row + 1) * height - list.clientHeight;
  }

  /** Draws the rows, with room for those that are not drawn. */
  view({ rows, from, count }: DrawnRows, rowView: (row: ListRow) => TemplateResult) {
    const room = (rows: number) =>
      html`<div
        class="room"
        role="presentation"
        aria-hidden="true"
        ${ref(tall(Math.max(0, rows) * ROW_HEIGHT))}
      ></div>`;
    return html`
      ${room(from)} ${repeat(rows, ({ entry }) => entry.id, rowView)} ${room(count - from - rows.length)}
    `;
  }
}
