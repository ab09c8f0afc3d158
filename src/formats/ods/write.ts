import type { WriteInput, WriteResult } from "../format.js";
import type { CellMarks, CellPart } from "../office/cell-text.js";
import { sheetToWrite, type GridCell } from "../office/grid.js";
import { AutomaticStyles, element, packOdf, textProperties, textXml } from "../office/odf.js";
import { dataStyle } from "./write-format.js";

/** Points that a character of a column's width takes. */
const CHARACTER = 5.5;

/** Writes content as an ods of one sheet: typed cells with their formats, text as text, headers bold, columns wide enough. */
export function writeOds({ content, title }: WriteInput): WriteResult {
  const { rows, rowCount, headerRows, widths, notices } = sheetToWrite(content);
  const styles = new SheetStyles();
  // They stand before the rows that name them.
  for (const row of rows())
    for (const cell of row) {
      styles.nameOf(cell);
      for (const { marks } of cell.parts ?? []) styles.nameOfPart(marks);
    }
  const columns = widths.map((width) => {
    const properties = element("style:table-column-properties", {
      "style:column-width": `${(width * CHARACTER).toFixed(1)}pt`,
    });
    return element("table:table-column", {
      "table:style-name": styles.automatic.name("table-column", properties),
    });
  });
  const settings = headerRows > 0 && headerRows < rowCount ? frozenRows(headerRows) : undefined;
  const body = sheetXml(columns.join(""), rows(), styles);
  return { data: packOdf("spreadsheet", { body, automatic: styles.automatic, settings, title }), notices };
}

/** The sheet, row by row. */
function* sheetXml(
  columns: string,
  rows: Iterable<readonly GridCell[]>,
  styles: SheetStyles,
): Generator<string> {
  yield `<table:table table:name="Sheet1">${columns}`;
  let isBlank = true;
  for (const row of rows) {
    isBlank = false;
    yield element("table:table-row", {}, rowXml(row, styles) || "<table:table-cell/>");
  }
  yield `${isBlank ? "<table:table-row><table:table-cell/></table:table-row>" : ""}</table:table>`;
}

/** The settings by which sheet programs keep the first rows in sight. */
function frozenRows(count: number): string {
  const item = (name: string, type: string, value: string | number) =>
    element("config:config-item", { "config:name": name, "config:type": type }, String(value));
  const entry = (name: string | undefined, inner: string) =>
    element("config:config-item-map-entry", { "config:name": name }, inner);
  const sheet =
    item("VerticalSplitMode", "short", 2) +
    item("VerticalSplitPosition", "int", count) +
    item("ActiveSplitRange", "short", 2) +
    item("PositionBottom", "int", count);
  const tables = element("config:config-item-map-named", { "config:name": "Tables" }, entry("Sheet1", sheet));
  const view = entry(undefined, item("ViewId", "string", "view1") + tables);
  const views = element("config:config-item-map-indexed", { "config:name": "Views" }, view);
  return element("config:config-item-set", { "config:name": "ooo:view-settings" }, views);
}

function rowXml(row: readonly GridCell[], styles: SheetStyles): string {
  let xml = "";
  let next = 0;
  for (const cell of row) {
    for (; next < cell.column; next++) xml += "<table:covered-table-cell/>";
    xml += cellXml(cell, styles);
    next++;
    for (let i = 1; i < (cell.cell.colspan ?? 1); i++, next++) xml += "<table:covered-table-cell/>";
  }
  return xml;
}

function cellXml(grid: GridCell, styles: SheetStyles): string {
  const { text, cell, link } = grid;
  // Sheet programs show of a link only the text that stands in it without a look of its own.
  const parts = (link === undefined && grid.parts) || [{ text, marks: {} }];
  const paragraphs =
    text === ""
      ? ""
      : linesOf(parts)
          .map((line) => element("text:p", {}, linked(lineXml(line, styles), link)))
          .join("");
  return element(
    "table:table-cell",
    {
      "table:style-name": styles.nameOf(grid),
      "table:number-columns-spanned": cell.colspan,
      "table:number-rows-spanned": cell.colspan || cell.rowspan ? (cell.rowspan ?? 1) : undefined,
      ...(text !== "" && valueAttributes(grid)),
    },
    paragraphs,
  );
}

/** The lines of a text that is there in parts. */
function linesOf(parts: readonly CellPart[]): CellPart[][] {
  const lines: CellPart[][] = [[]];
  for (const { text, marks } of parts)
    for (const [index, line] of text.split("\n").entries()) {
      if (index > 0) lines.push([]);
      lines.at(-1)!.push({ text: line, marks });
    }
  return lines;
}

function lineXml(parts: readonly CellPart[], styles: SheetStyles): string {
  // Spaces fold across elements.
  let isAfterSpace = true;
  return parts
    .map(({ text, marks }) => {
      if (text === "") return "";
      const xml = textXml(text, isAfterSpace);
      isAfterSpace = text.endsWith(" ");
      const style = styles.nameOfPart(marks);
      return style === undefined ? xml : element("text:span", { "text:style-name": style }, xml);
    })
    .join("");
}

function linked(text: string, address: string | undefined): string {
  if (address === undefined || text === "") return text;
  return element("text:a", { "xlink:type": "simple", "xlink:href": address }, text);
}

function valueAttributes({ value }: GridCell): Record<string, string | number | undefined> {
  if (!value) return { "office:value-type": "string" };
  if (value.type === "boolean")
    return { "office:value-type": "boolean", "office:boolean-value": String(value.boolean) };
  if (value.type === "date") return { "office:value-type": "date", "office:date-value": value.date };
  const percentage = value.format?.includes("%");
  return { "office:value-type": percentage ? "percentage" : "float", "office:value": value.number };
}

/** The styles of a sheet's cells: those that look alike have one. */
class SheetStyles {
  readonly automatic = new AutomaticStyles();
  readonly #names = new Map<string, string | undefined>();

  /** The name of the style of a cell; nothing for one that looks like any. */
  nameOf(grid: GridCell): string | undefined {
    const { cell, bold, italic, color } = grid;
    const format = formatOf(grid);
    const key = `${format}|${cell.align}|${cell.background}|${bold}|${italic}|${color}`;
    if (!this.#names.has(key)) this.#names.set(key, this.#made(grid, format));
    return this.#names.get(key);
  }

  /** The name of the style of a part of a cell's text; nothing for one that looks like its cell. */
  nameOfPart({ bold, italic, underline, strike, color, sub, sup }: CellMarks): string | undefined {
    return this.automatic.name("text", textProperties({ bold, italic, underline, strike, color, sub, sup }));
  }

  #made({ cell, bold, italic, color }: GridCell, format: string | undefined): string | undefined {
    const data =
      format === undefined ? undefined : this.automatic.add("n", format, (name) => dataStyle(name, format));
    const align = cell.align === "right" ? "end" : cell.align === "left" ? "start" : cell.align;
    const inner =
      (cell.background
        ? element("style:table-cell-properties", { "fo:background-color": cell.background })
        : "") +
      (align ? element("style:paragraph-properties", { "fo:text-align": align }) : "") +
      textProperties({ bold, italic, color });
    return this.automatic.name("table-cell", inner, { "style:data-style-name": data });
  }
}

/** The number format of a cell; nothing for one that has none. */
function formatOf({ value, text }: GridCell): string | undefined {
  if (value === undefined) return text === "" ? undefined : "@";
  if (value.type === "boolean") return undefined;
  return value.format ?? (value.type === "date" ? "yyyy-mm-dd" : undefined);
}
