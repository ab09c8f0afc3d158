import { columnsOf, hasSpans, placeCells } from "../../content/measure.js";
import type { Cell, Content, Flow, Row, Table } from "../../content/model.js";
import { cellText } from "../../content/write/text.js";
import { shown, type Layout } from "../layout.js";

/**
 * Stacks everything into one table. Header rows are recognised once: a later piece's columns go under the columns of
 * the same names, whatever their order, and names not seen before become new columns at the end. Rows without a header
 * go in as they stand, from the first column on; what is not a table is a row of one cell.
 */
export const rows: Layout = (pieces) => {
  const stack = new Stack();
  for (const piece of pieces) {
    const tables = piece.content.filter((flow): flow is Table => flow.type === "table");
    if (tables.length === 0) stack.addRow([{ flows: piece.content }]);
    else for (const group of grouped(piece.content)) stack.add(group);
  }
  return shown(stack.content());
};

/** Tables as they are; what stands between them, each flow by itself, as a row of one cell. */
function grouped(content: Content): Table[] {
  return content.map((flow: Flow) =>
    flow.type === "table" ? flow : { type: "table", headerRows: 0, rows: [[{ flows: [flow] }]] },
  );
}

const BLANK: Cell = { flows: [] };

class Stack {
  #head: Row[] = [];
  #names: string[] = [];
  readonly #body: Row[] = [];
  #captions: Content = [];

  add(table: Table): void {
    if (table.caption && table.caption.length > 0) {
      this.#captions = [...this.#captions, { type: "paragraph", runs: table.caption }];
    }
    const head = table.rows.slice(0, table.headerRows);
    const body = table.rows.slice(table.headerRows);
    if (head.length === 0) {
      this.#addRows(body);
      return;
    }
    const names = namesOf(head.at(-1)!, columnsOf(table));
    if (this.#head.length === 0) {
      this.#head = head.map((row) => [...row]);
      this.#names = names;
      this.#addRows(body);
      return;
    }
    const target = this.#match(names, head.at(-1)!);
    if (target.every((to, column) => to === column)) this.#addRows(body);
    else this.#addRows(rearranged(body, target));
  }

  /** One by one: a table may have more rows than a call may have arguments. */
  #addRows(rows: readonly Row[]): void {
    for (const row of rows) this.#body.push(row);
  }

  addRow(row: Row): void {
    this.#body.push(row);
  }

  /** Where each of these columns goes; columns not known yet are added at the end. */
  #match(names: readonly string[], head: Row): number[] {
    const taken = new Set<number>();
    const last = [...this.#head.at(-1)!];
    const target = names.map((name, column) => {
      let to = this.#names.findIndex((known, index) => known === name && !taken.has(index));
      if (to < 0) {
        to = this.#names.push(name) - 1;
        last.push(head[column] ?? { flows: [] });
      }
      taken.add(to);
      return to;
    });
    this.#head[this.#head.length - 1] = last;
    return target;
  }

  content(): Content {
    const rows = [...this.#head, ...this.#body];
    if (rows.length === 0) return this.#captions;
    const table: Table = { type: "table", headerRows: this.#head.length, rows: [] };
    return [...this.#captions, { ...table, rows: filled(rows) }];
  }
}

/** The names of the columns, as they are compared: without case and outer spaces. */
function namesOf(row: Row, width: number): string[] {
  const names = Array.from({ length: width }, () => "");
  for (const { cell, column } of placeCells(row, [])) {
    names[column] = cellText(cell.flows).trim().replace(/\s+/g, " ").toLocaleLowerCase();
  }
  return names;
}

/** Rows with their cells moved to other columns. A merged cell cannot keep its width when its columns part. */
function rearranged(body: readonly Row[], target: readonly number[]): Row[] {
  const covered: number[] = [];
  const width = Math.max(...target) + 1;
  if (!hasSpans(body)) {
    return body.map((row) => {
      const cells: Cell[] = Array.from({ length: width }, () => BLANK);
      row.forEach((cell, column) => (cells[target[column] ?? column] = cell));
      return cells;
    });
  }
  return body.map((row) => {
    const cells: Cell[] = Array.from({ length: width }, () => ({ flows: [] }));
    for (const { cell, column } of placeCells(row, covered)) {
      const { colspan: _, rowspan: __, ...alone } = cell;
      cells[target[column] ?? column] = alone;
    }
    return cells;
  });
}

/** Rows all as wide as the widest. */
function filled(rows: readonly Row[]): Row[] {
  const width = columnsOf({ type: "table", headerRows: 0, rows });
  if (!hasSpans(rows)) {
    return rows.map((row) =>
      row.length < width ? [...row, ...Array.from({ length: width - row.length }, () => BLANK)] : row,
    );
  }
  const covered: number[] = [];
  return rows.map((row) => {
    const before = covered.filter((left) => left > 0).length;
    const own = placeCells(row, covered).reduce((sum, { cell }) => sum + (cell.colspan ?? 1), 0);
    const missing = width - own - before;
    return missing > 0 ? [...row, ...Array.from({ length: missing }, (): Cell => ({ flows: [] }))] : row;
  });
}
