import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import { grown } from "../office/grown.js";
import type { StoredPart } from "./shared-strings.js";

/** What a cell holds: nothing, a number, a shared text by its number, a text of its own, a truth value, or an error. */
export type CellKind = "blank" | "number" | "shared" | "text" | "boolean" | "error";
const KINDS: readonly CellKind[] = ["blank", "number", "shared", "text", "boolean", "error"];

/** A cell as its file has it. */
export interface StoredCell {
  readonly kind: CellKind;
  /** A number, the number of a shared text, or 1 and 0 for true and false. */
  readonly number: number;
  /** What a text or an error says. */
  readonly text: string;
  /** The number of its look. */
  readonly look: number;
  /** The parts of a text of its own, where some look different. */
  readonly parts?: readonly StoredPart[] | undefined;
}

/** The most cells of a sheet that are held at once, by about 16 bytes each. */
const MOST = 20_000_000;

/** The cells of a sheet in the order of its file, as columns of values. */
export class CellStore {
  #count = 0;
  #columns = new Uint16Array(16);
  #looks = new Uint16Array(16);
  #kinds = new Uint8Array(16);
  #numbers = new Float64Array(16);
  readonly #texts: string[] = [];
  /** The parts of those that do not look one way, by their places among them. */
  readonly #parts = new Map<number, readonly StoredPart[]>();
  /** The rows that have cells: which, and where their cells begin. A row may come more than once. */
  #rows = new Uint32Array(16);
  #starts = new Uint32Array(16);
  #segments = 0;
  #isOrdered = true;

  constructor(readonly file: string) {}

  /**
   * Adds a cell after those that are there.
   * @throws DrawerError `too-large` when there are more than can be held
   */
  add(row: number, column: number, { kind, number, text, look, parts }: StoredCell): void {
    if (this.#count === MOST)
      throw new DrawerError(formatErrors, "too-large/workbook", {
        file: this.file,
        most: MOST,
        isByRepeats: false,
      });
    if (this.#segments === 0 || this.#rows[this.#segments - 1] !== row) this.#begin(row);
    const at = this.#count++;
    if (at === this.#columns.length) {
      this.#columns = grown(this.#columns, new Uint16Array(2 * at));
      this.#looks = grown(this.#looks, new Uint16Array(2 * at));
      this.#kinds = grown(this.#kinds, new Uint8Array(2 * at));
      this.#numbers = grown(this.#numbers, new Float64Array(2 * at));
    }
    this.#columns[at] = column;
    this.#looks[at] = look;
    this.#kinds[at] = KINDS.indexOf(kind);
    const isText = kind === "text" || kind === "error";
    this.#numbers[at] = isText ? this.#texts.push(text) - 1 : number;
    if (isText && parts) this.#parts.set(this.#texts.length - 1, parts);
  }

  #begin(row: number): void {
    const at = this.#segments++;
    if (at === this.#rows.length) {
      this.#rows = grown(this.#rows, new Uint32Array(2 * at));
      this.#starts = grown(this.#starts, new Uint32Array(2 * at));
    }
    if (at > 0 && this.#rows[at - 1]! > row) this.#isOrdered = false;
    this.#rows[at] = row;
    this.#starts[at] = this.#count;
  }

  /** The cells of a row, each with its column; a later one of a column stands for those before it. */
  *row(row: number): Generator<readonly [column: number, cell: StoredCell]> {
    for (const segment of this.#segmentsOf(row)) {
      const end = segment + 1 < this.#segments ? this.#starts[segment + 1]! : this.#count;
      for (let at = this.#starts[segment]!; at < end; at++) {
        const kind = KINDS[this.#kinds[at]!]!;
        const number = this.#numbers[at]!;
        const isText = kind === "text" || kind === "error";
        const text = isText ? this.#texts[number]! : "";
        const parts = isText ? this.#parts.get(number) : undefined;
        yield [this.#columns[at]!, { kind, number, text, look: this.#looks[at]!, parts }];
      }
    }
  }

  #segmentsOf(row: number): number[] {
    if (!this.#isOrdered)
      return Array.from({ length: this.#segments }, (_, at) => at).filter((at) => this.#rows[at] === row);
    let [low, high] = [0, this.#segments];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#rows[middle]! < row) low = middle + 1;
      else high = middle;
    }
    return low < this.#segments && this.#rows[low] === row ? [low] : [];
  }
}
