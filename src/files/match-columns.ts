import { DrawerError } from "../content/error.js";
import type { Table } from "../content/model.js";
import { notice, type Notice } from "../content/notice.js";
import { columnsOf, fillGrid } from "../content/spans.js";
import { plainName } from "../formats/fill.js";
import { cellText } from "../formats/text/write.js";
import { editErrors, editNotices } from "../messages/en/edit.js";

/** Rows under which others are put: what they say, of which one may name the columns. */
export interface HostRows {
  readonly file: string;
  /** As it is written, for messages. */
  readonly spot: string;
  /** What they are called: that of their sheet, or of their table. */
  readonly name: string;
  readonly texts: readonly (readonly string[])[];
}

/** Which columns of some rows those of a table are for. */
export interface MatchedColumns {
  /** Which row names them, from 0. */
  readonly row: number;
  /** The column for each of the table, from 0. */
  readonly columns: readonly number[];
  /** How many rows of the table name its columns. */
  readonly headerRows: number;
  readonly notices: readonly Notice[];
}

/**
 * Matches the columns of a table to those of rows that are there, by their names: its header, or a first row of which at least half says
 * names of those columns. Without names they are taken from the first on.
 * @throws DrawerError `cannot-edit` for a name that no column has, and for more columns than there are
 */
export function matchColumns(table: Table, { file, spot, name: host, texts }: HostRows): MatchedColumns {
  const heads = texts.map((row) => row.map(plainName));
  const grid = fillGrid(table, "", ({ flows }) => cellText(flows));
  const first = grid[0]?.map(plainName) ?? [];
  // Those below the first row with several names may say what the block says.
  const head = heads.find((each) => each.filter((name) => name !== "").length > 1) ?? [];
  const saysNames = first.length > 1 && 2 * countAmong(first, head) >= first.length;
  const headerRows = table.headerRows === 0 && saysNames ? 1 : table.headerRows;
  const count = table.rows.length - headerRows;
  if (headerRows === 0) {
    const width = columnsOf(table);
    if (width > (texts[0]?.length ?? 0))
      throw new DrawerError(editErrors, "cannot-edit/shape", { file, spot });
    const notices = [notice(editNotices, "appended/order", { count, sheet: host })];
    return { row: 0, columns: Array.from({ length: width }, (_, at) => at), headerRows, notices };
  }
  const names = grid[headerRows - 1]!.map(plainName);
  const best = heads.reduce(
    (most, head, at) => (countAmong(names, head) > countAmong(names, heads[most]!) ? at : most),
    0,
  );
  const columns = names.map((name) => (name === "" ? -1 : heads[best]!.indexOf(name)));
  const missing = names.filter((_, at) => columns[at]! < 0);
  if (missing.length > 0)
    throw new DrawerError(editErrors, "cannot-edit/headers", { file, spot, names: missing });
  const empty = texts[best]!.filter((name, at) => name.trim() !== "" && !columns.includes(at));
  const notices = [notice(editNotices, "appended/columns", { count, sheet: host, empty })];
  return { row: best, columns, headerRows, notices };
}

function countAmong(names: readonly string[], head: readonly string[]): number {
  return names.filter((name) => name !== "" && head.includes(name)).length;
}
