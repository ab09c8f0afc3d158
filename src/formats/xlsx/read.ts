import type { CellObject, WorkBook } from "@e965/xlsx";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { type Cell, type CellValue, paragraph } from "../../content/model.js";
import { isDateFormat, serialToDate } from "../../content/serial.js";
import { unzip, type Parts } from "../office/zip.js";
import { SheetGrid, type ReadSheet } from "../office/sheet.js";
import { XlsxStyles, type CellStyle } from "./styles.js";

/**
 * Reads an xlsx workbook: each cell as its sheet showed it, the typed value with its number format behind it, and how
 * it looks. Formulas are left behind; their last results stay.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export async function readXlsx(bytes: Uint8Array, file: string): Promise<ReadSheet[]> {
  const parts = unzip(bytes, file, (name) => /^xl\/|^\[Content_Types\]|\.rels$/.test(name));
  checkSheets(parts, file);
  // The workbook reader is given a zip that is whole: its own unpacking can run for ever on one that is not.
  const { read } = await import("@e965/xlsx");
  const damaged = (cause?: unknown) => new DrawerError("unreadable/damaged", { file }, { cause });
  let workbook: WorkBook;
  try {
    workbook = read(parts.zipped(), {
      type: "array",
      cellNF: true,
      cellFormula: false,
      cellHTML: false,
      dense: true,
    });
  } catch (error) {
    throw damaged(error);
  }
  const looks = new XlsxStyles(parts, file);
  return workbook.SheetNames.map((name, index) => {
    const sheet = workbook.Sheets[name];
    if (!sheet) throw damaged();
    const look = looks.ofSheet(index);
    const rows = ((sheet["!data"] ?? []) as (CellObject | undefined)[][]).map((row, r) =>
      row.map((cell, c) => cell && makeSheetCell(cell, look(r, c))),
    );
    const merges = (sheet["!merges"] ?? []).map(({ s, e }) => ({
      top: s.r,
      left: s.c,
      bottom: e.r,
      right: e.c,
    }));
    return new SheetGrid(name, rows, merges);
  });
}

/** Counts the cells of a workbook before any of them is made. */
function checkSheets(parts: Parts, file: string): void {
  let cells = 0;
  for (const [name, bytes] of Object.entries(parts.parts)) {
    if (!/^xl\/worksheets\/[^/]+\.xml$/.test(name)) continue;
    // A cell begins with “<c” and what ends a name.
    for (let at = bytes.indexOf(0x63); at > 0; at = bytes.indexOf(0x63, at + 1))
      if (bytes[at - 1] === 0x3c && [0x20, 0x3e, 0x2f, 0x0a].includes(bytes[at + 1] ?? 0)) cells++;
    if (cells > LIMITS.cells)
      throw new DrawerError("too-large/workbook", { file, most: LIMITS.cells, isByRepeats: false });
  }
}

function makeSheetCell(source: CellObject, { align: own, background, ...marks }: CellStyle): Cell {
  const look = background && background !== "#ffffff" ? { background } : {};
  const text = source.t === "z" ? "" : (source.w ?? String(source.v ?? "")).replace(/\r\n?/g, "\n");
  if (text === "") return { flows: [], ...look };
  const value = valueOf(source);
  const align = own ?? (value && value.type !== "boolean" ? "right" : undefined);
  return {
    flows: [paragraph(text, marks)],
    ...(align && align !== "left" && { align }),
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
