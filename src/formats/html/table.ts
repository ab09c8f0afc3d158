import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { makeCell, makeTable } from "../../content/make-table.js";
import type { Cell, Content, Flow, Run } from "../../content/model.js";
import { contentErrors } from "../../messages/en/content.js";
import { cellAttributes, cellValue, type CellAttributes } from "./cell-value.js";
import type { ComputedStyle } from "./computed-style.js";
import { parseBackground, parseColor } from "./css-values.js";
import type { ElementReader } from "./element-reader.js";
import type { StyleContext } from "./known-places.js";
import { textOf, type Declaration } from "./tree-adapter.js";

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
    const attributes = cellAttributes(this.reader.adapter, node);
    const colspan = span(attributes.colspan, 1000);
    const rowspan = span(attributes.rowspan, 65534);
    this.#cells += colspan * rowspan;
    if (this.#cells > LIMITS.cells) {
      throw new DrawerError(contentErrors, "too-large/cells", { most: LIMITS.cells });
    }
    const { declarations } = place;
    const facts: { -readonly [K in keyof Cell]?: Cell[K] } = {};
    if (colspan > 1) facts.colspan = colspan;
    if (rowspan > 1) facts.rowspan = rowspan;
    if (style.align) facts.align = style.align;
    const background = backgroundOf(attributes, declarations);
    if (background) facts.background = background;
    const value = cellValue(attributes, declarations, () => textOf(this.reader.adapter, node));
    if (value) facts.value = value;
    return makeCell(this.reader.flowsOf(node, style, place), facts);
  }
}

function backgroundOf(attributes: CellAttributes, declarations: readonly Declaration[]): string | undefined {
  let background = attributes.bgcolor === undefined ? undefined : parseColor(attributes.bgcolor);
  for (const { property, value } of declarations) {
    if (property !== "background" && property !== "background-color") continue;
    background = parseBackground(value);
  }
  return background === "#ffffff" ? undefined : background;
}

function span(attribute: string | undefined, most: number): number {
  if (attribute === undefined) return 1;
  const number = Number.parseInt(attribute, 10);
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
