import type { Address } from "../../content/address.js";
import { type Cell, type CellValue, type Marks, type Paragraph, paragraph } from "../../content/model.js";
import { mergeRuns } from "../../content/runs.js";
import { isDateFormat, serialToDate } from "../../content/serial.js";
import { sheetCell } from "../office/sheet-cell.js";
import { shownNumber, shownText } from "../office/shown.js";
import type { Element } from "../office/xml.js";
import type { StoredCell } from "./cell-store.js";
import type { SharedStrings } from "./shared-strings.js";
import { partMarks, type XlsxStyles } from "./styles.js";

/** What cells of a workbook are read with. */
export interface CellContext {
  readonly strings: SharedStrings;
  readonly styles: XlsxStyles;
  /** The shared texts of which parts look different, as they have been made for cells. */
  readonly parted: Map<string, Paragraph>;
  /** What is added to the number of a day, whose count begins in 1900 or in 1904. */
  readonly since: number;
}

/** A cell with what its sheet showed, the typed value with its number format behind it, and how it looks. */
export function makeCell(source: StoredCell, context: CellContext, link: Address | undefined): Cell {
  const { align, background, format, ...look } = context.styles.look(source.look);
  const text = shownOf(source, format, context);
  const marks = link ? { ...look, link } : look;
  const flows = text === "" ? [] : [inParts(source, text, marks, context) ?? paragraph(text, marks)];
  return sheetCell(flows, { align, background, value: valueOf(source, format, context.since) });
}

/**
 * A paragraph of parts that look different: one that says how it looks has nothing of its cell's look. Cells that share such a text, and
 * look alike, share the paragraph: a small file may have a long one in all of its cells.
 */
function inParts(
  source: StoredCell,
  shown: string,
  marks: Marks,
  { strings, parted }: CellContext,
): Paragraph | undefined {
  const { kind, number, look } = source;
  const parts = kind === "shared" ? strings.partsAt(number) : source.parts;
  if (!parts) return undefined;
  const key = kind === "shared" ? `${number} ${look} ${marks.link ?? ""}` : undefined;
  const known = key === undefined ? undefined : parted.get(key);
  if (known) return known;
  // A number format may make another text of it.
  if (parts.map(({ text }) => withLineEnds(text)).join("") !== shown) return undefined;
  const { link } = marks;
  const own = (look: Element) => ({ ...partMarks(look), ...(link && { link }) });
  const runs = parts.flatMap(
    ({ text, look }) => paragraph(withLineEnds(text), look ? own(look) : marks).runs,
  );
  const made: Paragraph = { type: "paragraph", runs: mergeRuns(runs) };
  if (key !== undefined) parted.set(key, made);
  return made;
}

function withLineEnds(text: string): string {
  return text.replace(/\r\n?/g, "\n");
}

/** Whether a sheet shows anything of a cell. */
export function isShown(source: StoredCell, context: CellContext): boolean {
  if (source.kind === "number" && !mayHide(context.styles.look(source.look).format)) return true;
  return shownOf(source, context.styles.look(source.look).format, context) !== "";
}

/** Whether a number format may show nothing of a number: in a section that is empty, or without a place for each digit. */
function mayHide(format: string | undefined): boolean {
  return format !== undefined && !/^[^;"]*0[^;"]*$/.test(format);
}

/** What the sheet showed of a cell. */
function shownOf(
  { kind, number, text }: StoredCell,
  format: string | undefined,
  { strings, since }: CellContext,
): string {
  switch (kind) {
    case "blank":
      return "";
    case "error":
      return text;
    case "boolean":
      return number === 1 ? "TRUE" : "FALSE";
    case "number":
      return shownNumber(isDated(number, format) ? number + since : number, format);
    case "shared":
    case "text": {
      const shown = kind === "text" ? text : (strings.at(number) ?? "");
      return withLineEnds(shownText(shown, format));
    }
  }
}

/** Whether a number is a day: its format says so, and it lies in the calendar that sheets have, which ends with 9999. */
function isDated(serial: number, format: string | undefined): format is string {
  return format !== undefined && isDateFormat(format) && serial >= 0 && serial < 2_958_466;
}

function valueOf(
  { kind, number }: StoredCell,
  code: string | undefined,
  since: number,
): CellValue | undefined {
  if (kind === "boolean") return { type: "boolean", boolean: number === 1 };
  if (kind !== "number") return undefined;
  const format = code?.replace(/\\([-/. ,:])/g, "$1");
  const serial = number + since;
  if (isDated(number, format) && serial >= 1) return { type: "date", date: serialToDate(serial), format };
  return { type: "number", number, ...(format !== undefined && { format }) };
}
