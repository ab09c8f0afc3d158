import { parseCells } from "../../content/cells.js";
import { cutTable } from "../../content/cut-table.js";
import { foldName } from "../../content/fold.js";
import type { Cell, Content, Flow, Row, Table } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { originText } from "../../content/origin.js";
import { columnsOf, placeCells, usedRange, mapRows } from "../../content/spans.js";
import { isBlank } from "../../content/traverse.js";
import { cellText } from "../../formats/text/write.js";
import { content as words, contentNotices } from "../../messages/en/content.js";
import type { LaidOut, Layout, LayoutOptions, Piece } from "../layout.js";
import { BLANK, captionLine, filled, hasSources, lineCell, textCell } from "./grid.js";
import { beginsWithNames, renamedColumns, withHeaders } from "./headers.js";
import { unaligned } from "./lines-of.js";
/**
 * Stacks everything into one table. Header rows are recognised once: a later piece's columns go under the columns of
 * the same names, whatever their order, and names not seen before become new columns at the end. A header that was
 * picked by itself does the same for the rows that follow it, of the same sheet or of the same width. Rows that no
 * header speaks of go in as they stand, from the first column on; what is not a table is a row of one cell.
 */
export const rows: Layout = {
  lay: layRows,
  isTable: true,
  between: "none",
  renamesColumns: true,
};

function layRows(pieces: readonly Piece[], recipe: LayoutOptions): LaidOut {
  const stack = new Stack(recipe, hasSources(pieces));
  for (const piece of withHeaders(pieces, recipe)) {
    for (const flow of joinedLines(piece.content)) stack.add(flow, piece);
  }
  return { content: stack.content(), notices: stack.notices() };
}

/** A piece without tables is one row of one cell; beside tables, each other flow is one. */
function joinedLines(content: Content): Table[] {
  const row = (flows: Content): Table => ({
    type: "table",
    headerRows: 0,
    rows: [[{ flows: unaligned(flows) }]],
  });
  if (!content.some((flow) => flow.type === "table")) return [row(content)];
  return content.map((flow: Flow) => (flow.type === "table" ? flow : row([flow])));
}

/** Where the columns of a piece stand: in which source, and, in a sheet, in which column they begin. */
interface SheetPlace {
  readonly source: string;
  /** Counting from 0; nothing when the piece was not cut out of a sheet. */
  readonly column: number | undefined;
}

function placeOf({ origin = {} }: Piece): SheetPlace {
  const { at = "", ...others } = origin;
  const name = originText(others);
  const end = at.lastIndexOf("!");
  return {
    source: JSON.stringify([name, at.slice(0, Math.max(0, end))]),
    column: name === "" ? undefined : parseCells(at.slice(end + 1))?.left,
  };
}

/** What a header says of the columns of its own rows and of rows that follow. */
interface Mapping extends SheetPlace {
  /** How many blank columns were taken off before its first. */
  readonly trimmed: number;
  /** How many columns the piece had. */
  readonly width: number;
  readonly isHeaderOnly: boolean;
  /** The column of the stack in which each of its columns stands. */
  readonly target: Map<number, number>;
}

class Stack {
  #head: Row[] = [];
  /** The names of the columns as they are compared; nothing for one that no header names. */
  readonly #names: (string | undefined)[] = [];
  readonly #body: Row[] = [];
  /** The source of each row of the body. */
  readonly #sources: Cell[] = [];
  readonly #captions: Flow[] = [];
  readonly #mappings: Mapping[] = [];
  /** How many tables went in by the order of their columns alone. */
  #byPosition = 0;
  /** The first rows of those that begin with names. */
  readonly #firstRows = new Set<string>();
  /** What columns are to be called, by their names as they are compared. */
  readonly #renamed: ReadonlyMap<string, string>;
  /** Those of them that no header has. */
  readonly #unused: Map<string, string>;

  constructor(
    readonly recipe: LayoutOptions,
    readonly withSources: boolean,
  ) {
    this.#renamed = renamedColumns(recipe.columns);
    this.#unused = new Map(Object.keys(recipe.columns ?? {}).map((from) => [foldName(from), from]));
  }

  add(table: Table, piece: Piece): void {
    if (table.caption && table.caption.length > 0) this.#captions.push(captionLine(table.caption));
    const isNamed = table.rows.slice(0, table.headerRows).some((row) => !isBlankRow(row));
    if (isNamed) {
      this.#addHeaded(table, piece);
      return;
    }
    const width = columnsOf(table);
    const place = placeOf(piece);
    const mapping = this.#mappingFor(place, width);
    if (!mapping) this.#addByPosition(table, width, piece);
    else {
      const isSameSheet = mapping.source === place.source && mapping.column !== undefined;
      const shift = isSameSheet && place.column !== undefined ? place.column - mapping.column : 0;
      this.#push(this.#rearranged(table.rows, mapping.target, shift - mapping.trimmed), piece);
    }
  }

  /** Adds rows that no header speaks of: each column goes under the one that stands at its place. */
  #addByPosition(table: Table, width: number, piece: Piece): void {
    while (this.#names.length < width) this.#names.push(undefined);
    if (width > 1) this.#byPosition++;
    if (table.headerRows > 0 || beginsWithNames(table)) this.#firstRows.add(rowText(table.rows[0]!));
    this.#push(table.rows, piece);
  }

  #addHeaded(whole: Table, piece: Piece): void {
    const width = columnsOf(whole);
    // Names that stand over its own rows say nothing of those of others above, which may begin with names too.
    if (this.#head.length === 0 && this.#firstRows.size > 0) return this.#addByPosition(whole, width, piece);
    const used = (this.recipe.tidy ?? ["edges"]).includes("edges") ? usedRange(whole.rows) : undefined;
    const { left, right } = used ?? { left: 0, right: width - 1 };
    const isTrimmed = left > 0 || right < width - 1;
    const { rows } = isTrimmed
      ? cutTable(whole, { top: 0, bottom: whole.rows.length - 1, left, right })
      : whole;
    const named = rows.slice(0, whole.headerRows).filter((row) => !isBlankRow(row));
    const head =
      this.#renamed.size === 0 ? named : named.map((row) => row.map((cell) => this.#renamedCell(cell)));
    const body = rows.slice(whole.headerRows);
    const names = namesOf(head, right - left + 1);
    const { source, column } = placeOf(piece);
    const mapping: Mapping = {
      source,
      column,
      trimmed: left,
      width,
      isHeaderOnly: body.length === 0,
      target: this.#targetOf(names),
    };
    if (this.#head.length === 0) this.#head = head;
    else this.#keepUpperRows(head.slice(0, -1), names, mapping, piece);
    this.#mappings.push(mapping);
    this.#push(this.#rearranged(body, mapping.target, 0), piece);
  }

  #renamedCell(cell: Cell): Cell {
    const name = foldName(cellText(cell.flows));
    const other = this.#renamed.get(name);
    if (other === undefined) return cell;
    this.#unused.delete(name);
    return { ...cell, ...textCell(other) };
  }

  /** The columns under which columns of these names go: those of the same name, or new ones at the end. */
  #targetOf(names: readonly ColumnName[]): Map<number, number> {
    const target = new Map<number, number>();
    const isFirst = this.#head.length === 0;
    const taken = new Set<number>();
    names.forEach(({ name, cell }, column) => {
      let to = isFirst ? column : this.#names.findIndex((each, at) => each === name && !taken.has(at));
      if (isFirst) this.#names[column] = name;
      else if (to < 0) to = this.#addColumn(name, cell);
      taken.add(to);
      target.set(column, to);
    });
    return target;
  }

  /** Header rows above the names are rows like others, unless they say what stands above the table already. */
  #keepUpperRows(
    upper: readonly Row[],
    names: readonly ColumnName[],
    { target }: Mapping,
    piece: Piece,
  ): void {
    if (upper.length === 0) return;
    const told = new Set(this.#head.map(rowText));
    const called = new Set(names.map(({ cell }) => cell));
    const others = upper
      .filter((row) => !told.has(rowText(row)))
      .map((row) => row.map((cell) => (called.has(cell) ? { ...cell, flows: [] } : cell)))
      .filter((row) => !isBlankRow(row));
    this.#push(this.#rearranged(others, target, 0), piece);
  }

  /** Adds a column at the end, with its cell in the header. Returns its number. */
  #addColumn(name: string | undefined, cell: Cell = BLANK): number {
    const column = this.#names.push(name) - 1;
    const last = this.#head.length - 1;
    const added = withoutSpans(cell);
    this.#head = filled(this.#head, column).map((row, at) => [...row, at === last ? added : BLANK]);
    return column;
  }

  /** The header that speaks of rows without one: of their sheet, or else the last that was alone and is as wide. */
  #mappingFor(place: SheetPlace, width: number): Mapping | undefined {
    const ofSheet = this.#mappings.findLast(
      ({ source, column, width: own }) =>
        source === place.source &&
        (column === undefined || place.column === undefined ? own === width : true),
    );
    return ofSheet ?? this.#mappings.findLast((one) => one.isHeaderOnly && one.width === width);
  }

  /** One by one: a table may have more rows than a call may have arguments. */
  #push(rows: readonly Row[], { source = [] }: Piece): void {
    const cell = lineCell(source);
    for (const row of rows) {
      this.#body.push(row);
      this.#sources.push(cell);
    }
  }

  /** Rows with each cell in the column that a header gives it; one that it knows nothing of gets a new column. */
  #rearranged(rows: readonly Row[], target: Map<number, number>, shift: number): readonly Row[] {
    const width = columnsOf({ type: "table", headerRows: 0, rows });
    const places: (number | undefined)[] = [];
    for (let column = 0; column < width; column++) places.push(target.get(column + shift));
    if (places.every((to, column) => to === column)) return rows;
    const place = (column: number, cell: Cell): number | undefined => {
      if (places[column] !== undefined || isBlank(cell.flows)) return places[column];
      const added = this.#addColumn(undefined);
      target.set(column + shift, added);
      return (places[column] = added);
    };
    return mapRows(rows, (row, columns) => {
      if (row.every((_, at) => places[columns[at]!] === columns[at])) return row;
      const cells = new Array<Cell>(this.#names.length).fill(BLANK);
      for (let at = 0; at < row.length; at++) {
        const to = place(columns[at]!, row[at]!);
        // A merged cell cannot keep its width when its columns part.
        if (to !== undefined) cells[to] = withoutSpans(row[at]!);
      }
      return cells;
    });
  }

  content(): Content {
    const rows = [...this.#head, ...this.#body];
    if (rows.length === 0) return this.#captions;
    const table: Table = { type: "table", headerRows: this.#head.length, rows };
    const even = filled(rows, Math.max(this.#names.length, columnsOf(table)));
    if (!this.withSources) return [...this.#captions, { ...table, rows: even }];
    const head = this.#head.length;
    const sourceOf = (index: number): Cell => {
      if (index >= head) return this.#sources[index - head]!;
      return index === head - 1 ? textCell(words.source) : BLANK;
    };
    return [...this.#captions, { ...table, rows: even.map((row, index) => [...row, sourceOf(index)]) }];
  }

  /** That columns were matched by their order alone; and names of columns that were to be called otherwise and are nowhere. */
  notices(): Notice[] {
    const isGuess = this.#byPosition > 0 && (this.#head.length > 0 || this.#firstRows.size > 1);
    const unused = [...this.#unused.values()];
    return [
      ...(isGuess ? [notice(contentNotices, "by-position", { count: this.#byPosition })] : []),
      ...(unused.length > 0 ? [notice(contentNotices, "not-shown/columns", { names: unused })] : []),
    ];
  }
}

/** The name of a column, as it is compared, and the cell in which it stands. */
interface ColumnName {
  readonly name: string;
  readonly cell: Cell;
}

/** The name of each column: what stands lowest in the header above it. */
function namesOf(head: readonly Row[], width: number): ColumnName[] {
  const names = new Array<ColumnName>(width).fill({ name: "", cell: BLANK });
  const covered: number[] = [];
  for (const row of head) {
    for (const { cell, column } of placeCells(row, covered)) {
      const name = foldName(cellText(cell.flows));
      if (name !== "" && column < width) names[column] = { name, cell };
    }
  }
  return names;
}

function withoutSpans(cell: Cell): Cell {
  if (cell.colspan === undefined && cell.rowspan === undefined) return cell;
  const { colspan: _, rowspan: __, ...alone } = cell;
  return alone;
}

function isBlankRow(row: Row): boolean {
  return row.every((cell) => isBlank(cell.flows));
}

/** What a row says, as it is compared with others. */
function rowText(row: Row): string {
  return JSON.stringify(row.map((cell) => foldName(cellText(cell.flows))).filter((text) => text !== ""));
}
