import { foldName } from "../../content/fold.js";
import type { Row, Table } from "../../content/model.js";
import { isFigure } from "../../content/number.js";
import { originText } from "../../content/origin.js";
import { isBlank } from "../../content/traverse.js";
import { cellText } from "../../formats/text/write.js";
import type { LayoutOptions, Piece } from "../layout.js";

/**
 * Pieces whose tables say where their header is. Beside those that their sources know of, first rows are headers that
 * hold a name which the recipe calls otherwise, or that hold the same names, in any order, in two pieces; unless the
 * recipe's `header` says `no`.
 */
export function withHeaders(pieces: readonly Piece[], { header, columns }: LayoutOptions): readonly Piece[] {
  if (header === "no") return pieces;
  const renamed = renamedColumns(columns);
  const seen = new Map<string, Seen>();
  const signatures = new Map<Table, string>();
  for (const piece of pieces) {
    for (const flow of piece.content) {
      const names = flow.type === "table" ? namesOf(flow) : undefined;
      if (flow.type !== "table" || names === undefined) continue;
      const signature = JSON.stringify(names.map((name) => foldName(renamed.get(name) ?? name)).sort());
      signatures.set(flow, signature);
      const known = seen.get(signature) ?? { isHeaded: false, isLong: false, count: 0, sources: new Set() };
      known.isHeaded ||= flow.headerRows > 0 || names.some((name) => renamed.has(name));
      known.isLong ||= flow.rows.length > 1;
      known.count++;
      known.sources.add(sourceOf(piece));
      seen.set(signature, known);
    }
  }
  const isHeader = (table: Table) => {
    const { isHeaded, isLong, count, sources } = seen.get(signatures.get(table) ?? "") ?? NONE;
    return isHeaded || (count > 1 && (isLong || sources.size > 1));
  };
  return pieces.map((piece) => ({
    ...piece,
    content: piece.content.map((flow) =>
      flow.type === "table" && flow.headerRows === 0 && isHeader(flow)
        ? { ...flow, headerRows: flow.rows.findIndex(isFilled) + 1 }
        : flow,
    ),
  }));
}

/** What columns are to be called, by their names as they are compared. */
export function renamedColumns(columns: LayoutOptions["columns"] = {}): ReadonlyMap<string, string> {
  return new Map(Object.entries(columns).map(([from, to]) => [foldName(from), to]));
}

/** Which tables begin with the same names. */
interface Seen {
  isHeaded: boolean;
  /** Whether any of them has more rows than that one. */
  isLong: boolean;
  count: number;
  readonly sources: Set<string>;
}

const NONE: Seen = { isHeaded: false, isLong: false, count: 0, sources: new Set() };

/**
 * The names in a table's header, or in its first row that says something, as they are compared; nothing when they are
 * no names: fewer than two, alike, blank, figures, or typed values.
 */
function namesOf(table: Table): string[] | undefined {
  const row = table.headerRows > 0 ? table.rows[table.headerRows - 1] : table.rows.find(isFilled);
  if (!row) return undefined;
  const cells = row.filter((cell) => !isBlank(cell.flows));
  const texts = cells.map((cell) => cellText(cell.flows).trim());
  const names = texts.map(foldName);
  const areNames =
    names.length > 1 &&
    new Set(names).size === names.length &&
    cells.every(({ value, colspan = 1 }) => !value && colspan === 1) &&
    !texts.some(isFigure) &&
    !hasGap(row);
  return areNames ? names : undefined;
}

/** Whether a blank cell stands between others: a row of data, while blank ones at the edges are a range marked too wide. */
function hasGap(row: Row): boolean {
  const first = row.findIndex((cell) => !isBlank(cell.flows));
  const last = row.findLastIndex((cell) => !isBlank(cell.flows));
  return row.slice(first, last).some((cell) => isBlank(cell.flows));
}

function isFilled(row: Row): boolean {
  return row.some((cell) => !isBlank(cell.flows));
}

function sourceOf({ origin = {} }: Piece): string {
  const { at = "", ...others } = origin;
  return JSON.stringify([originText(others), at.slice(0, Math.max(0, at.lastIndexOf("!")))]);
}
