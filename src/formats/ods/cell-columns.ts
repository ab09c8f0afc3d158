import type { Cell, CellValue, Marks } from "../../content/model.js";
import type { OdfStyle } from "../odt/styles.js";
import { grown } from "../office/grown.js";
import { sheetCell } from "../office/sheet-cell.js";
import { runInFont } from "../office/symbols.js";

/** What cells of a style look like, and the number format that they have. */
export interface CellLook {
  readonly style: OdfStyle;
  readonly marks: Marks;
  readonly format: string | undefined;
}

/** Kinds of cells that are kept: a text, a number with the text that it shows, and one that was made when it was read. */
const TEXT = 0;
const NUMBER = 1;
const MADE = 2;

/** The cells of a row: where among all they stand, and their texts, one after another. */
interface KeptRow {
  readonly start: number;
  readonly end: number;
  readonly text: string;
}

/**
 * The cells of a sheet in the order of its file. Those that hold a line of plain text, or a number that is shown by one, as nearly all
 * do, are columns of values, of which cells are made when their row is asked for; the others are kept as they are.
 */
export class CellColumns {
  #count = 0;
  /** The columns from which, and up to which, each of them stands. */
  #from = new Uint32Array(16);
  #to = new Uint32Array(16);
  #kinds = new Uint8Array(16);
  #numbers = new Float64Array(16);
  /** The look of each: its place among the looks. */
  #looks = new Uint32Array(16);
  /** Where in the text of its row the text of each ends. */
  #textEnds = new Uint32Array(16);
  readonly #knownLooks: CellLook[] = [];
  readonly #indexes = new Map<CellLook, number>();
  readonly #made = new Map<number, Cell>();
  /** Rows that are repeated are the same. */
  readonly #rows: KeptRow[] = [];
  /** The row that is being read: where it begins, its texts, and their length. */
  #start = 0;
  #texts: string[] = [];
  #length = 0;

  /** Adds a cell of plain text, or of a number that this text shows, to the row that is being read. */
  addPlain(column: number, times: number, look: CellLook, text: string, number?: number): void {
    this.#texts.push(text);
    this.#length += text.length;
    const at = this.#add(number === undefined ? TEXT : NUMBER, column, times);
    if (number !== undefined) this.#numbers[at] = number;
    let index = this.#indexes.get(look);
    if (index === undefined) this.#indexes.set(look, (index = this.#knownLooks.push(look) - 1));
    this.#looks[at] = index;
  }

  /** Adds a cell as it is. */
  addMade(column: number, times: number, cell: Cell): void {
    this.#made.set(this.#add(MADE, column, times), cell);
  }

  #add(kind: number, column: number, times: number): number {
    const at = this.#count++;
    if (at === this.#kinds.length) {
      this.#from = grown(this.#from, new Uint32Array(2 * at));
      this.#to = grown(this.#to, new Uint32Array(2 * at));
      this.#kinds = grown(this.#kinds, new Uint8Array(2 * at));
      this.#numbers = grown(this.#numbers, new Float64Array(2 * at));
      this.#looks = grown(this.#looks, new Uint32Array(2 * at));
      this.#textEnds = grown(this.#textEnds, new Uint32Array(2 * at));
    }
    this.#from[at] = column;
    this.#to[at] = column + times;
    this.#kinds[at] = kind;
    this.#textEnds[at] = this.#length;
    return at;
  }

  /** Says that what was added since the last row are the cells of some rows. */
  endRow(row: number, times: number): void {
    // Joined, texts no longer keep what they were cut out of.
    const kept = { start: this.#start, end: this.#count, text: this.#texts.join("") };
    for (let i = 0; i < times; i++) this.#rows[row + i] = kept;
    this.#begin();
  }

  /** Takes away what was added since the last row. */
  dropRow(): void {
    for (let at = this.#start; at < this.#count; at++) this.#made.delete(at);
    this.#count = this.#start;
    this.#begin();
  }

  #begin(): void {
    this.#start = this.#count;
    this.#texts = [];
    this.#length = 0;
  }

  /** The cells of a row by their columns. */
  row(row: number): readonly (Cell | undefined)[] {
    const cells: (Cell | undefined)[] = [];
    const kept = this.#rows[row];
    if (!kept) return cells;
    let begin = 0;
    for (let at = kept.start; at < kept.end; at++) {
      const end = this.#textEnds[at]!;
      const cell =
        this.#kinds[at] === MADE ? this.#made.get(at)! : this.#plain(at, kept.text.slice(begin, end));
      begin = end;
      for (let column = this.#from[at]!; column < this.#to[at]!; column++) cells[column] = cell;
    }
    return cells;
  }

  #plain(at: number, text: string): Cell {
    const { style, marks, format } = this.#knownLooks[this.#looks[at]!]!;
    const value = this.#kinds[at] === NUMBER ? numberValue(this.#numbers[at]!, format) : undefined;
    const runs = [runInFont(text, style.props.font, marks)];
    return sheetCell([{ type: "paragraph", runs }], {
      ...{ align: style.align, background: style.background, value },
    });
  }
}

/** A number with its format. There are millions of them. */
export function numberValue(number: number, format: string | undefined): CellValue {
  return format === undefined ? { type: "number", number } : { type: "number", number, format };
}
