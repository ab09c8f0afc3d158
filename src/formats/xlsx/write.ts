import type { Address } from "../../content/address.js";
import { columnLetters } from "../../content/cells.js";
import { dateToSerial } from "../../content/serial.js";
import type { WriteInput, WriteResult } from "../format.js";
import type { CellPart } from "../office/cell-text.js";
import { sheetToWrite, type GridCell, type SheetToWrite } from "../office/grid.js";
import { element, escapeXml } from "../office/odf.js";
import { ZipWriter } from "../office/zip-writer.js";
import { partLookXml, WrittenStyles } from "./write-styles.js";

/** How many characters a cell of a workbook holds (Excel’s specifications and limits). */
export const CELL_LENGTH = 32_767;

/** How high a line is, and the highest that a row can be (Excel's specifications and limits), in points. */
const LINE = 15;
const HIGHEST = 409;

const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const PACKAGE = "http://schemas.openxmlformats.org/package/2006";
const TYPES = "application/vnd.openxmlformats-officedocument.spreadsheetml";
const SHEET = "xl/worksheets/sheet1.xml";

/**
 * Writes content as an xlsx of one sheet (ECMA-376): typed cells with their formats, text as text, headers bold, columns wide enough.
 * The sheet is packed row by row as it is made.
 */
export function writeXlsx({ content }: WriteInput): WriteResult {
  const sheet = sheetToWrite(content, CELL_LENGTH);
  const writer = new SheetWriter(sheet);
  const zip = new ZipWriter();
  zip.add("[Content_Types].xml", HEAD + CONTENT_TYPES);
  zip.add("_rels/.rels", HEAD + relationships([relation("rId1", "officeDocument", "xl/workbook.xml")]));
  zip.add("xl/workbook.xml", HEAD + WORKBOOK);
  zip.add("xl/_rels/workbook.xml.rels", HEAD + relationships(PARTS));
  zip.add(SHEET, writer.xml());
  if (writer.links.length > 0)
    zip.add("xl/worksheets/_rels/sheet1.xml.rels", HEAD + relationships(writer.links.map(linkRelation)));
  zip.add("xl/styles.xml", HEAD + writer.styles.xml);
  zip.add("xl/sharedStrings.xml", writer.stringsXml());
  return { data: zip.bytes(), notices: sheet.notices };
}

const override = (part: string, type: string) =>
  element("Override", { PartName: `/xl/${part}.xml`, ContentType: `${TYPES}.${type}+xml` });
const CONTENT_TYPES = element(
  "Types",
  { xmlns: `${PACKAGE}/content-types` },
  element("Default", {
    Extension: "rels",
    ContentType: "application/vnd.openxmlformats-package.relationships+xml",
  }) +
    element("Default", { Extension: "xml", ContentType: "application/xml" }) +
    override("workbook", "sheet.main") +
    override("worksheets/sheet1", "worksheet") +
    override("styles", "styles") +
    override("sharedStrings", "sharedStrings"),
);
const WORKBOOK = element(
  "workbook",
  { xmlns: MAIN, "xmlns:r": OFFICE },
  '<bookViews><workbookView/></bookViews><sheets><sheet name="Sheet1" sheetId="1" r:id="rId1"/></sheets>',
);
const relation = (id: string, type: string, target: string) =>
  element("Relationship", { Id: id, Type: `${OFFICE}/${type}`, Target: target });
const PARTS = [
  relation("rId1", "worksheet", "worksheets/sheet1.xml"),
  relation("rId2", "styles", "styles.xml"),
  relation("rId3", "sharedStrings", "sharedStrings.xml"),
];

function relationships(inner: readonly string[]): string {
  return element("Relationships", { xmlns: `${PACKAGE}/relationships` }, inner.join(""));
}

/** A link of a cell: where it stands (`B2`), and its address. */
interface CellLink {
  readonly place: string;
  readonly address: Address;
}

function linkRelation({ address }: CellLink, index: number): string {
  return element("Relationship", {
    ...{ Id: `link${index + 1}`, Type: `${OFFICE}/hyperlink`, Target: address, TargetMode: "External" },
  });
}

/** Writes the sheet (18.3.1), and gathers what stands in other parts: looks, texts, addresses of links. */
class SheetWriter {
  readonly styles = new WrittenStyles();
  readonly links: CellLink[] = [];
  readonly #strings = new Map<string, number>();
  #uses = 0;
  readonly #merged: string[] = [];
  readonly #letters: string[] = [];

  constructor(readonly sheet: SheetToWrite) {}

  *xml(): Generator<string> {
    const { widths, headerRows, rowCount, rows } = this.sheet;
    yield `${HEAD}<worksheet xmlns="${MAIN}" xmlns:r="${OFFICE}">`;
    yield `<sheetViews><sheetView tabSelected="1" workbookViewId="0">${
      headerRows > 0 && headerRows < rowCount ? frozen(headerRows) : ""
    }</sheetView></sheetViews>`;
    if (widths.length > 0) yield element("cols", {}, widths.map(columnXml).join(""));
    yield "<sheetData>";
    let number = 0;
    for (const row of rows()) yield this.#rowXml(row, ++number);
    yield "</sheetData>";
    if (this.#merged.length > 0)
      yield element("mergeCells", { count: this.#merged.length }, this.#merged.join(""));
    if (this.links.length > 0) yield element("hyperlinks", {}, this.links.map(linkXml).join(""));
    yield "</worksheet>";
  }

  #rowXml(row: readonly GridCell[], number: number): string {
    let cells = "";
    let lines = 1;
    for (const cell of row) {
      cells += this.#cellXml(cell, number);
      lines = Math.max(lines, cell.lines);
    }
    // Programs show the last line only where the row is high enough.
    const height = lines > 1 ? ` ht="${Math.min(HIGHEST, lines * LINE)}" customHeight="1"` : "";
    return `<row r="${number}"${height}>${cells}</row>`;
  }

  #cellXml(grid: GridCell, row: number): string {
    const { column, text, value, link, cell, parts } = grid;
    const place = `${(this.#letters[column] ??= columnLetters(column))}${row}`;
    const { colspan = 1, rowspan = 1 } = cell;
    if (colspan > 1 || rowspan > 1) {
      const end = `${columnLetters(column + colspan - 1)}${row + rowspan - 1}`;
      this.#merged.push(element("mergeCell", { ref: `${place}:${end}` }));
    }
    if (link) this.links.push({ place, address: link });
    const look = this.#lookOf(grid);
    const begin = `<c r="${place}"${look > 0 ? ` s="${look}"` : ""}`;
    if (text === "") return look > 0 ? `${begin}/>` : "";
    if (value?.type === "number") return `${begin}><v>${value.number}</v></c>`;
    if (value?.type === "date") return `${begin}><v>${dateToSerial(value.date)}</v></c>`;
    if (value?.type === "boolean") return `${begin} t="b"><v>${value.boolean ? 1 : 0}</v></c>`;
    return `${begin} t="s"><v>${this.#stringNumber(parts ? IN_PARTS + partsXml(parts, grid) : text)}</v></c>`;
  }

  #lookOf({ text, value, lines, cell, bold, italic, color }: GridCell): number {
    const { align, background } = cell;
    return this.styles.numberOf({
      format: text === "" ? undefined : formatOf(value),
      align: align === "justify" ? undefined : align,
      wraps: lines > 1,
      ...{ background, bold, italic, color },
    });
  }

  #stringNumber(text: string): number {
    this.#uses++;
    let number = this.#strings.get(text);
    if (number === undefined) this.#strings.set(text, (number = this.#strings.size));
    return number;
  }

  /** The texts that cells share (18.4). */
  *stringsXml(): Generator<string> {
    yield `${HEAD}<sst xmlns="${MAIN}" count="${this.#uses}" uniqueCount="${this.#strings.size}">`;
    for (const text of this.#strings.keys())
      yield `<si>${text.startsWith(IN_PARTS) ? text.slice(IN_PARTS.length) : textXml(text)}</si>`;
    yield "</sst>";
  }
}

/** What a text begins with among those that cells share that is the XML of its parts: no text has this sign (XML 1.0, 2.2). */
const IN_PARTS = "\u0000";

function textXml(text: string): string {
  const kept = /^\s|\s$|\n/.test(text) ? ' xml:space="preserve"' : "";
  return `<t${kept}>${escapeXml(escapedString(text))}</t>`;
}

/** The parts of a text that look different (18.4.4). What a part does not say of its look is not as its cell has it. */
function partsXml(parts: readonly CellPart[], { bold }: GridCell): string {
  return parts
    .map(({ text, marks }) => `<r>${partLookXml({ ...marks, ...(bold && { bold }) })}${textXml(text)}</r>`)
    .join("");
}

/** A text in which what looks like an escaped sign stands for itself (18.18.92, ST_Xstring). */
function escapedString(text: string): string {
  return text.includes("_x") ? text.replace(/_(?=x[\da-fA-F]{4}_)/g, "_x005F_") : text;
}

/** The number format of a cell that shows something. Text is text, whatever it looks like. */
function formatOf(value: GridCell["value"]): string | undefined {
  if (value === undefined) return "@";
  if (value.type === "boolean") return undefined;
  return value.format ?? (value.type === "date" ? "yyyy-mm-dd" : undefined);
}

/** That the first rows stay in sight (18.3.1.66). */
function frozen(rows: number): string {
  return element("pane", {
    ...{ ySplit: rows, topLeftCell: `A${rows + 1}`, activePane: "bottomLeft", state: "frozen" },
  });
}

function columnXml(width: number, index: number): string {
  return element("col", { min: index + 1, max: index + 1, width, customWidth: 1 });
}

function linkXml({ place }: CellLink, index: number): string {
  return element("hyperlink", { ref: place, "r:id": `link${index + 1}` });
}
