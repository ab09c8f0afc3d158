import type { CellObject, WorkBook } from "@e965/xlsx";
import { safeLink } from "../../content/address.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { type Cell, type CellValue, paragraph } from "../../content/model.js";
import { isDateFormat, serialToDate } from "../../content/serial.js";
import { formatErrors } from "../../messages/en/formats.js";
import { SheetGrid, type ReadSheet } from "../office/sheet.js";
import { shownNumber, shownText } from "../office/shown.js";
import { unzip, type Parts } from "../office/zip.js";
import { placeKey, sheetFacts } from "./facts.js";
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
  const damaged = (cause?: unknown) =>
    new DrawerError(formatErrors, "unreadable/damaged", { file }, { cause });
  let workbook: WorkBook;
  try {
    workbook = read(parts.zipped(), {
      type: "array",
      cellNF: false,
      cellText: false,
      cellFormula: false,
      cellHTML: false,
      dense: true,
      // Cells that hold nothing may be coloured.
      sheetStubs: true,
    });
  } catch (error) {
    throw damaged(error);
  }
  const styles = new XlsxStyles(parts, file);
  const since = workbook.Workbook?.WBProps?.date1904 ? DAYS_TO_1904 : 0;
  return workbook.SheetNames.map((name, index) => {
    const sheet = workbook.Sheets[name];
    const isHidden = (workbook.Workbook?.Sheets?.[index]?.Hidden ?? 0) > 0;
    // It is named in the workbook, and not in the file.
    if (!sheet) return new SheetGrid(name, [], [], { ...sheetFacts("", isHidden), isMissing: true });
    const facts = sheetFacts(styles.xmlOf(index), isHidden);
    const lookAt = (row: number, column: number) => styles.look(facts.looks.get(placeKey(row, column)));
    const rows = ((sheet["!data"] ?? []) as (CellObject | undefined)[][]).map((row, r) =>
      row.map((cell, c) => cell && makeSheetCell(cell, lookAt(r, c), since)),
    );
    const merges = (sheet["!merges"] ?? []).map(({ s, e }) => ({
      top: s.r,
      left: s.c,
      bottom: e.r,
      right: e.c,
    }));
    return new SheetGrid(name, rows, merges, facts);
  });
}

/** Counts the cells of a workbook before any of them is made. */
function checkSheets(parts: Parts, file: string): void {
  const strings = parts.bytes("xl/sharedStrings.xml");
  if (strings) checkStrings(strings, file);
  let cells = 0;
  for (const [name, bytes] of Object.entries(parts.parts)) {
    if (!/^xl\/worksheets\/[^/]+\.xml$/.test(name)) continue;
    // A cell begins with “<c” and what ends a name.
    for (let at = bytes.indexOf(0x63); at > 0; at = bytes.indexOf(0x63, at + 1))
      if (bytes[at - 1] === 0x3c && [0x20, 0x3e, 0x2f, 0x0a].includes(bytes[at + 1] ?? 0)) cells++;
    if (cells > LIMITS.cells)
      throw new DrawerError(formatErrors, "too-large/workbook", {
        file,
        most: LIMITS.cells,
        isByRepeats: false,
      });
  }
}

/** The most bytes of the part of shared strings: each of a workbook's cells may have a text of its own. */
const STRINGS = 2 * LIMITS.characters;

/** Counts the texts that cells share before any of them is made. */
function checkStrings(bytes: Uint8Array, file: string): void {
  const tooLarge = (what: "characters" | "elements", most: number) =>
    new DrawerError(formatErrors, "too-large/document", { file, what, most });
  if (bytes.length > STRINGS) throw tooLarge("characters", LIMITS.characters);
  let strings = 0;
  // A text begins with “<si”.
  for (let at = bytes.indexOf(0x3c); at >= 0; at = bytes.indexOf(0x3c, at + 1))
    if (bytes[at + 1] === 0x73 && bytes[at + 2] === 0x69) strings++;
  if (strings > LIMITS.cells) throw tooLarge("elements", LIMITS.cells);
}

/** How many days lie between the beginnings of both date systems (ECMA-376 part 1, 18.17.4.1). */
const DAYS_TO_1904 = 1462;

/** What an error shows, by its number (MS-XLS, 2.5.10). */
const ERRORS: Readonly<Record<number, string>> = {
  0x00: "#NULL!",
  0x07: "#DIV/0!",
  0x0f: "#VALUE!",
  0x17: "#REF!",
  0x1d: "#NAME?",
  0x24: "#NUM!",
  0x2a: "#N/A",
  0x2b: "#GETTING_DATA",
};

function makeSheetCell(source: CellObject, style: CellStyle, since: number): Cell {
  const { align: own, background, format, ...look } = style;
  const link = safeLink(source.l?.Target ?? "");
  const marks = { ...look, ...(link && { link }) };
  const filled = background && background !== "#ffffff" ? { background } : {};
  const value = valueOf(source, format, since);
  const text = shownOf(source, format, since).replace(/\r\n?/g, "\n");
  if (text === "") return { flows: [], ...filled };
  const align = own ?? (value && value.type !== "boolean" ? "right" : undefined);
  return {
    flows: [paragraph(text, marks)],
    ...(align && align !== "left" && { align }),
    ...filled,
    ...(value && { value }),
  };
}

/** What the sheet showed of a cell. */
function shownOf({ t: type, v: value }: CellObject, format: string | undefined, since: number): string {
  if (value === undefined || type === "z") return "";
  if (type === "e") return ERRORS[Number(value)] ?? "#N/A";
  if (type === "b") return value === true ? "TRUE" : "FALSE";
  if (typeof value !== "number") return shownText(String(value), format);
  return shownNumber(isDated(value, format) ? value + since : value, format);
}

/** Whether a number is a day: its format says so, and it lies in the calendar that sheets have, which ends with 9999. */
function isDated(serial: number, format: string | undefined): format is string {
  return format !== undefined && isDateFormat(format) && serial >= 0 && serial < 2_958_466;
}

function valueOf(cell: CellObject, code: string | undefined, since: number): CellValue | undefined {
  if (cell.t === "b") return { type: "boolean", boolean: cell.v === true };
  if (cell.t !== "n" || typeof cell.v !== "number") return undefined;
  const format = code?.replace(/\\([-/. ,:])/g, "$1");
  const serial = cell.v + since;
  if (isDated(cell.v, format) && serial >= 1) return { type: "date", date: serialToDate(serial), format };
  return { type: "number", number: cell.v, ...(format !== undefined && { format }) };
}
