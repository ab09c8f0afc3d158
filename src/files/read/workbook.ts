import type { CellObject, WorkBook, WorkSheet } from "@e965/xlsx";
import { DrawerError } from "../../content/error.js";
import { paragraph, type Cell, type CellValue, type Row, type Table } from "../../content/model.js";
import { parseColor } from "../../content/read/values.js";
import { isDateFormat, serialToDate } from "../../content/serial.js";
import type { Rectangle } from "../../content/table.js";
import { unzip } from "../zip.js";

/** A sheet of a workbook. */
export interface Sheet {
  readonly name: string;
  /** The rectangle that holds everything on the sheet; nothing for an empty one. */
  readonly used: Rectangle | undefined;
  /** The cells of a rectangle as a table, cut to the used range when that ends before it. */
  table(rectangle: Rectangle): Table;
}

/**
 * Reads an xlsx or ods workbook: each cell as its sheet showed it, and the typed value with its number format behind
 * it. Formulas are left behind; their last results stay.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export async function readWorkbook(bytes: Uint8Array, file: string): Promise<Sheet[]> {
  unzip(bytes, file, () => true);
  const { read } = await import("@e965/xlsx");
  let workbook: WorkBook;
  try {
    workbook = read(bytes, {
      type: "array",
      cellNF: true,
      cellStyles: true,
      cellFormula: false,
      cellHTML: false,
      dense: true,
    });
  } catch (error) {
    throw new DrawerError(
      "unreadable",
      `“${file}” is damaged or cut short. Open it in its own program and save it again.`,
      {
        cause: error,
      },
    );
  }
  return workbook.SheetNames.map((name) => new WorkbookSheet(name, workbook.Sheets[name]!));
}

class WorkbookSheet implements Sheet {
  readonly used: Rectangle | undefined;
  readonly #rows: readonly (readonly (CellObject | undefined)[] | undefined)[];
  readonly #merges: readonly Rectangle[];

  constructor(
    readonly name: string,
    sheet: WorkSheet,
  ) {
    this.#rows = (sheet["!data"] ?? []) as (CellObject | undefined)[][];
    this.#merges = (sheet["!merges"] ?? []).map(({ s, e }) => ({
      top: s.r,
      left: s.c,
      bottom: e.r,
      right: e.c,
    }));
    this.used = this.#usedRange();
  }

  /** What holds something; the file's own word for it may count cells that are only coloured. */
  #usedRange(): Rectangle | undefined {
    let used: { top: number; left: number; bottom: number; right: number } | undefined;
    this.#rows.forEach((row, r) =>
      row?.forEach((cell, c) => {
        if (!cell || shownText(cell) === "") return;
        used ??= { top: r, left: c, bottom: r, right: c };
        used.bottom = r;
        used.left = Math.min(used.left, c);
        used.right = Math.max(used.right, c);
      }),
    );
    return used;
  }

  table(rectangle: Rectangle): Table {
    const { used } = this;
    const bottom = Math.min(rectangle.bottom, Math.max(used?.bottom ?? 0, rectangle.top));
    const right = Math.min(rectangle.right, Math.max(used?.right ?? 0, rectangle.left));
    const inside = { ...rectangle, bottom, right };
    const merges = this.#merges.filter((merge) => overlaps(merge, inside));
    const rows: Row[] = [];
    for (let r = inside.top; r <= bottom; r++) {
      const row: Cell[] = [];
      for (let c = inside.left; c <= right; c++) {
        const merge = merges.find(
          (each) => r >= each.top && r <= each.bottom && c >= each.left && c <= each.right,
        );
        const begins = merge?.top === r && merge.left === c;
        if (merge && !begins && merge.top >= inside.top && merge.left >= inside.left) continue;
        const cell = makeSheetCell(merge && !begins ? undefined : this.#rows[r]?.[c]);
        row.push(begins ? spanning(cell, merge, inside) : cell);
      }
      rows.push(row);
    }
    const headerRows = used && inside.top === used.top && this.#hasHeader(used) ? 1 : 0;
    return { type: "table", headerRows: Math.min(headerRows, rows.length), rows };
  }

  /**
   * Whether the first row names the columns: all of it is text, no two alike, and below it stands something else than
   * text, or the row has a colour of its own.
   */
  #hasHeader(used: Rectangle): boolean {
    const row = (r: number) =>
      Array.from({ length: used.right - used.left + 1 }, (_, i) => this.#rows[r]?.[used.left + i]);
    const names = row(used.top).map((cell) => (cell?.t === "s" ? shownText(cell).trim() : ""));
    if (names.includes("") || new Set(names).size < names.length || used.bottom === used.top) return false;
    const below = row(used.top + 1);
    const fill = fillOf(row(used.top)[0]);
    if (
      fill !== undefined &&
      row(used.top).every((cell) => fillOf(cell) === fill) &&
      fillOf(below[0]) !== fill
    )
      return true;
    return below.some((cell) => cell !== undefined && cell.t !== "s" && cell.t !== "z");
  }
}

function overlaps(a: Rectangle, b: Rectangle): boolean {
  return a.top <= b.bottom && a.bottom >= b.top && a.left <= b.right && a.right >= b.left;
}

function spanning(cell: Cell, merge: Rectangle, inside: Rectangle): Cell {
  const colspan = Math.min(merge.right, inside.right) - merge.left + 1;
  const rowspan = Math.min(merge.bottom, inside.bottom) - merge.top + 1;
  return { ...cell, ...(colspan > 1 && { colspan }), ...(rowspan > 1 && { rowspan }) };
}

/** What the sheet showed. Carriage returns in cells are line ends. */
function shownText(cell: CellObject): string {
  if (cell.t === "z") return "";
  return (cell.w ?? String(cell.v ?? "")).replace(/\r\n?/g, "\n");
}

function fillOf(cell: CellObject | undefined): string | undefined {
  const style = cell?.s as { patternType?: string; fgColor?: { rgb?: string } } | undefined;
  return style?.patternType === "solid" && style.fgColor?.rgb
    ? parseColor(style.fgColor.rgb.slice(-6))
    : undefined;
}

function makeSheetCell(source: CellObject | undefined): Cell {
  const background = fillOf(source);
  const look = background && background !== "#ffffff" ? { background } : {};
  const text = source ? shownText(source) : "";
  if (!source || text === "") return { flows: [], ...look };
  const value = valueOf(source);
  return {
    flows: [paragraph(text)],
    ...(value && value.type !== "boolean" && { align: "right" as const }),
    ...look,
    ...(value && { value }),
  };
}

function valueOf(cell: CellObject): CellValue | undefined {
  if (cell.t === "b") return { type: "boolean", boolean: cell.v === true };
  if (cell.t !== "n" || typeof cell.v !== "number") return undefined;
  const format =
    cell.z === undefined || cell.z === "General" ? undefined : String(cell.z).replace(/\\([-/. ,:])/g, "$1");
  if (format !== undefined && isDateFormat(format) && cell.v >= 1 && cell.v < 2_958_466) {
    return { type: "date", date: serialToDate(cell.v), format };
  }
  return { type: "number", number: cell.v, ...(format !== undefined && { format }) };
}
