import { foldName } from "../content/fold.js";
import type { Content, Table } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import { columnsOf } from "../content/spans.js";
import { isBlank } from "../content/traverse.js";
import { cellText } from "../formats/text/write.js";
import type { LayoutOptions, Piece } from "./layout.js";
import { rows } from "./layouts/rows.js";
import { tidyEdges } from "./tidy.js";

/** The table that a piece is; nothing for one that says anything else. */
export function loneTable(content: Content): Table | undefined {
  const flows = content.filter((flow) => !isBlank([flow]));
  return flows.length === 1 && flows[0]!.type === "table" ? flows[0] : undefined;
}

/** Whether tables are rows of one: those that name their columns name some alike, and the others are as wide as one of those. */
export function belongTogether(tables: readonly Table[]): boolean {
  const headed = tables.filter(({ headerRows }) => headerRows > 0);
  const [first, ...others] = headed.map(namesOf);
  if (others.some((names) => !names.some((name) => first!.includes(name)))) return false;
  const widths = new Set((headed.length > 0 ? headed : tables.slice(0, 1)).map(columnsOf));
  return tables.every((table) => table.headerRows > 0 || widths.has(columnsOf(table)));
}

/** What a table calls its columns, as names are compared. */
function namesOf({ rows, headerRows }: Table): string[] {
  return rows[headerRows - 1]!.map((cell) => foldName(cellText(cell.flows))).filter((name) => name !== "");
}

/** Pieces of which some follow each other and are one: each group of them, in their order. */
export function tableGroups(pieces: readonly Piece[]): readonly (readonly Piece[])[] {
  const groups: Piece[][] = [];
  let tables: Table[] = [];
  for (const piece of pieces) {
    const table = loneTable(piece.content);
    if (table && tables.length > 0 && belongTogether([...tables, table])) {
      groups.at(-1)!.push(piece);
      tables.push(table);
    } else {
      groups.push([piece]);
      tables = table ? [table] : [];
    }
  }
  return groups;
}

/**
 * Puts the rows of pieces that follow each other and are rows of one table into one, under its header. Their blank columns must have
 * been left until then, so that what stands in the others stays in its own.
 */
export function withTablesJoined(
  pieces: readonly Piece[],
  options: LayoutOptions,
): { readonly pieces: readonly Piece[]; readonly notices: readonly Notice[] } {
  const { tidy = ["edges"], fit } = options;
  const takesEdges = tidy.includes("edges") && fit !== "cells";
  const notices: Notice[] = [];
  const joined = tableGroups(pieces).map((group): Piece => {
    const laid = group.length > 1 ? rows.lay(group, options) : undefined;
    if (laid) notices.push(...laid.notices);
    const piece = laid ? { content: laid.content } : group[0]!;
    return takesEdges ? { ...piece, content: tidyEdges(piece.content) } : piece;
  });
  return { pieces: joined, notices };
}
