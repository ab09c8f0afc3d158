import { emboldened } from "../../content/make-table.js";
import type { Cell, Content, Run, Table } from "../../content/model.js";
import { columnsOf, mapRows } from "../../content/spans.js";
import { alignOf, withAlignedHeaders } from "../office/alignment.js";
import { fittedTable, type FittedTable, type Orientation } from "../office/column-widths.js";
import type { Block, Surroundings } from "./block.js";
import type { WrittenHead } from "./write-head.js";

/** What writing a table needs of the text that it stands in. */
export interface TableHost {
  readonly head: WrittenHead;
  /** How the pages are turned. */
  readonly orientation: Orientation;
  /** How deep in tables what is written now stands, and how wide the cell is, in twentieths of a point. */
  depth: number;
  cellWidth: number;
  flows(content: Content, around: Surroundings): Block[];
  paragraph(runs: readonly Run[], around: Surroundings): Block;
}

/** What stands between a cell's edge and its text, in twentieths of a point. */
const GAP = 40;
const BORDERS = ["t", "l", "b", "r"].map((side) => `\\clbrdr${side}\\brdrs\\brdrw10`).join("");

/**
 * A table as rows (RTF 1.9.1, Table Definitions); nothing for one without any.
 * @param left how far it is indented, in twentieths of a point
 */
export function tableBlock(writer: TableHost, given: Table, left: number): Block | undefined {
  const table = withAlignedHeaders(given);
  const width = columnsOf(table);
  if (table.rows.length === 0 || width === 0) return undefined;
  const { widths, size } = fittedTo(writer, table);
  const letters = size === undefined ? "" : `\\fs${2 * size}`;
  const edges = [left];
  for (let column = 0; column < width; column++)
    edges.push(edges.at(-1)! + Math.max(3 * GAP, Math.round((widths[column] ?? 0) * 20)));
  /** The cells that go on in a row below, by the column that they begin in, with how many rows are left of them. */
  const open = new Map<number, { readonly cell: Cell; left: number }>();
  writer.depth++;
  const end = writer.depth === 1 ? "\\cell" : "\\nestcell{\\nonesttables\\tab}";
  const rows = mapRows(table.rows, (row, columns, index) => {
    const isHeader = index < table.headerRows;
    let definitions = "";
    let cells = "";
    const define = (column: number, { colspan = 1, background }: Cell, merge: string) => {
      const color = background === undefined ? "" : `\\clcbpat${writer.head.color(background)}`;
      definitions += `${merge}${BORDERS}${color}\\cellx${edges[Math.min(width, column + colspan)]}`;
    };
    for (let column = 0; column < width;) {
      const at = columns.indexOf(column);
      const cell = at >= 0 && at < row.length ? row[at] : undefined;
      const above = open.get(column);
      if (cell) {
        const { rowspan = 1, colspan = 1 } = cell;
        define(column, cell, rowspan > 1 ? "\\clvmgf" : "");
        const { cellWidth } = writer;
        writer.cellWidth = edges[Math.min(width, column + colspan)]! - edges[column]! - 2 * GAP;
        cells += cellText(writer, cell, isHeader, letters) + end;
        writer.cellWidth = cellWidth;
        if (rowspan > 1) open.set(column, { cell, left: rowspan - 1 });
        column += colspan;
      } else if (above && above.left > 0) {
        define(column, above.cell, "\\clvmrg");
        cells += writer.paragraph([], { style: "normal" }).text + end;
        above.left--;
        column += above.cell.colspan ?? 1;
      } else {
        define(column, { flows: [] }, "");
        cells += writer.paragraph([], { style: "normal" }).text + end;
        column++;
      }
    }
    const properties = `\\trowd\\trgaph${GAP}\\trleft${left}${isHeader ? "\\trhdr" : ""}${definitions}`;
    return writer.depth === 1
      ? `${properties}\n${cells}${properties}\\row\n`
      : `${cells}{\\*\\nesttableprops${properties}\\nestrow}{\\nonesttables\\par}\n`;
  });
  writer.depth--;
  return { text: rows.join(""), isTable: true };
}

/** How wide the columns of a table are, in points: in a cell no wider together than that. */
function fittedTo(writer: TableHost, table: Table): FittedTable {
  const fitted = table.widths ? { widths: table.widths } : fittedTable(table, writer.orientation);
  const sum = fitted.widths.reduce((all, width) => all + width, 0);
  const room = writer.cellWidth / 20;
  if (writer.depth === 0 || sum <= room) return fitted;
  return { ...fitted, widths: fitted.widths.map((width) => (width * room) / sum) };
}

/** What stands in a cell, up to where it ends: it ends with a paragraph. */
function cellText(writer: TableHost, cell: Cell, isHeader: boolean, letters: string): string {
  const flows = isHeader ? emboldened(cell.flows) : cell.flows;
  const around = { style: "normal", align: alignOf(cell), letters } as const;
  const blocks = writer.flows(flows, around);
  if (blocks.length === 0 || blocks.at(-1)!.isTable) blocks.push(writer.paragraph([], around));
  return blocks
    .map(({ text, isTable }, at) => (isTable || at === blocks.length - 1 ? text : `${text}\\par\n`))
    .join("");
}
