import { writeCells, type Rectangle } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { makeTable } from "../../content/make-table.js";
import type { Cell, Row, Table } from "../../content/model.js";
import { type Notice, notice } from "../../content/notice.js";
import { runsText } from "../../content/runs.js";
import { formatErrors, formatNotices } from "../../messages/en/formats.js";

/** A sheet of a workbook. */
export interface ReadSheet {
  readonly name: string;
  /** The rectangle that holds everything on the sheet; nothing for an empty one. */
  readonly used: Rectangle | undefined;
  /** The cells of a rectangle as a table, cut to the used range when that ends before it. */
  table(rectangle: Rectangle): Table;
  /** What is to be said of the cells of a rectangle, or of all: that some are hidden, or have no result. */
  notices(rectangle?: Rectangle): Notice[];
}

/** What a sheet's file says besides its cells. Rows and columns count from 0. */
export interface SheetFacts {
  readonly isHidden: boolean;
  /** Whether the file names it, and has nothing of it. */
  readonly isMissing?: boolean;
  readonly hiddenRows: ReadonlySet<number>;
  readonly hiddenColumns: ReadonlySet<number>;
  /** The cells with a formula that has no result in the file. */
  readonly unresolved: readonly { readonly row: number; readonly column: number }[];
}

/** A sheet's cells by row and column, and the rectangles that are merged. A place without a cell is blank. */
export class SheetGrid implements ReadSheet {
  readonly used: Rectangle | undefined;

  constructor(
    readonly name: string,
    readonly rows: readonly (readonly (Cell | undefined)[] | undefined)[],
    readonly merges: readonly Rectangle[],
    readonly facts: SheetFacts,
  ) {
    this.used = this.#usedRange();
  }

  /** What holds something; a file's own word for it may count cells that are only coloured. */
  #usedRange(): Rectangle | undefined {
    let used: { top: number; left: number; bottom: number; right: number } | undefined;
    this.rows.forEach((row, r) =>
      row?.forEach((cell, c) => {
        if (!cell || cell.flows.length === 0) return;
        used ??= { top: r, left: c, bottom: r, right: c };
        used.bottom = r;
        used.left = Math.min(used.left, c);
        used.right = Math.max(used.right, c);
      }),
    );
    return used;
  }

  notices({ top, left, bottom, right }: Rectangle = EVERYWHERE): Notice[] {
    const { isHidden, isMissing, hiddenRows, hiddenColumns, unresolved } = this.facts;
    const sheet = this.name;
    if (isMissing) return [notice(formatNotices, "left-out/sheet", { sheet })];
    const rows = [...hiddenRows].filter((row) => row >= top && row <= bottom && this.#isFilled(row)).length;
    const columns = [...hiddenColumns].filter((column) => column >= left && column <= right).length;
    const formulas = unresolved.filter(
      ({ row, column }) => row >= top && row <= bottom && column >= left && column <= right,
    ).length;
    return [
      ...(isHidden && (this.used || formulas > 0)
        ? [notice(formatNotices, "hidden-parts/sheet", { sheet })]
        : []),
      ...(rows + columns > 0 ? [notice(formatNotices, "hidden-parts/cells", { sheet, rows, columns })] : []),
      ...(formulas > 0 ? [notice(formatNotices, "no-result", { sheet, count: formulas })] : []),
    ];
  }

  #isFilled(row: number): boolean {
    return this.rows[row]?.some((cell) => cell !== undefined && cell.flows.length > 0) ?? false;
  }

  table(rectangle: Rectangle): Table {
    const { used } = this;
    const bottom = Math.min(rectangle.bottom, Math.max(used?.bottom ?? 0, rectangle.top));
    const right = Math.min(rectangle.right, Math.max(used?.right ?? 0, rectangle.left));
    const inside = { ...rectangle, bottom, right };
    checkCells(inside, this.name);
    const covered = this.#coveredPlaces(inside);
    const rows: Row[] = [];
    for (let r = inside.top; r <= bottom; r++) {
      const row: Cell[] = [];
      for (let c = inside.left; c <= right; c++) {
        const place = covered.get(r * 20_000 + c);
        if (place === "inside") continue;
        const cell = place === "outside" ? undefined : this.rows[r]?.[c];
        row.push(typeof place === "object" ? spanning(cell ?? BLANK, place, inside) : (cell ?? BLANK));
      }
      rows.push(row);
    }
    const isWithin = used && inside.top <= used.top && used.top <= bottom;
    return makeTable(rows, isWithin && this.#hasHeader(used) ? used.top - inside.top + 1 : 0);
  }

  /** For each place of a merged rectangle: the rectangle where it begins, or whether it begins inside or outside. */
  #coveredPlaces(inside: Rectangle): Map<number, Rectangle | "inside" | "outside"> {
    const places = new Map<number, Rectangle | "inside" | "outside">();
    for (const merge of this.merges) {
      if (
        merge.top > inside.bottom ||
        merge.bottom < inside.top ||
        merge.left > inside.right ||
        merge.right < inside.left
      )
        continue;
      const begins = merge.top >= inside.top && merge.left >= inside.left;
      for (let r = Math.max(merge.top, inside.top); r <= Math.min(merge.bottom, inside.bottom); r++) {
        for (let c = Math.max(merge.left, inside.left); c <= Math.min(merge.right, inside.right); c++) {
          places.set(
            r * 20_000 + c,
            r === merge.top && c === merge.left ? merge : begins ? "inside" : "outside",
          );
        }
      }
    }
    return places;
  }

  /**
   * Whether the first row names the columns: all of it is text, no two alike, and below it stands something else than
   * text, or the row has a look of its own.
   */
  #hasHeader(used: Rectangle): boolean {
    if (used.bottom === used.top) return false;
    const row = (r: number) =>
      Array.from({ length: used.right - used.left + 1 }, (_, i) => this.rows[r]?.[used.left + i] ?? BLANK);
    const first = row(used.top);
    const names = first.map((cell) => (cell.value ? "" : nameOf(cell)));
    if (names.includes("") || new Set(names).size < names.length) return false;
    const looks = [isBold, (cell: Cell) => cell.background !== undefined];
    const own = looks.filter((look) => first.every(look));
    for (let r = used.top + 1; r <= Math.min(used.bottom, used.top + ROWS_LOOKED_AT); r++) {
      const below = row(r);
      if (below.some(({ value }) => value !== undefined) || own.some((look) => !below.every(look)))
        return true;
    }
    return false;
  }
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
