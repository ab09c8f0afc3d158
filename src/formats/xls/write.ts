import type { Content } from "../../content/model.js";
import { rawNumber } from "../../content/serial.js";
import { looksTyped } from "../delimited/formula.js";
import { type GridCell, sheetToWrite } from "../office/grid.js";
import { type CellLook, Looks } from "./looks.js";
import { ByteWriter, RECORD, record, shortString, stringTable } from "./records.js";

/** How large a sheet of BIFF8 is, and how many characters a cell holds ([MS-XLS] 2.2.1). */
const MOST = { rows: 65_536, columns: 256, characters: 32_767 };
/** How many ranges one record of merged cells holds ([MS-XLS] 2.4.168). */
const MERGED = 1026;
/** How a truth value is shown: such a workbook has no format for it. */
const BOOLEAN = '"TRUE";"TRUE";"FALSE"';
/** The class of a link, and of an address in it ([MS-OSHARED] 2.3.7). */
const LINK_CLASS = "d0c9ea79f9bace118c8200aa004ba90b";
const ADDRESS_CLASS = "e0c9ea79f9bace118c8200aa004ba90b";

/**
 * Writes content as the stream of a workbook of one sheet, as sheet programs take it from a clipboard without a question
 * ([MS-XLS], BIFF8): typed cells with their formats, text as text, looks, merged cells, links. Nothing when it has more rows or
 * columns than such a sheet.
 */
export function writeXls(content: Content): Uint8Array | undefined {
  const { rows, rowCount, widths } = sheetToWrite(content, MOST.characters);
  if (rowCount > MOST.rows || widths.length > MOST.columns) return undefined;
  const looks = new Looks();
  const strings = new Map<string, number>();
  let uses = 0;
  const sheet = new ByteWriter();
  record(sheet, RECORD.bof, (data) => data.u16(0x600, 0x10, 0xdbb, 0x7cc).u32(0xc1, 0x606));
  record(sheet, RECORD.dimensions, (data) => data.u32(0, rowCount).u16(0, widths.length, 0));
  const merged: number[][] = [];
  const links = new ByteWriter();
  let count = 0;
  for (const cells of rows()) {
    const row = count++;
    for (const cell of cells) {
      const { column, text, value, link } = cell;
      const at = [row, column, looks.of(lookOf(cell))];
      if (text === "") record(sheet, RECORD.blank, (data) => data.u16(...at));
      else if (value) record(sheet, RECORD.number, (data) => data.u16(...at).f64(rawNumber(value)));
      else {
        if (!strings.has(text)) strings.set(text, strings.size);
        uses++;
        record(sheet, RECORD.string, (data) => data.u16(...at).u32(strings.get(text)!));
      }
      const { rowspan = 1, colspan = 1 } = cell.cell;
      if (rowspan > 1 || colspan > 1) merged.push([row, row + rowspan - 1, column, column + colspan - 1]);
      if (link) record(links, RECORD.link, (data) => linkData(data, row, column, link));
    }
  }
  for (let at = 0; at < merged.length; at += MERGED) {
    const some = merged.slice(at, at + MERGED);
    record(sheet, RECORD.merged, (data) => data.u16(some.length, ...some.flat()));
  }
  record(sheet.bytes(links.taken()), RECORD.eof);
  return workbook(looks, [...strings.keys()], uses, sheet.taken());
}

function workbook(looks: Looks, strings: readonly string[], uses: number, sheet: Uint8Array): Uint8Array {
  const to = new ByteWriter();
  record(to, RECORD.bof, (data) => data.u16(0x600, 5, 0xdbb, 0x7cc).u32(0xc1, 0x606));
  // UTF-16.
  record(to, RECORD.codePage, (data) => data.u16(1200));
  looks.write(to);
  const begin = to.length + 4;
  record(to, RECORD.sheet, (data) => shortString(data.u32(0).u8(0, 0), "Sheet1"));
  stringTable(to, strings, uses);
  record(to, RECORD.eof);
  to.setU32(begin, to.length);
  return to.bytes(sheet).taken();
}

function lookOf({ cell, text, value, bold, italic, color, lines }: GridCell): CellLook {
  return {
    ...{ bold, italic, color, background: cell.background, wraps: lines > 1, format: formatOf(value, text) },
    align: cell.align === "justify" ? undefined : cell.align,
  };
}

/** The format of a value; text that would be something else once it is written in again is marked as text. */
function formatOf(value: GridCell["value"], text: string): string {
  if (value?.type === "number") return value.format ?? "General";
  if (value?.type === "date") return value.format ?? "yyyy-mm-dd";
  if (value?.type === "boolean") return BOOLEAN;
  return looksTyped(text) || /^[=+@-]/.test(text) ? "@" : "General";
}

/** A cell's link to an address ([MS-XLS] 2.4.140, [MS-OSHARED] 2.3.7.1 and 2.3.7.6). */
function linkData(data: ByteWriter, row: number, column: number, address: string): void {
  const bytes = (hex: string) => Uint8Array.from(hex.match(/../g)!, (byte) => parseInt(byte, 16));
  data.u16(row, row, column, column).bytes(bytes(LINK_CLASS)).u32(2, 3).bytes(bytes(ADDRESS_CLASS));
  data.u32(2 * (address.length + 1)).text(`${address}\0`);
}
