import type { Rectangle } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import {
  type Cell,
  type CellValue,
  type Content,
  type Marks,
  type Paragraph,
  type Run,
  paragraph,
} from "../../content/model.js";
import { runsText } from "../../content/runs.js";
import { isDateFormat, dateToSerial } from "../../content/serial.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { OnProgress } from "../format.js";
import { OdtReader } from "../odt/read.js";
import { OdfStyles, type OdfStyle } from "../odt/styles.js";
import { elementStream } from "../office/element-stream.js";
import { odfParts } from "../office/odf-parts.js";
import { sheetCell } from "../office/sheet-cell.js";
import { COLUMNS, placeKey, SheetGrid, type ReadSheet } from "../office/sheet.js";
import { shownNumber } from "../office/shown.js";
import { StreamedCells } from "../office/streamed-cells.js";
import { runInFont } from "../office/symbols.js";
import { marksFrom, type TextProps } from "../office/text-props.js";
import type { XmlStream } from "../office/xml-stream.js";
import { attributeOf, childrenOf, Element, parseXml } from "../office/xml.js";
import type { Parts } from "../office/zip.js";
import { CellColumns, numberValue, type CellLook } from "./cell-columns.js";
import { formatCode } from "./read-format.js";
import { between, findSheets, type SheetPlace } from "./sheet-places.js";

/** How far a sheet reaches at most. */
const LIMIT = { rows: 1_048_576, columns: COLUMNS };

/** The most cells of a sheet that are held at once. */
const MOST_CELLS = 2 * LIMITS.cells;

/** How often a blank cell or row that is coloured may be repeated and still be shown. */
const SHOWN_BLANK = 1000;

/**
 * Reads an ods workbook (OpenDocument 1.3): each cell as its sheet showed it, the typed value with its number format
 * behind it, and how it looks. Formulas are left behind; their last results stay.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readOds(bytes: Uint8Array, file: string, onProgress?: OnProgress): ReadSheet[] {
  const parts = odfParts(bytes, file, onProgress);
  // It is gone through for its styles, to find its sheets, and for each of these.
  parts.keep(CONTENT);
  const content = readHead(parts);
  const styles = parts.text("styles.xml");
  const odf = new OdfStyles(styles ? [parseXml(styles, file), content] : [content]);
  const text = new OdtReader(parts, odf, file);
  return findSheets(parts.pieces(CONTENT, true), content, file).map((place) => {
    const table = parseXml(place.tag.replace(/\/?>$/, "/>"), file);
    const isHidden = odf.isHiddenTable(attributeOf(table, "style-name"));
    const cells = new OdsCells(parts, place, isHidden, text, odf);
    return new SheetGrid(attributeOf(table, "name") ?? "", cells);
  });
}

const CONTENT = "content.xml";

/** What stands before the sheets: the styles of the file. */
function readHead(parts: Parts): Element {
  let root = new Element("document-content", []);
  let hasSheets = false;
  const stream = elementStream(
    parts.pieces(CONTENT),
    parts.file,
    {
      isOpened(element, depth) {
        const { localName } = element;
        if (depth === 0) root = element;
        hasSheets ||= localName === "spreadsheet" && depth === 2;
        return depth === 0 || (depth === 1 && localName === "body") || hasSheets;
      },
      take: (element) => root.append(element),
    },
    LIMITS.elements,
  );
  while (!stream.isRead && !hasSheets) stream.readOn();
  if (!hasSheets)
    throw new DrawerError(formatErrors, "unreadable/not-one", { file: parts.file, what: "ods" });
  return root;
}

/** The cells of a sheet of a workbook, read row by row. */
class OdsCells extends StreamedCells {
  readonly #kept = new CellColumns();
  readonly #merges: Rectangle[] = [];
  #row = 0;
  /** The style that cells of a column have when they name none, by ranges of columns. */
  readonly #columns: { to: number; style: string | undefined }[] = [];
  readonly #looks = new Map<string | undefined, CellLook>();
  /** How many cells that hold something have been made of the sheet. */
  #cells = 0;

  constructor(
    readonly parts: Parts,
    readonly place: SheetPlace,
    isHidden: boolean,
    readonly text: OdtReader,
    readonly styles: OdfStyles,
  ) {
    super(isHidden);
  }

  protected open(): XmlStream {
    return elementStream(
      between(this.parts.pieces(CONTENT), this.place),
      this.parts.file,
      {
        isOpened: ({ localName }, depth) =>
          depth === 0 || /^table-(header-rows|rows|row-group)$/.test(localName),
        take: (element) => this.#take(element),
      },
      Infinity,
    );
  }

  get rowsRead(): number {
    return this.isRead ? Infinity : this.#row;
  }

  row(row: number): readonly (Cell | undefined)[] {
    return this.#kept.row(row);
  }

  merges(): readonly Rectangle[] {
    return this.#merges;
  }

  /** Refuses more cells than can be held, before those that are repeated are made. */
  #count(cells: number, isByRepeats: boolean): void {
    this.#cells += cells;
    if (this.#cells > MOST_CELLS)
      throw new DrawerError(formatErrors, "too-large/workbook", {
        file: this.parts.file,
        most: MOST_CELLS,
        isByRepeats,
      });
  }

  #take(element: Element): void {
    switch (element.localName) {
      case "table-column":
        this.#readColumn(element);
        break;
      case "table-row":
        this.#readRow(element);
        break;
      case "table-columns":
      case "table-header-columns":
      case "table-column-group":
        for (const child of childrenOf(element)) this.#take(child);
    }
  }

  #readColumn(element: Element): void {
    const from = this.#columns.at(-1)?.to ?? 0;
    const times = count(element, "number-columns-repeated", LIMIT.columns);
    const to = Math.min(from + times, LIMIT.columns);
    // To the end of the sheet, there is nothing to hide.
    if (isHidden(element) && times <= SHOWN_BLANK)
      for (let column = from; column < to; column++) this.facts.hiddenColumns.add(column);
    if (to > from) this.#columns.push({ to, style: attributeOf(element, "default-cell-style-name") });
  }

  #readRow(element: Element): void {
    let [column, made, first, last] = [0, 0, -1, -1];
    for (const child of childrenOf(element)) {
      if (child.localName !== "table-cell" && child.localName !== "covered-table-cell") continue;
      const times = count(child, "number-columns-repeated", LIMIT.columns);
      const holds = child.localName === "table-cell" ? this.#keep(child, column, times) : "nothing";
      if (holds !== "nothing") made += times;
      if (holds === "content") {
        if (first < 0) first = column;
        last = column + times - 1;
      }
      this.#addMerge(child, column);
      column += times;
    }
    const times = count(element, "number-rows-repeated", LIMIT.rows);
    const isFilled = first >= 0;
    if (isFilled) this.extend(this.#row, first, this.#row + times - 1, last);
    if (made > 0 && (isFilled || times <= SHOWN_BLANK)) {
      this.#count((times - 1) * made, true);
      this.#kept.endRow(this.#row, times);
    } else this.#kept.dropRow();
    if (isFilled && isHidden(element) && times <= SHOWN_BLANK)
      for (let i = 0; i < times; i++) this.facts.hiddenRows.add(this.#row + i);
    this.#row += times;
  }

  #addMerge(element: Element, left: number): void {
    const colspan = count(element, "number-columns-spanned", LIMIT.columns);
    const rowspan = count(element, "number-rows-spanned", LIMIT.rows);
    if (colspan * rowspan === 1) return;
    const [top, bottom, right] = [this.#row, this.#row + rowspan - 1, left + colspan - 1];
    this.#merges.push({ top, left, bottom, right });
  }

  /** Keeps a cell, and says what it holds. What is coloured only, to the end of the sheet, is how sheets look and no content. */
  #keep(element: Element, column: number, times: number): "content" | "color" | "nothing" {
    const named = attributeOf(element, "style-name");
    const look = this.#lookOf(named ?? this.#styleOfColumn(column));
    const value = valueOf(element, look.format);
    const text = plainText(element);
    const number = value?.type === "number" && value.format === look.format ? value.number : undefined;
    const isPlain = value === undefined || number !== undefined;
    if (isPlain && text) {
      this.#count(times, times > 1);
      this.#kept.addPlain(column, times, look, text, number);
      return "content";
    }
    const cell = this.#cell(element, look, value, text);
    const isFilled = cell.flows.length > 0;
    if (!isFilled && attributeOf(element, "formula") !== undefined && !attributeOf(element, "value-type"))
      this.facts.unresolved.push(placeKey(this.#row, column));
    if (!isFilled && !(cell.background && times <= SHOWN_BLANK)) return "nothing";
    this.#count(times, times > 1);
    this.#kept.addMade(column, times, cell);
    return isFilled ? "content" : "color";
  }

  #cell(element: Element, look: CellLook, value: CellValue | undefined, text: string | undefined): Cell {
    const { style, marks, format } = look;
    const runs = text === undefined ? this.#runs(element, style) : plainRuns(text, style.props, marks);
    const isCached = runs.length > 0 || value === undefined;
    const flows: Content = isCached
      ? runsText(runs) === ""
        ? []
        : [{ type: "paragraph", runs }]
      : [paragraph(shownOf(value, format))];
    return sheetCell(flows, { align: style.align, background: style.background, value });
  }

  /** A cell's lines are paragraphs in the file; here they are lines of one paragraph, as in every other sheet. */
  #runs(element: Element, style: OdfStyle): readonly Run[] {
    const paragraphs = this.text
      .flowsIn(element, 0, undefined, style)
      .filter((flow): flow is Paragraph => flow.type === "paragraph");
    return paragraphs.flatMap((flow, index) =>
      index === 0 ? flow.runs : [{ type: "break" } as const, ...flow.runs],
    );
  }

  /** The style that cells of a column have when they name none. */
  #styleOfColumn(column: number): string | undefined {
    let [low, high] = [0, this.#columns.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#columns[middle]!.to <= column) low = middle + 1;
      else high = middle;
    }
    return this.#columns[low]?.style;
  }

  /** What cells of a style look like. */
  #lookOf(name: string | undefined): CellLook {
    let look = this.#looks.get(name);
    if (!look) {
      const style = this.styles.get("table-cell", name);
      const plain = this.styles.get("table-cell", "Default").props;
      look = { style, marks: marksFrom(style.props, plain), format: this.#formatOf(style.dataStyle) };
      this.#looks.set(name, look);
    }
    return look;
  }

  #formatOf(dataStyle: string | undefined): string | undefined {
    const style = dataStyle === undefined ? undefined : this.styles.dataStyle(dataStyle);
    return style && formatCode(style, (name) => this.styles.dataStyle(name), this.styles.country);
  }
}

/** The text of a cell that holds one line without anything in it; nothing for another one, which is read by the reader of texts. */
function plainText({ children }: Element): string | undefined {
  const [only] = children;
  if (only === undefined) return "";
  if (children.length > 1 || typeof only === "string" || only.localName !== "p") return undefined;
  let text = "";
  for (const child of only.children) {
    if (typeof child !== "string") return undefined;
    text += child;
  }
  return /[\r\n]/.test(text) ? undefined : text;
}

function plainRuns(text: string, { font }: TextProps, marks: Marks): readonly Run[] {
  return text === "" ? [] : [runInFont(text, font, marks)];
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
  const said = attributeOf(element, name);
  return said === undefined ? 1 : Math.min(most, Math.max(1, Number(said) || 1));
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
  return Number.isFinite(number) ? numberValue(number, format) : undefined;
}

/** A time of day, or one that has passed, as a part of a day; the file has it as a duration (XML Schema part 2, 3.2.6). */
function timeOf(duration: string, format: string | undefined): CellValue | undefined {
  const parts = /^(-?)P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:[.,]\d+)?)S)?)?$/.exec(duration);
  if (!parts) return undefined;
  const [days, hours, minutes, seconds] = parts.slice(2).map((part = "0") => Number(part.replace(",", ".")));
  const time = days! + hours! / 24 + minutes! / 1440 + seconds! / 86_400;
  return numberValue(parts[1] === "-" ? -time : time, format ?? "[hh]:mm:ss");
}
