import { isDateFormat } from "../../content/serial.js";
import { sheetGridOf, type GridCell } from "../office/grid.js";
import { AutomaticStyles, element, escapeXml, packOdf, textXml } from "../office/odf.js";
import type { WriteInput, WriteResult } from "../format.js";

/** Points that a character of a column's width takes. */
const CHARACTER = 5.5;

/** Writes content as an ods of one sheet: typed cells with their formats, text as text, headers bold, columns wide enough. */
export function writeOds({ content, title }: WriteInput): WriteResult {
  const { rows, widths, notices } = sheetGridOf(content);
  const styles = new AutomaticStyles();
  const columns = widths.map((width) => {
    const properties = element("style:table-column-properties", {
      "style:column-width": `${(width * CHARACTER).toFixed(1)}pt`,
    });
    return element("table:table-column", { "table:style-name": styles.name("table-column", properties) });
  });
  const lines = rows.map((row) =>
    element("table:table-row", {}, rowXml(row, styles) || "<table:table-cell/>"),
  );
  const sheet = element(
    "table:table",
    { "table:name": "Sheet1" },
    columns.join("") + (lines.join("") || "<table:table-row><table:table-cell/></table:table-row>"),
  );
  return { data: packOdf("spreadsheet", sheet, styles, "", title), notices };
}

function rowXml(row: readonly GridCell[], styles: AutomaticStyles): string {
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

function cellXml(grid: GridCell, styles: AutomaticStyles): string {
  const { text, cell } = grid;
  const paragraphs =
    text === ""
      ? ""
      : text
          .split("\n")
          .map((line) => element("text:p", {}, textXml(line, true)))
          .join("");
  return element(
    "table:table-cell",
    {
      "table:style-name": cellStyle(grid, styles),
      "table:number-columns-spanned": cell.colspan,
      "table:number-rows-spanned": cell.colspan || cell.rowspan ? (cell.rowspan ?? 1) : undefined,
      ...(text !== "" && valueAttributes(grid)),
    },
    paragraphs,
  );
}

function valueAttributes({ value }: GridCell): Record<string, string | number | undefined> {
  if (!value) return { "office:value-type": "string", "calcext:value-type": "string" };
  if (value.type === "boolean")
    return { "office:value-type": "boolean", "office:boolean-value": String(value.boolean) };
  if (value.type === "date") return { "office:value-type": "date", "office:date-value": value.date };
  const percentage = value.format?.includes("%");
  return { "office:value-type": percentage ? "percentage" : "float", "office:value": value.number };
}

function cellStyle(
  { value, text, cell, bold, italic, color }: GridCell,
  styles: AutomaticStyles,
): string | undefined {
  const format =
    value === undefined
      ? text === ""
        ? undefined
        : "@"
      : value.type === "boolean"
        ? undefined
        : (value.format ?? (value.type === "date" ? "yyyy-mm-dd" : undefined));
  const data = format === undefined ? undefined : styles.add("n", (name) => dataStyle(name, format));
  const align = cell.align === "right" ? "end" : cell.align === "left" ? "start" : cell.align;
  const inner =
    (cell.background
      ? element("style:table-cell-properties", { "fo:background-color": cell.background })
      : "") +
    (align ? element("style:paragraph-properties", { "fo:text-align": align }) : "") +
    (bold || italic || color
      ? element("style:text-properties", {
          "fo:font-weight": bold ? "bold" : undefined,
          "fo:font-style": italic ? "italic" : undefined,
          "fo:color": color,
        })
      : "");
  return styles.name("table-cell", inner, { "style:data-style-name": data });
}

/** A number format code as an OpenDocument data style (ODF 1.3 part 3, 16.29): its first section. */
function dataStyle(name: string, format: string): string {
  const attributes = { "style:name": name };
  if (format === "@") return element("number:text-style", attributes, "<number:text-content/>");
  const section = format.split(";")[0]!.replace(/\[[^\]]*\]/g, "");
  if (isDateFormat(section) || /h|s/i.test(section.replace(/"[^"]*"/g, "")))
    return element("number:date-style", attributes, dateParts(section));
  const digits = /[0#?][0#?,.]*/.exec(section)?.[0];
  if (digits === undefined)
    return element(
      "number:number-style",
      attributes,
      element("number:number", { "number:min-integer-digits": 1 }),
    );
  const number = element("number:number", {
    "number:decimal-places": digits.split(".")[1]?.length ?? 0,
    "number:min-decimal-places": (digits.split(".")[1]?.match(/0/g) ?? []).length,
    "number:min-integer-digits": (digits.split(".")[0]!.match(/0/g) ?? []).length,
    "number:grouping": digits.includes(",") ? "true" : undefined,
  });
  const [before, after] = section.split(digits).map((part) => literal(part)) as [string, string];
  const around = (part: string) => (part === "" ? "" : element("number:text", {}, escapeXml(part)));
  return element(
    section.includes("%") ? "number:percentage-style" : "number:number-style",
    attributes,
    around(before) + number + around(after),
  );
}

/** What a part of a format code shows as it stands. */
function literal(part: string): string {
  return part.replace(
    /"([^"]*)"|\\(.)|[_*]./g,
    (_, quoted?: string, escaped?: string) => quoted ?? escaped ?? "",
  );
}

function dateParts(section: string): string {
  const long = (token: string, at: number) => (token.length >= at ? { "number:style": "long" } : {});
  let hours = false;
  return (section.match(/"[^"]*"|\\.|y+|m+|d+|h+|s+|AM\/PM|A\/P|[^ymdhs"\\]+/gi) ?? [])
    .map((token) => {
      const name = token.toLowerCase();
      if (/^y/.test(name)) return element("number:year", long(name, 3));
      if (/^d/.test(name))
        return name.length >= 3
          ? element("number:day-of-week", long(name, 4))
          : element("number:day", long(name, 2));
      if (/^h/.test(name)) return ((hours = true), element("number:hours", long(name, 2)));
      if (/^s/.test(name)) return element("number:seconds", long(name, 2));
      if (/^a/.test(name)) return "<number:am-pm/>";
      if (/^m/.test(name)) {
        if (hours) return element("number:minutes", long(name, 2));
        return element("number:month", {
          ...long(name, name.length >= 3 ? 4 : 2),
          ...(name.length >= 3 && { "number:textual": "true" }),
        });
      }
      return element("number:text", {}, escapeXml(literal(token)));
    })
    .join("");
}
