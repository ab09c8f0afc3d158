import type { Paragraph } from "../../content/model.js";
import type { OnProgress } from "../format.js";
import { MISSING_CELLS, SheetGrid, type ReadSheet } from "../office/sheet.js";
import { Parts } from "../office/zip.js";
import { SharedStrings } from "./shared-strings.js";
import { XlsxCells } from "./sheet-cells.js";
import { XlsxStyles } from "./styles.js";
import { readWorkbook } from "./workbook.js";

/** How many days lie between the beginnings of both date systems (ECMA-376 part 1, 18.17.4.1). */
const DAYS_TO_1904 = 1462;

/**
 * Reads an xlsx workbook: each cell as its sheet showed it, the typed value with its number format behind it, and how
 * it looks. Formulas are left behind; their last results stay. Of a sheet only those rows are read that are asked for, and when they are.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readXlsx(bytes: Uint8Array, file: string, onProgress?: OnProgress): ReadSheet[] {
  const parts = new Parts(bytes, file, onProgress);
  const { sheets, isFrom1904, styles, strings } = readWorkbook(parts);
  const context = {
    strings: new SharedStrings(parts, strings),
    styles: new XlsxStyles(parts, styles),
    parted: new Map<string, Paragraph>(),
    since: isFrom1904 ? DAYS_TO_1904 : 0,
  };
  return sheets.map(({ name, part, isHidden }) => {
    const cells = part === undefined ? MISSING_CELLS : new XlsxCells(parts, part, isHidden, context);
    return new SheetGrid(name, cells);
  });
}
