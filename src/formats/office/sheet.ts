import { writeCells, type Rectangle } from "../../content/cells.js";
import { cutTable } from "../../content/cut-table.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { makeTable } from "../../content/make-table.js";
import type { Cell, Row, Table } from "../../content/model.js";
import { type Notice, notice } from "../../content/notice.js";
import { runsText } from "../../content/runs.js";
import { columnsOf } from "../../content/spans.js";
import { formatErrors, formatNotices } from "../../messages/en/formats.js";

/** A sheet of a workbook. */
export interface ReadSheet {
  readonly name: string;
  /** The rectangle that holds everything on the sheet; nothing for an empty one. */
  readonly used: Rectangle | undefined;
  /** The rectangle that its first rows take, from the first that holds something on; nothing for an empty one. */
  head(rows: number): Rectangle | undefined;
  /** The cells of a rectangle as a table, cut to the used range when that ends before it. */
  table(rectangle: Rectangle): Table;
  /** What is to be said of the cells of a rectangle, or of all: that some are hidden, or have no result. */
  notices(rectangle?: Rectangle): Notice[];
}

/** A sheet that is one table. */
export function sheetOfTable(name: string, table: Table, notices: readonly Notice[]): ReadSheet {
  const [bottom, right] = [table.rows.length - 1, Math.max(0, columnsOf(table) - 1)];
  const used = bottom < 0 ? undefined : { top: 0, left: 0, bottom, right };
  return {
    ...{ name, used },
    head: (rows) => used && { ...used, bottom: Math.min(bottom, rows - 1) },
    table: (rectangle) => cutTable(table, rectangle),
    notices: () => [...notices],
  };
}

/** What a sheet's file says besides its cells, as far as it has been read. Rows and columns count from 0. */
export interface SheetFacts {
  readonly isHidden: boolean;
  /** Whether the file names it, and has nothing of it. */
  readonly isMissing?: boolean;
  /** The rows that hold something and are hidden. */
  readonly hiddenRows: ReadonlySet<number>;
  readonly hiddenColumns: ReadonlySet<number>;
  /** The cells with a formula that has no result in the file, by {@link placeKey}. */
  readonly unresolved: readonly number[];
}

/** How many columns a sheet has at most. */
export const COLUMNS = 16_384;

/** A place as one number. */
export function placeKey(row: number, column: number): number {
  return row * COLUMNS + column;
}

/** The cells of a sheet, which are read from its file row by row, as far as they are asked for. */
export interface SheetCells {
  readonly facts: SheetFacts;
  /** Whether all of it has been read. */
  readonly isRead: boolean;
  /** How many rows have been read. */
  readonly rowsRead: number;
  /** The rectangle that holds everything that has been read; nothing when that is nothing. */
  readonly extent: Rectangle | undefined;
  /**
   * Reads on by a piece.
   * @throws DrawerError `unreadable`, `too-large`
   */
  readOn(): void;
  /** The cells of a row that has been read, by their columns. A place without a cell is blank. */
  row(row: number): readonly (Cell | undefined)[];
  /** The rectangles that are merged, those at least that reach into the rows that have been read. */
  merges(): readonly Rectangle[];
}

/** A sheet that its workbook names, and of which the file has nothing. */
export const MISSING_CELLS: SheetCells = {
  facts: {
    ...{ isHidden: false, isMissing: true, hiddenRows: new Set(), hiddenColumns: new Set(), unresolved: [] },
  },
  ...{ isRead: true, rowsRead: 0, extent: undefined },
  readOn: () => undefined,
  row: () => [],
  merges: () => [],
};

/** A sheet of cells, of which only those rows are read that a rectangle needs. */
export class SheetGrid implements ReadSheet {
  constructor(
    readonly name: string,
    readonly cells: SheetCells,
  ) {}

  /** What holds something; a file's own word for it may count cells that are only coloured. */
  get used(): Rectangle | undefined {
    this.#readUntil(() => false);
    return this.cells.extent;
  }

  head(count: number): Rectangle | undefined {
    const last = () => (this.cells.extent?.top ?? Infinity) + count - 1;
    this.#readUntil(() => this.cells.rowsRead > last());
    const { extent } = this.cells;
    if (!extent) return undefined;
    const [top, bottom] = [extent.top, Math.min(extent.bottom, last())];
    const rows = Array.from({ length: bottom - top + 1 }, (_, at) => this.cells.row(top + at));
    return { top, bottom, ...spanOf(rows) };
  }

  /** Reads on until something holds, or to the end. */
  #readUntil(holds: () => boolean): void {
    while (!this.cells.isRead && !holds()) this.cells.readOn();
  }

  notices({ top, left, bottom, right }: Rectangle = EVERYWHERE): Notice[] {
    const sheet = this.name;
    if (this.cells.facts.isMissing) return [notice(formatNotices, "left-out/sheet", { sheet })];
    this.#readUntil(() => this.cells.rowsRead > bottom);
    const { isHidden, hiddenRows, hiddenColumns, unresolved } = this.cells.facts;
    const rows = [...hiddenRows].filter((row) => row >= top && row <= bottom).length;
    const columns = [...hiddenColumns].filter((column) => column >= left && column <= right).length;
    const formulas = unresolved.filter((key) => {
      const [row, column] = [Math.floor(key / COLUMNS), key % COLUMNS];
      return row >= top && row <= bottom && column >= left && column <= right;
    }).length;
    if (isHidden && formulas === 0) this.#readUntil(() => this.cells.extent !== undefined);
    return [
      ...(isHidden && (this.cells.extent || formulas > 0)
        ? [notice(formatNotices, "hidden-parts/sheet", { sheet })]
        : []),
      ...(rows + columns > 0 ? [notice(formatNotices, "hidden-parts/cells", { sheet, rows, columns })] : []),
      ...(formulas > 0 ? [notice(formatNotices, "no-result", { sheet, count: formulas })] : []),
    ];
  }

  table(rectangle: Rectangle): Table {
    const inside = this.#cut(rectangle);
    const { top, left, bottom, right } = inside;
    checkCells(inside, this.name);
    const covered = this.#coveredPlaces(inside);
    const rows: Row[] = [];
    for (let r = top; r <= bottom; r++) {
      const cells = this.cells.row(r);
      const row: Cell[] = [];
      for (let c = left; c <= right; c++) {
        const place = covered.get(placeKey(r, c));
        if (place === "inside") continue;
        const cell = place === "outside" ? undefined : cells[c];
        row.push(typeof place === "object" ? spanning(cell ?? BLANK, place, inside) : (cell ?? BLANK));
      }
      rows.push(row);
    }
    return makeTable(rows, this.#headerRows(inside));
  }

  /** A rectangle without what lies beyond all that the sheet holds, for which it is read as far as it takes to know that. */
  #cut({ top, left, bottom, right }: Rectangle): Rectangle {
    this.#readUntil(() => this.cells.rowsRead > bottom);
    this.#readUntil(() => {
      const { extent } = this.cells;
      return extent !== undefined && extent.bottom >= bottom && extent.right >= right;
    });
    const { extent } = this.cells;
    return {
      ...{ top, left },
      bottom: Math.min(bottom, Math.max(extent?.bottom ?? 0, top)),
      right: Math.min(right, Math.max(extent?.right ?? 0, left)),
    };
  }

  /** How many rows of a rectangle at its top are, or stand above, the sheet's header. */
  #headerRows({ top, bottom }: Rectangle): number {
    const first = this.cells.extent?.top;
    if (first === undefined || first < top || first > bottom) return 0;
    this.#readUntil(() => this.cells.rowsRead > first + ROWS_LOOKED_AT);
    return this.#hasHeader(first) ? first - top + 1 : 0;
  }

  /** For each place of a merged rectangle: the rectangle where it begins, or whether it begins inside or outside. */
  #coveredPlaces(inside: Rectangle): Map<number, Rectangle | "inside" | "outside"> {
    const places = new Map<number, Rectangle | "inside" | "outside">();
    // Merged rectangles do not overlap: no more places are gone through than there are.
    let left = (inside.bottom - inside.top + 1) * (inside.right - inside.left + 1);
    for (const merge of this.cells.merges()) {
      if (
        merge.top > inside.bottom ||
        merge.bottom < inside.top ||
        merge.left > inside.right ||
        merge.right < inside.left
      )
        continue;
      const begins = merge.top >= inside.top && merge.left >= inside.left;
      left -=
        (Math.min(merge.bottom, inside.bottom) - Math.max(merge.top, inside.top) + 1) *
        (Math.min(merge.right, inside.right) - Math.max(merge.left, inside.left) + 1);
      if (left < 0) break;
      for (let r = Math.max(merge.top, inside.top); r <= Math.min(merge.bottom, inside.bottom); r++) {
        for (let c = Math.max(merge.left, inside.left); c <= Math.min(merge.right, inside.right); c++) {
          places.set(
            placeKey(r, c),
            r === merge.top && c === merge.left ? merge : begins ? "inside" : "outside",
          );
        }
      }
    }
    return places;
  }

  /**
   * Whether the first row that holds something names the columns of those right below it: all of it is text, no two alike, and below
   * it stands something else than text, or the row has a look of its own.
   */
  #hasHeader(first: number): boolean {
    const rows: (readonly (Cell | undefined)[])[] = [];
    for (let row = first; row <= first + ROWS_LOOKED_AT && row < this.cells.rowsRead; row++)
      rows.push(this.cells.row(row));
    const span = spanOf(rows);
    const [head, ...others] = rows.map((row) =>
      Array.from({ length: span.right - span.left + 1 }, (_, i) => row[span.left + i] ?? BLANK),
    );
    const names = head!.map((cell) => (cell.value ? "" : nameOf(cell)));
    if (names.includes("") || new Set(names).size < names.length) return false;
    const looks = [isBold, (cell: Cell) => cell.background !== undefined];
    const own = looks.filter((look) => head!.every(look));
    // A row without anything in it is no row of the table.
    const below = others.filter((row) => row.some(({ flows }) => flows.length > 0));
    return below.some(
      (row) => row.some(({ value }) => value !== undefined) || own.some((look) => !row.every(look)),
    );
  }
}

/** The columns between which all rows hold something. */
function spanOf(rows: readonly (readonly (Cell | undefined)[])[]): { left: number; right: number } {
  let [left, right] = [Infinity, 0];
  for (const row of rows)
    row.forEach((cell, column) => {
      if (!cell || cell.flows.length === 0) return;
      left = Math.min(left, column);
      right = Math.max(right, column);
    });
  return { left, right };
}

/** Refuses a rectangle of more cells than a table may have, before any of them is made. */
function checkCells({ top, left, bottom, right }: Rectangle, sheet: string): void {
  const cells = (bottom - top + 1) * (right - left + 1);
  if (cells <= LIMITS.cells) return;
  const example = writeCells({ top, left, bottom: top + 99, right: Math.min(right, left + 9) });
  throw new DrawerError(formatErrors, "too-large/range", { sheet, cells, most: LIMITS.cells, example });
}

/** How many rows below the first are looked at to tell whether it is a header. */
const ROWS_LOOKED_AT = 50;
const BLANK: Cell = { flows: [] };
const EVERYWHERE: Rectangle = { top: 0, left: 0, bottom: Infinity, right: Infinity };

function nameOf(cell: Cell): string {
  const only = cell.flows[0];
  return only?.type === "paragraph" ? runsText(only.runs).trim() : "";
}

function isBold(cell: Cell): boolean {
  return cell.flows.every(
    (flow) => flow.type === "paragraph" && flow.runs.every((run) => run.type !== "text" || run.marks?.bold),
  );
}

function spanning(cell: Cell, merge: Rectangle, inside: Rectangle): Cell {
  const colspan = Math.min(merge.right, inside.right) - merge.left + 1;
  const rowspan = Math.min(merge.bottom, inside.bottom) - merge.top + 1;
  return { ...cell, ...(colspan > 1 && { colspan }), ...(rowspan > 1 && { rowspan }) };
}
