import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { makeCell, makeTable } from "../../content/make-table.js";
import type { Cell, CellValue, Content, Flow, Run } from "../../content/model.js";
import { isDateFormat, serialToDate } from "../../content/serial.js";
import { contentErrors } from "../../messages/en/content.js";
import type { ComputedStyle } from "./computed-style.js";
import { parseColor } from "./css-values.js";
import type { ElementReader } from "./element-reader.js";
import { readNumber, readNumberFormat } from "./sheet-numbers.js";
import type { StyleContext } from "./style-scope.js";
import { textOf } from "./tree-adapter.js";

/** A row as it is being read. */
interface OpenRow {
  readonly cells: Cell[];
  /** Whether it stands in a `thead`, or all its cells are headings. */
  readonly header: boolean;
}

/**
 * Reads a `table` element. Its rows are those of its sections, in the order in which they are shown. The header is what
 * stands in `thead`, or the first rows of heading cells only, or a first row that alone is bold throughout.
 */
export function readTable<Node>(
  reader: ElementReader<Node>,
  node: Node,
  style: ComputedStyle,
  place: StyleContext,
): Flow[] {
  const parts = new TableParts(reader);
  parts.section(node, style, place, false);
  const rows = [...parts.head, ...parts.body, ...parts.foot];
  let headerRows = 0;
  while (headerRows < rows.length && rows[headerRows]!.header) headerRows++;
  // Rows of heading cells only are a table of their own; one alone is a header without its rows.
  if (headerRows === rows.length && headerRows > 1 && parts.head.length === 0) headerRows = 0;
  const table = makeTable(
    rows.map(({ cells }) => cells),
    headerRows,
    { caption: parts.caption },
  );
  return rows.length > 0 ? [table] : [];
}

class TableParts<Node> {
  readonly head: OpenRow[] = [];
  readonly body: OpenRow[] = [];
  readonly foot: OpenRow[] = [];
  caption: readonly Run[] = [];
  #cells = 0;

  constructor(readonly reader: ElementReader<Node>) {}

  /** Reads a table or a section of it. */
  section(node: Node, style: ComputedStyle, place: StyleContext, inHead: boolean, rows = this.body): void {
    const { adapter } = this.reader;
    const children = adapter.children(node);
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      const name = adapter.name(child);
      if (name === undefined) continue;
      const inner = this.reader.enter(child, name, style, place);
      if (inner.style.hidden) continue;
      if (name === "thead") this.section(child, inner.style, inner.place, true, this.head);
      else if (name === "tfoot") this.section(child, inner.style, inner.place, false, this.foot);
      else if (name === "tbody") this.section(child, inner.style, inner.place, false, this.body);
      else if (name === "tr") rows.push(this.#row(child, inner.style, inner.place, inHead));
      else if (name === "caption")
        this.caption = captionRuns(this.reader.flowsOf(child, inner.style, inner.place));
    }
  }

  #row(node: Node, style: ComputedStyle, place: StyleContext, inHead: boolean): OpenRow {
    const { adapter } = this.reader;
    const cells: Cell[] = [];
    let headings = 0;
    const children = adapter.children(node);
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      const name = adapter.name(child);
      if (name !== "td" && name !== "th") continue;
      if (name === "th") headings++;
      cells.push(this.#cell(child, name, style, place));
    }
    return { cells, header: inHead || (headings > 0 && headings === cells.length) };
  }

  #cell(node: Node, name: string, around: ComputedStyle, parent: StyleContext): Cell {
    const { style, place } = this.reader.enter(node, name, around, parent);
    const colspan = span(this.reader.attribute(node, "colspan"), 1000);
    const rowspan = span(this.reader.attribute(node, "rowspan"), 65534);
    this.#cells += colspan * rowspan;
    if (this.#cells > LIMITS.cells) {
      throw new DrawerError(contentErrors, "too-large/cells", { most: LIMITS.cells });
    }
    const value = this.#value(node, place);
    const background = this.#background(node, place);
    return makeCell(this.reader.flowsOf(node, style, place), {
      ...(colspan > 1 && { colspan }),
      ...(rowspan > 1 && { rowspan }),
      ...(style.align && { align: style.align }),
      ...(background && { background }),
      ...(value && { value }),
    });
  }

  #background(node: Node, place: StyleContext): string | undefined {
    let background = parseColor(this.reader.attribute(node, "bgcolor") ?? "");
    for (const { property, value } of place.declarations) {
      if (property !== "background" && property !== "background-color") continue;
      background = parseColor(value) ?? parseColor(value.split(/\s(?![^(]*\))/)[0]!);
    }
    return background === "#ffffff" ? undefined : background;
  }

  /** The typed value that sheets write beside what they show, with its number format. */
  #value(node: Node, place: StyleContext): CellValue | undefined {
    const number = this.#rawNumber(node);
    if (number === undefined || !Number.isFinite(number)) return undefined;
    const format = this.#numberFormat(node, place) ?? "";
    if (format === "@") return undefined;
    if (/^BOOLEAN$/i.test(format)) return { type: "boolean", boolean: number !== 0 };
    if (format !== "" && isDateFormat(format) && number >= 1 && number < 2_958_466) {
      return { type: "date", date: serialToDate(number), format };
    }
    return { type: "number", number, ...(format !== "" && !/^general$/i.test(format) && { format }) };
  }

  /**
   * The number behind a cell: `sdval`; `x:num`, which is blank when the cell shows the number itself; or the number in
   * `data-sheets-value`, whose member 3 it is.
   */
  #rawNumber(node: Node): number | undefined {
    const sdval = this.reader.attribute(node, "sdval");
    if (sdval !== undefined && sdval.trim() !== "") return readNumber(sdval);
    const raw = sdval ?? this.reader.attribute(node, "x:num");
    if (raw !== undefined) {
      const text =
        raw.trim() === "" ? textOf(this.reader.adapter, node).replace(/[\s\u00a0]/g, "") : raw.trim();
      return /^[-+]?(\d|\.\d)/.test(text) ? Number(text) : undefined;
    }
    const sheets = this.reader.attribute(node, "data-sheets-value");
    const member = sheets === undefined ? undefined : /"3"\s*:\s*(-?\d[\d.eE+-]*)/.exec(sheets)?.[1];
    return member === undefined ? undefined : Number(member);
  }

  #numberFormat(node: Node, place: StyleContext): string | undefined {
    const sheets = this.reader.attribute(node, "data-sheets-numberformat");
    let format =
      sheets === undefined
        ? undefined
        : /"2"\s*:\s*"((?:[^"\\]|\\.)*)"/.exec(sheets)?.[1]?.replace(/\\(.)/g, "$1");
    for (const { property, value } of place.declarations) {
      if (property === "mso-number-format")
        format = value.replace(/^["']|["']$/g, "").replace(/\\(.)/g, "$1");
    }
    if (format !== undefined) return format;
    const sdnum = this.reader.attribute(node, "sdnum");
    return sdnum === undefined
      ? undefined
      : readNumberFormat(sdnum, this.reader.attribute(node, "sdval") ?? "");
  }
}

function span(attribute: string | undefined, most: number): number {
  const number = Number.parseInt(attribute ?? "1", 10);
  return number >= 1 ? Math.min(number, most) : 1;
}

function captionRuns(flows: Content): readonly Run[] {
  const runs: Run[] = [];
  for (const flow of flows) {
    if (flow.type !== "paragraph" && flow.type !== "heading") continue;
    if (runs.length > 0) runs.push({ type: "break" });
    for (const run of flow.runs) runs.push(run);
  }
  return runs;
}
