import { emboldened } from "../../content/make-table.js";
import type { Align, Content, Row, Run, Table } from "../../content/model.js";
import { columnsOf, mapRows } from "../../content/spans.js";
import { alignOf, withAlignedHeaders } from "../office/alignment.js";
import { fittedTable, type Orientation } from "../office/column-widths.js";
import { element, type AutomaticStyles } from "../office/odf.js";

/** What writing a table needs of the document that it stands in. */
export interface TableHost {
  readonly styles: AutomaticStyles;
  /** How the pages are turned. */
  readonly orientation: Orientation;
  /** Whether what is written now stands in a cell. */
  readonly isInCell: boolean;
  /** Writes what stands in cells. */
  inCells<Result>(write: () => Result): Result;
  /** The name of the next table. */
  nextTable(): string;
  flows(content: Content, style: string, align?: Align): string;
  runs(runs: readonly Run[]): string;
}

/** A table as XML, its caption before it. */
export function tableXml(writer: TableHost, given: Table): string {
  const table = withAlignedHeaders(given);
  const width = columnsOf(table);
  const { isInCell } = writer;
  // A table in a cell is as wide as the cell.
  const { widths, size } = table.widths
    ? { widths: table.widths, size: undefined }
    : isInCell
      ? { widths: [], size: undefined }
      : { size: undefined, ...fittedTable(table, writer.orientation) };
  const textStyle = size === undefined ? "Standard" : smallerStyle(size);
  const rows = writer.inCells(() =>
    mapRows(table.rows, (cells, columns, index) =>
      rowXml(writer, cells, columns, { width, textStyle, header: index < table.headerRows }),
    ),
  );
  const caption = table.caption
    ? element("text:p", { "text:style-name": "Caption" }, writer.runs(table.caption))
    : "";
  if (rows.length === 0) return caption;
  const sum = widths.reduce((all, each) => all + each, 0);
  const columns = Array.from({ length: width }, (_, at) => {
    const points = widths[at];
    const style =
      points &&
      writer.styles.name(
        "table-column",
        element("style:table-column-properties", {
          "style:column-width": `${points.toFixed(1)}pt`,
          // They go by what stands in the columns, and not by what anyone has set.
          "style:use-optimal-column-width": table.widths ? undefined : "true",
        }),
      );
    return element("table:table-column", { "table:style-name": style || undefined });
  }).join("");
  const head =
    table.headerRows > 0
      ? element("table:table-header-rows", {}, rows.slice(0, table.headerRows).join(""))
      : "";
  const style = writer.styles.name(
    "table",
    element("style:table-properties", {
      "style:width": sum > 0 ? `${sum.toFixed(1)}pt` : undefined,
      "style:rel-width": sum > 0 ? undefined : "100%",
      "table:align": "left",
      "fo:margin-bottom": isInCell ? undefined : "12pt",
      "table:border-model": "collapsing",
    }),
  );
  const name = writer.nextTable();
  const body = columns + head + rows.slice(table.headerRows).join("");
  return caption + element("table:table", { "table:name": name, "table:style-name": style }, body);
}

function rowXml(
  writer: TableHost,
  cells: Row,
  columns: readonly number[],
  { width, textStyle, header }: { width: number; textStyle: string; header: boolean },
): string {
  let xml = "";
  let column = 0;
  const cover = (to: number) => {
    for (; column < to; column++) xml += "<table:covered-table-cell/>";
  };
  for (const [index, cell] of cells.entries()) {
    const at = columns[index]!;
    cover(at);
    const { colspan = 1, rowspan = 1 } = cell;
    const style = writer.styles.name(
      "table-cell",
      element("style:table-cell-properties", {
        "fo:border": "0.5pt solid #808080",
        "fo:padding": "2pt",
        "fo:background-color": cell.background,
      }),
    );
    const flows = header ? emboldened(cell.flows) : cell.flows;
    xml += element(
      "table:table-cell",
      {
        "table:style-name": style,
        "table:number-columns-spanned": colspan > 1 ? colspan : undefined,
        "table:number-rows-spanned": rowspan > 1 ? rowspan : undefined,
      },
      writer.flows(flows, textStyle, alignOf(cell)) || "<text:p/>",
    );
    column++;
    cover(at + colspan);
  }
  cover(width);
  return element("table:table-row", {}, xml);
}

/** The name of the style of letters in a table that is too wide for larger ones. */
export function smallerStyle(size: number): string {
  return `Table_20_Text_20_${size}`;
}
