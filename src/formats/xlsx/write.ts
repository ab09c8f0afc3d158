import writeExcelFile, { type CellObject } from "write-excel-file/universal";
import { columnLetters } from "../../content/cells.js";
import { dateToSerial } from "../../content/serial.js";
import type { WriteInput, WriteResult } from "../format.js";
import { sheetToWrite, type GridCell } from "../office/grid.js";
import { type CellLink, finish } from "./finish.js";

/** How many characters a cell of a workbook holds (Excel’s specifications and limits). */
const CELL_LENGTH = 32_767;

/** How high a line is, and the highest that a row can be (Excel's specifications and limits), in points. */
const LINE = 15;
const HIGHEST = 409;

/** Writes content as an xlsx of one sheet: typed cells with their formats, text as text, headers bold, columns wide enough. */
export async function writeXlsx({ content }: WriteInput): Promise<WriteResult> {
  const { rows, headerRows, widths, notices } = sheetToWrite(content, CELL_LENGTH);
  const links: CellLink[] = [];
  const data = rows.map((row, index) => {
    const line: (CellObject | null)[] = [];
    for (const cell of row) {
      while (line.length < cell.column) line.push(null);
      line[cell.column] = cellOf(cell);
      if (cell.link) links.push({ place: `${columnLetters(cell.column)}${index + 1}`, address: cell.link });
      for (let i = 1; i < (cell.cell.colspan ?? 1); i++) line[cell.column + i] = null;
    }
    return line;
  });
  const file = await writeExcelFile(
    data,
    {
      columns: widths.map((width) => ({ width })),
      ...(headerRows > 0 && headerRows < rows.length && { stickyRowsCount: headerRows }),
    },
    { fontFamily: "Calibri", fontSize: 11 },
  ).toBlob();
  return { data: await finish(new Uint8Array(await file.arrayBuffer()), links), notices };
}

function cellOf({ text, lines, value, cell, bold, italic, color }: GridCell): CellObject | null {
  const look = {
    ...(cell.colspan && { columnSpan: cell.colspan }),
    ...(cell.rowspan && { rowSpan: cell.rowspan }),
    ...(cell.align && cell.align !== "justify" && { align: cell.align }),
    ...(cell.background && { backgroundColor: cell.background }),
    ...(bold && { fontWeight: "bold" as const }),
    ...(italic && { fontStyle: "italic" as const }),
    ...(color && { textColor: color }),
    // Programs show the last line only where the row is not high enough.
    ...(lines > 1 && { wrap: true, height: Math.min(HIGHEST, lines * LINE) }),
  };
  if (text === "")
    return Object.keys(look).length > 0 ? ({ ...look, value: null } as unknown as CellObject) : null;
  if (value?.type === "number")
    return { ...look, type: Number, value: value.number, ...(value.format && { format: value.format }) };
  if (value?.type === "date")
    return { ...look, type: Number, value: dateToSerial(value.date), format: value.format ?? "yyyy-mm-dd" };
  if (value?.type === "boolean") return { ...look, type: Boolean, value: value.boolean };
  return { ...look, type: String, value: text, format: "@" };
}
