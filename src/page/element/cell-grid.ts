import { html, LitElement, type PropertyValues } from "lit";
import { ref } from "lit/directives/ref.js";
import { columnLetters, type Rectangle } from "../../content/cells.js";
import type { SourceSheet } from "../../files/source.js";
import { partsPanel as words } from "../../messages/core/panel-sentences.js";
import { cellGridStyles } from "./cell-grid-styles.js";
import { tall } from "./tall.js";

/** The height of a row, in ems; all are the same, so that only those that can be seen need to be there. */
const ROW = 1.9;
/** How many rows are drawn beyond those that can be seen, on either side, and columns in all. */
const SPARE = 20;
const MOST_COLUMNS = 60;

/** A cell of a sheet, counting from 0. */
interface Place {
  readonly row: number;
  readonly column: number;
}

/**
 * The cells of a sheet, of which one draws a range: with the mouse, or by the arrow keys with Shift held. Enter, or letting go
 * of the mouse after more than one cell, marks what is drawn. It follows the grid pattern of WAI-ARIA: one stop of the Tab key, a cell that has the
 * focus.
 *
 * @fires marked - A range was drawn; `detail` is its rectangle.
 */
export class CellGrid extends LitElement {
  static override properties = {
    sheet: { attribute: false },
    marks: { attribute: false },
    drawn: { state: true },
  };

  static override styles = cellGridStyles;

  declare sheet: SourceSheet;
  /** What has been marked of it. */
  declare marks: readonly Rectangle[];
  /** Where the range that is being drawn began, and where it is now, which is where the focus is. */
  declare private drawn: { readonly from: Place; readonly to: Place };
  #isDrawing = false;
  #texts = new Map<number, readonly string[]>();

  constructor() {
    super();
    this.marks = [];
    this.drawn = { from: { row: 0, column: 0 }, to: { row: 0, column: 0 } };
    this.addEventListener("scroll", () => this.requestUpdate());
    this.addEventListener("keydown", (event) => this.#key(event));
    this.addEventListener("pointerdown", (event) => this.#press(event));
    this.addEventListener("pointermove", (event) => this.#drag(event));
    this.addEventListener("pointerup", () => this.#release());
    this.addEventListener("pointercancel", () => (this.#isDrawing = false));
  }

  protected override willUpdate(changed: PropertyValues): void {
    if (!changed.has("sheet")) return;
    const { top, left } = this.#used;
    const first = { row: top, column: left };
    this.drawn = { from: first, to: first };
    this.#texts = new Map();
  }

  get #used(): Rectangle {
    return this.sheet.used ?? { top: 0, left: 0, bottom: 0, right: 0 };
  }

  get #lastColumn(): number {
    return Math.min(this.#used.right, this.#used.left + MOST_COLUMNS - 1);
  }

  /** The range that is being drawn. */
  get range(): Rectangle {
    const { from, to } = this.drawn;
    return {
      top: Math.min(from.row, to.row),
      left: Math.min(from.column, to.column),
      bottom: Math.max(from.row, to.row),
      right: Math.max(from.column, to.column),
    };
  }

  /** Gives the focus to the cell that has it when one comes by the Tab key. */
  override focus(): void {
    void this.updateComplete.then(() =>
      this.renderRoot.querySelector<HTMLElement>('td[tabindex="0"]')?.focus(),
    );
  }

  /** Marks the range that is being drawn. */
  mark(): void {
    this.dispatchEvent(new CustomEvent("marked", { detail: this.range }));
  }

  get #rowHeight(): number {
    return ROW * Number.parseFloat(getComputedStyle(this).fontSize);
  }

  protected override render() {
    const { top, left, bottom } = this.#used;
    const seen = Math.ceil((this.clientHeight || 300) / this.#rowHeight);
    const first = top + Math.max(0, Math.floor(this.scrollTop / this.#rowHeight) - SPARE);
    const last = Math.min(bottom, first + seen + 2 * SPARE);
    this.#read(first, last);
    const columns = Array.from({ length: this.#lastColumn - left + 1 }, (_, at) => left + at);
    const rows = Array.from({ length: last - first + 1 }, (_, at) => first + at);
    const room = (count: number) =>
      html`<tr class="room" role="presentation">
        <td colspan=${columns.length + 1} ${ref(tall(count * ROW))}></td>
      </tr>`;
    return html`
      <table
        role="grid"
        aria-multiselectable="true"
        aria-label=${words.grid(this.sheet.name)}
        aria-rowcount=${bottom - top + 2}
        aria-colcount=${columns.length + 1}
      >
        <thead>
          <tr aria-rowindex="1">
            <td class="corner"></td>
            ${columns.map((column) => html`<th scope="col">${columnLetters(column)}</th>`)}
          </tr>
        </thead>
        <tbody>
          ${first > top ? room(first - top) : ""}
          ${rows.map(
            (row) => html`
              <tr aria-rowindex=${row - top + 2}>
                <th scope="row">${row + 1}</th>
                ${columns.map((column) => this.#cell(row, column))}
              </tr>
            `,
          )}
          ${last < bottom ? room(bottom - last) : ""}
        </tbody>
      </table>
    `;
  }

  #cell(row: number, column: number) {
    const { to } = this.drawn;
    const isIn = (range: Rectangle) =>
      row >= range.top && row <= range.bottom && column >= range.left && column <= range.right;
    return html`<td
      role="gridcell"
      class=${this.marks.some(isIn) ? "marked" : ""}
      data-row=${row}
      data-column=${column}
      tabindex=${row === to.row && column === to.column ? "0" : "-1"}
      aria-selected=${isIn(this.range)}
      dir="auto"
    >
      ${this.#texts.get(row)?.[column - this.#used.left] ?? ""}
    </td>`;
  }

  /** Reads the texts of rows that were not read. */
  #read(first: number, last: number): void {
    const unread: number[] = [];
    for (let row = first; row <= last; row++) if (!this.#texts.has(row)) unread.push(row);
    if (unread.length === 0) return;
    const [top, bottom] = [unread[0]!, unread.at(-1)!];
    const texts = this.sheet.texts({ top, bottom, left: this.#used.left, right: this.#lastColumn });
    texts.forEach((line, at) => this.#texts.set(top + at, line));
  }

  #key(event: KeyboardEvent): void {
    const { top, left, bottom } = this.#used;
    const { row, column } = this.drawn.to;
    const page = Math.max(1, Math.floor(this.clientHeight / this.#rowHeight) - 2);
    const isFar = event.ctrlKey || event.metaKey;
    const to: Partial<Record<string, Place>> = {
      ArrowDown: { row: isFar ? bottom : row + 1, column },
      ArrowUp: { row: isFar ? top : row - 1, column },
      ArrowRight: { row, column: isFar ? this.#lastColumn : column + 1 },
      ArrowLeft: { row, column: isFar ? left : column - 1 },
      PageDown: { row: row + page, column },
      PageUp: { row: row - page, column },
      Home: { row: isFar ? top : row, column: left },
      End: { row: isFar ? bottom : row, column: this.#lastColumn },
    };
    const next = to[event.key];
    if (event.key === "Enter" || event.key === " ") this.mark();
    else if (isFar && event.key.toLowerCase() === "a")
      this.drawn = { from: { row: top, column: left }, to: { row: bottom, column: this.#lastColumn } };
    else if (next) this.#go(next, event.shiftKey);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  #go({ row, column }: Place, extends_: boolean): void {
    const { top, left, bottom } = this.#used;
    const to = {
      row: Math.min(bottom, Math.max(top, row)),
      column: Math.min(this.#lastColumn, Math.max(left, column)),
    };
    this.drawn = { from: extends_ ? this.drawn.from : to, to };
    this.#bringIntoSight(to.row);
    this.focus();
  }

  #bringIntoSight(row: number): void {
    const height = this.#rowHeight;
    const y = (row - this.#used.top) * height;
    // The letters of the columns stand over the first row that is seen.
    if (y < this.scrollTop) this.scrollTop = y;
    else if (y + 2 * height > this.scrollTop + this.clientHeight - height)
      this.scrollTop = y + 3 * height - this.clientHeight;
  }

  #placeAt(event: Event): Place | undefined {
    const cell = (event.composedPath()[0] as Element).closest?.<HTMLElement>("td[data-row]");
    return cell ? { row: Number(cell.dataset["row"]), column: Number(cell.dataset["column"]) } : undefined;
  }

  #press(event: PointerEvent): void {
    const place = this.#placeAt(event);
    if (!place || event.button !== 0) return;
    this.#isDrawing = true;
    this.#go(place, event.shiftKey);
    event.preventDefault();
  }

  #drag(event: PointerEvent): void {
    const place = this.#isDrawing ? this.#placeAt(event) : undefined;
    if (place) this.drawn = { from: this.drawn.from, to: place };
  }

  #release(): void {
    if (!this.#isDrawing) return;
    this.#isDrawing = false;
    // A click on one cell only goes there.
    const { top, left, bottom, right } = this.range;
    if (bottom > top || right > left) this.mark();
  }
}

if (!customElements.get("drawer-cell-grid")) customElements.define("drawer-cell-grid", CellGrid);
