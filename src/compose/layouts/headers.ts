import { foldName } from "../../content/fold.js";
import { isOfFigure, isPartial, isTitle, topRowsOf } from "../../content/header-rows.js";
import type { Flow, Row, Run, Table } from "../../content/model.js";
import { isFigure } from "../../content/number.js";
import { originText } from "../../content/origin.js";
import { isBlank } from "../../content/traverse.js";
import { cellText } from "../../formats/text/write.js";
import type { LayoutOptions, Piece } from "../layout.js";

/** How a table begins: the rows of its header, or those that may be one. */
interface Beginning {
  readonly table: Table;
  readonly source: string;
  /** Rows above it with a single cell, which say what the table is about. */
  readonly titles: number;
  /** The rows that may name its columns, the lowest first. */
  readonly candidates: readonly Candidate[];
  /** Whether its source, its own rows or the recipe say that it has a header. */
  readonly isHeaded: boolean;
}

/** A row that may name columns. */
interface Candidate {
  readonly row: number;
  /** The names, as they are compared. */
  readonly names: ReadonlySet<string>;
  /** The same for all rows with these names in any order. */
  readonly signature: string;
}

/** Tables that begin with the same names. */
interface SameNames {
  readonly names: ReadonlySet<string>;
  isHeaded: boolean;
  /** Whether one of them has rows below. */
  isLong: boolean;
  count: number;
  readonly sources: Set<string>;
}

/** More sets of names than any pick has; of so many only the same ones are found. */
const MOST_SETS = 400;

/**
 * Pieces whose tables say where their header is. Beside those that their sources know of, rows at the top are headers that hold a
 * name which the recipe calls otherwise; that hold texts over a column of figures; or that hold the same names, in any order, as
 * another table, or only some of them, or more; unless the recipe's `header` says `no`. What stands alone in a row above a header
 * becomes the table's caption.
 */
export function withHeaders(pieces: readonly Piece[], { header, columns }: LayoutOptions): readonly Piece[] {
  if (header === "no" || !pieces.some(({ content }) => content.some(isHeadless))) return pieces;
  const renamed = renamedColumns(columns);
  const beginnings = new Map<Table, Beginning>();
  for (const piece of pieces)
    for (const flow of piece.content)
      if (flow.type === "table") beginnings.set(flow, beginningOf(flow, piece, renamed));
  const known = new Known(beginnings.values());
  return pieces.map((piece) => ({
    ...piece,
    content: piece.content.map((flow) => {
      if (flow.type !== "table" || flow.headerRows > 0) return flow;
      const beginning = beginnings.get(flow)!;
      const header = beginning.candidates.find((candidate) => known.isHeader(candidate, beginning));
      return header ? headed(flow, header.row + 1, beginning.titles) : flow;
    }),
  }));
}

/** Whether a flow is a table of which its source does not say that it has a header. */
function isHeadless(flow: Flow): boolean {
  return flow.type === "table" && flow.headerRows === 0;
}

/** What columns are to be called, by their names as they are compared. */
export function renamedColumns(columns: LayoutOptions["columns"] = {}): ReadonlyMap<string, string> {
  return new Map(Object.entries(columns).map(([from, to]) => [foldName(from), to]));
}

/** Whether a table's first row looks like names: of several rows, all of it texts, and no two alike. */
export function beginsWithNames(table: Table): boolean {
  return table.headerRows === 0 && table.rows.length > 1 && namesOf(table.rows[0]!) !== undefined;
}

function beginningOf(table: Table, piece: Piece, renamed: ReadonlyMap<string, string>): Beginning {
  const candidate = (row: number): Candidate[] => {
    const names = namesOf(table.rows[row]!)?.map((name) => foldName(renamed.get(name) ?? name));
    return names ? [{ row, names: new Set(names), signature: JSON.stringify([...names].sort()) }] : [];
  };
  const source = sourceOf(piece);
  if (table.headerRows > 0)
    return { table, source, titles: 0, candidates: candidate(table.headerRows - 1), isHeaded: true };
  const { first: top, titles, isUpper } = topRowsOf(table);
  if (top < 0) return { table, source, titles: 0, candidates: [], isHeaded: false };
  const first = candidate(top);
  const candidates = [...(isUpper ? candidate(top + 1) : []), ...first];
  const isRenamed = first.some(() => namesOf(table.rows[top]!)!.some((name) => renamed.has(name)));
  return {
    table,
    source,
    titles,
    candidates,
    isHeaded: isRenamed || (first.length > 0 && isOverFigures(table, top)),
  };
}

/** What names are known of all tables. */
class Known {
  readonly #same = new Map<string, SameNames>();
  /** The sets that others may have a part of. */
  readonly #sets: readonly SameNames[];

  constructor(beginnings: Iterable<Beginning>) {
    for (const { table, source, candidates, isHeaded } of beginnings)
      for (const [index, { row, names, signature }] of candidates.entries()) {
        const same = this.#same.get(signature) ?? none(names);
        // Of two rows, the upper one alone is sure to be of the header.
        same.isHeaded ||= isHeaded && index === candidates.length - 1;
        same.isLong ||= table.rows.length > row + 1;
        same.count++;
        same.sources.add(source);
        this.#same.set(signature, same);
      }
    const sets = [...this.#same.values()].filter(({ isHeaded, isLong }) => isHeaded || isLong);
    this.#sets = sets.length > MOST_SETS ? [] : sets;
  }

  isHeader({ names, signature, row }: Candidate, { table }: Beginning): boolean {
    const { isHeaded, isLong, count, sources } = this.#same.get(signature)!;
    if (isHeaded || (count > 1 && (isLong || sources.size > 1))) return true;
    const isLongItself = table.rows.length > row + 1;
    return this.#sets.some((other) => {
      if (other.names === names || !(other.isHeaded || (isLongItself && other.isLong))) return false;
      const [few, many] = names.size < other.names.size ? [names, other.names] : [other.names, names];
      return few.size < many.size && few.size > 1 && [...few].every((name) => many.has(name));
    });
  }
}

function none(names: ReadonlySet<string>): SameNames {
  return { names, isHeaded: false, isLong: false, count: 0, sources: new Set() };
}

/** A table with its header, and what stands alone above it as its caption. */
function headed(table: Table, headerRows: number, titles: number): Table {
  if (titles === 0) return { ...table, headerRows };
  const above = new Set(table.rows.slice(0, headerRows).filter(isTitle).slice(0, titles));
  const lines = [...(table.caption ? [table.caption] : []), ...[...above].map(runsOf)];
  const caption = lines.flatMap((runs, at): readonly Run[] =>
    at === 0 ? runs : [{ type: "break" }, ...runs],
  );
  const rows = table.rows.filter((row) => !above.has(row));
  return { ...table, caption, rows, headerRows: headerRows - above.size };
}

function runsOf(row: Row): readonly Run[] {
  return row.flatMap(({ flows }) => flows.flatMap((flow) => (flow.type === "paragraph" ? flow.runs : [])));
}

/**
 * The names in a row, as they are compared; nothing when they are no names: fewer than two, alike, figures, or typed values.
 */
function namesOf(row: Row): string[] | undefined {
  const cells = row.filter((cell) => !isBlank(cell.flows));
  const texts = cells.map((cell) => cellText(cell.flows).trim());
  const names = texts.map(foldName);
  const areNames =
    names.length > 1 &&
    new Set(names).size === names.length &&
    cells.every(({ value }) => !value) &&
    !texts.some(isFigure);
  return areNames ? names : undefined;
}

/** Whether a row of texts stands over a column in which below it stand figures alone. */
function isOverFigures({ rows }: Table, top: number): boolean {
  const names = rows[top]!;
  if (isPartial(names) || rows.length < top + 2) return false;
  return names.some((_, column) => {
    const below = rows
      .slice(top + 1)
      .flatMap((row) => row[column] ?? [])
      .filter(({ flows }) => !isBlank(flows));
    return below.length > 0 && below.every(isOfFigure);
  });
}

function sourceOf({ origin = {} }: Piece): string {
  const { at = "", ...others } = origin;
  return JSON.stringify([originText(others), at.slice(0, Math.max(0, at.lastIndexOf("!")))]);
}
