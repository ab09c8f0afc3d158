import type { Rectangle } from "../../content/cells.js";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { makeCell } from "../../content/make-table.js";
import { type Cell, type CellValue, type Paragraph, type Content, paragraph } from "../../content/model.js";
import { runsText } from "../../content/runs.js";
import { isDateFormat, dateToSerial } from "../../content/serial.js";
import { formatErrors } from "../../messages/en/formats.js";
import { OdtReader } from "../odt/read.js";
import { OdfStyles } from "../odt/styles.js";
import { SheetGrid, type ReadSheet } from "../office/sheet.js";
import { shownNumber } from "../office/shown.js";
import { attributeOf, childOf, childrenOf, parseXml, type Element } from "../office/xml.js";
import { locked, Parts } from "../office/zip.js";
import { formatCode } from "./read-format.js";

/** How far a sheet reaches at most. */
const LIMIT = { rows: 1_048_576, columns: 16_384 };

/** How often a blank cell or row that is coloured may be repeated and still be shown. */
const SHOWN_BLANK = 1000;

/**
 * Reads an ods workbook (OpenDocument 1.3): each cell as its sheet showed it, the typed value with its number format
 * behind it, and how it looks. Formulas are left behind; their last results stay.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readOds(bytes: Uint8Array, file: string): ReadSheet[] {
  const parts = new Parts(bytes, file);
  if (parts.text("META-INF/manifest.xml")?.includes("encryption-data")) throw locked(file);
  const root = parseXml(parts.needed("content.xml"), file);
  const body = childOf(childOf(root, "body"), "spreadsheet");
  if (!body) throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "ods" });
  const styles = parts.text("styles.xml");
  const odf = new OdfStyles(styles ? [parseXml(styles, file), root] : [root]);
  const text = new OdtReader(parts, odf, file);
  const tables = [...childrenOf(body)].filter(({ localName }) => localName === "table");
  return tables.map((table) => new SheetReader(text, odf, file).read(table));
}

class SheetReader {
  readonly #rows: (Cell | undefined)[][] = [];
  readonly #merges: Rectangle[] = [];
  #row = 0;
  /** The style that cells of a column have when they name none, by ranges of columns. */
  readonly #columns: { to: number; style: string | undefined }[] = [];

  constructor(
    readonly text: OdtReader,
    readonly styles: OdfStyles,
    readonly file: string,
  ) {}

  readonly #hiddenRows = new Set<number>();
  readonly #hiddenColumns = new Set<number>();
  readonly #unresolved: { row: number; column: number }[] = [];
  /** The format codes of data styles, by their names. */
  readonly #formats = new Map<string, string | undefined>();
  /** How many cells that hold something have been made of the sheet. */
  #cells = 0;

  /** Refuses repeats that come to more cells than a sheet may have, before they are made. */
  #count(cells: number): void {
    this.#cells += cells;
    if (this.#cells > LIMITS.cells)
      throw new DrawerError(formatErrors, "too-large/workbook", {
        file: this.file,
        most: LIMITS.cells,
        isByRepeats: true,
      });
  }

  read(table: Element): ReadSheet {
    this.#section(table);
    const isHidden = this.styles.isHiddenTable(attributeOf(table, "style-name"));
    const facts = {
      isHidden,
      hiddenRows: this.#hiddenRows,
      hiddenColumns: this.#hiddenColumns,
      unresolved: this.#unresolved,
    };
    return new SheetGrid(attributeOf(table, "name") ?? "", {
      facts,
      isRead: true,
      rowsRead: LIMIT.rows,
      extent: extentOf(this.#rows),
      readOn: () => undefined,
      row: (row) => this.#rows[row] ?? [],
      merges: () => this.#merges,
    });
  }

  #section(parent: Element): void {
    for (const child of childrenOf(parent)) {
      if (child.localName === "table-column") {
        const from = this.#columns.at(-1)?.to ?? 0;
        const times = count(child, "number-columns-repeated", LIMIT.columns);
        const to = from + times;
        // To the end of the sheet, there is nothing to hide.
        if (isHidden(child) && times <= SHOWN_BLANK)
          for (let column = from; column < to; column++) this.#hiddenColumns.add(column);
        this.#columns.push({ to, style: attributeOf(child, "default-cell-style-name") });
      } else if (child.localName === "table-row") this.#readRow(child);
      else if (
        /^table-(header-rows|rows|row-group|columns|header-columns|column-group)$/.test(child.localName)
      )
        this.#section(child);
    }
  }

  #readRow(element: Element): void {
    const cells: (Cell | undefined)[] = [];
    let column = 0;
    for (const child of childrenOf(element)) {
      if (child.localName !== "table-cell" && child.localName !== "covered-table-cell") continue;
      const times = count(child, "number-columns-repeated", LIMIT.columns);
      const cell = child.localName === "table-cell" ? this.#cell(child, column) : undefined;
      const isUnresolved = cell?.flows.length === 0 && attributeOf(child, "formula") !== undefined;
      if (isUnresolved && attributeOf(child, "value-type") === undefined)
        this.#unresolved.push({ row: this.#row, column });
      // What is coloured only, to the end of the sheet, is how sheets look and no content.
      const isShown = cell && (cell.flows.length > 0 || (cell.background && times <= SHOWN_BLANK));
      if (isShown) {
        this.#count(times);
        for (let i = 0; i < times; i++) cells[column + i] = cell;
      }
      const colspan = count(child, "number-columns-spanned", LIMIT.columns);
      const rowspan = count(child, "number-rows-spanned", LIMIT.rows);
      if (colspan * rowspan > 1) {
        this.#merges.push({
          top: this.#row,
          left: column,
          bottom: this.#row + rowspan - 1,
          right: column + colspan - 1,
        });
      }
      column += times;
    }
    const times = count(element, "number-rows-repeated", LIMIT.rows);
    const isFilled = cells.some((cell) => cell !== undefined && cell.flows.length > 0);
    if (cells.length > 0 && (isFilled || times <= SHOWN_BLANK)) {
      this.#count((times - 1) * cells.reduce((sum, cell) => sum + (cell ? 1 : 0), 0));
      for (let i = 0; i < times; i++) this.#rows[this.#row + i] = cells;
    }
    if (isFilled && isHidden(element) && times <= SHOWN_BLANK)
      for (let i = 0; i < times; i++) this.#hiddenRows.add(this.#row + i);
    this.#row += times;
  }

  /** A cell's lines are paragraphs in the file; here they are lines of one paragraph, as in every other sheet. */
  #cell(element: Element, column: number): Cell {
    const ofColumn = this.#columns.find(({ to }) => column < to)?.style;
    const style = this.styles.get("table-cell", attributeOf(element, "style-name") ?? ofColumn);
    const paragraphs = this.text
      .flows(element, 0, undefined, style)
      .filter((flow): flow is Paragraph => flow.type === "paragraph");
    const runs = paragraphs.flatMap((flow, index) =>
      index === 0 ? flow.runs : [{ type: "break" } as const, ...flow.runs],
    );
    const format = this.#formatOf(style.dataStyle);
    const value = valueOf(element, format);
    const isCached = runs.length > 0 || value === undefined;
    const flows: Content = isCached
      ? runsText(runs) === ""
        ? []
        : [{ type: "paragraph", runs }]
      : [paragraph(shownOf(value, format))];
    const align = style.align ?? (value && value.type !== "boolean" ? ("right" as const) : undefined);
    return makeCell(flows, {
      ...(align && align !== "left" && { align }),
      ...(style.background && style.background !== "#ffffff" && { background: style.background }),
      ...(value && { value }),
    });
  }

  #formatOf(dataStyle: string | undefined): string | undefined {
    if (dataStyle === undefined) return undefined;
    if (!this.#formats.has(dataStyle)) {
      const style = this.styles.dataStyle(dataStyle);
      this.#formats.set(
        dataStyle,
        style && formatCode(style, (name) => this.styles.dataStyle(name), this.styles.country),
      );
    }
    return this.#formats.get(dataStyle);
  }
}

function extentOf(rows: readonly (readonly (Cell | undefined)[] | undefined)[]): Rectangle | undefined {
  let used: { top: number; left: number; bottom: number; right: number } | undefined;
  rows.forEach((row, r) =>
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

/** What a sheet shows of a value that its file keeps without a text. */
function shownOf(value: CellValue, format: string | undefined): string {
  if (value.type === "boolean") return value.boolean ? "TRUE" : "FALSE";
  if (value.type === "number") return shownNumber(value.number, format);
  return shownNumber(dateToSerial(value.date), format ?? "yyyy-mm-dd");
}

/** Whether a row or a column is hidden, by hand or by a filter (ODF 1.3 part 3, 19.753). */
function isHidden(element: Element): boolean {
  return /^(collapse|filter)$/.test(attributeOf(element, "visibility") ?? "");
}

function count(element: Element, name: string, most: number): number {
  return Math.min(most, Math.max(1, Number(attributeOf(element, name) ?? 1) || 1));
}

function valueOf(element: Element, format: string | undefined): CellValue | undefined {
  const type = attributeOf(element, "value-type");
  if (type === "boolean")
    return { type: "boolean", boolean: attributeOf(element, "boolean-value") === "true" };
  if (type === "date") {
    const date = (attributeOf(element, "date-value") ?? "").slice(0, 19).replace(/T00:00:00$/, "");
    // The calendar of sheets ends with the year 9999.
    if (!/^\d{4}-/.test(date)) return undefined;
    return { type: "date", date, ...(format !== undefined && isDateFormat(format) && { format }) };
  }
  if (type === "time") return timeOf(attributeOf(element, "time-value") ?? "", format);
  if (type !== "float" && type !== "percentage" && type !== "currency") return undefined;
  const number = Number(attributeOf(element, "value"));
  return Number.isFinite(number) ? numberOf(number, format) : undefined;
}

function numberOf(number: number, format: string | undefined): CellValue {
  return { type: "number", number, ...defined({ format }) };
}

/** A time of day, or one that has passed, as a part of a day; the file has it as a duration (XML Schema part 2, 3.2.6). */
function timeOf(duration: string, format: string | undefined): CellValue | undefined {
  const parts = /^(-?)P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:[.,]\d+)?)S)?)?$/.exec(duration);
  if (!parts) return undefined;
  const [days, hours, minutes, seconds] = parts.slice(2).map((part = "0") => Number(part.replace(",", ".")));
  const time = days! + hours! / 24 + minutes! / 1440 + seconds! / 86_400;
  return numberOf(parts[1] === "-" ? -time : time, format ?? "[hh]:mm:ss");
}
