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

/** What is known of tables that may be rows of one. */
interface TableGroup {
  /** The names of the columns of the first that names them. */
  readonly names: readonly string[] | undefined;
  /** Whether one that names its columns has no name of those. */
  readonly isMixed: boolean;
  /** How wide those are that name their columns, and the others. */
  readonly headed: ReadonlySet<number>;
  readonly bare: ReadonlySet<number>;
}

const NONE: TableGroup = { names: undefined, isMixed: false, headed: new Set(), bare: new Set() };

function withTable(group: TableGroup, table: Table): TableGroup {
  const width = columnsOf(table);
  if (table.headerRows === 0)
    return group.bare.has(width) ? group : { ...group, bare: new Set([...group.bare, width]) };
  const names = namesOf(table);
  return {
    ...group,
    names: group.names ?? names,
    isMixed:
      group.isMixed || (group.names !== undefined && !names.some((name) => group.names!.includes(name))),
    headed: new Set([...group.headed, width]),
  };
}

/** Whether they are rows of one: those that name their columns name some alike, and the others are as wide as one of those. */
function isOne({ isMixed, headed, bare }: TableGroup): boolean {
  return !isMixed && (headed.size === 0 ? bare.size <= 1 : [...bare].every((width) => headed.has(width)));
}

/** Whether tables are rows of one, by the names of their columns and by how many there are. */
export function belongTogether(tables: readonly Table[]): boolean {
  return isOne(tables.reduce(withTable, NONE));
}

/** What a table calls its columns, as names are compared. */
function namesOf({ rows, headerRows }: Table): string[] {
  return rows[headerRows - 1]!.map((cell) => foldName(cellText(cell.flows))).filter((name) => name !== "");
}

/** Pieces of which some follow each other and are one: each group of them, in their order. */
export function tableGroups(pieces: readonly Piece[]): readonly (readonly Piece[])[] {
  const groups: Piece[][] = [];
  let tables: TableGroup | undefined;
  for (const piece of pieces) {
    const table = loneTable(piece.content);
    const more = table && tables && withTable(tables, table);
    if (more && isOne(more)) {
      groups.at(-1)!.push(piece);
      tables = more;
    } else {
      groups.push([piece]);
      tables = table && withTable(NONE, table);
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
