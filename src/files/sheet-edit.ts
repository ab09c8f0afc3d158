import { parseCells, parseLines } from "../content/cells.js";
import { DrawerError } from "../content/error.js";
import type { Table } from "../content/model.js";
import { notice, type Notice } from "../content/notice.js";
import { columnsOf, fillGrid } from "../content/spans.js";
import type { Edited, Put, SheetEditor, SheetPlace } from "../formats/edit.js";
import { plainName } from "../formats/fill.js";
import type { WriteInput } from "../formats/format.js";
import { cellText } from "../formats/text/write.js";
import { editErrors, editNotices } from "../messages/en/edit.js";
import { readSource, type Source, type SourceSheet } from "./source.js";

/** How many rows of a sheet are looked through for the names of its columns. */
const HEAD = 30;

/** A place in a workbook as it is named: cells, or a whole sheet. */
interface NamedPlace extends SheetPlace {
  readonly isWhole: boolean;
}

/** The cells that a spot of a workbook names. */
export function sheetPlaces(source: Source, written: string): NamedPlace[] {
  const sheets = source.sheets ?? [];
  const bare = (name: string) => /^'(.*)'$/s.exec(name)?.[1]?.replaceAll("''", "'") ?? name;
  return source.spots(written).map((spot) => {
    const at = spot.lastIndexOf("!");
    const named = sheets.findIndex(({ name }) => name === bare(at < 0 ? spot : spot.slice(0, at)));
    const sheet = Math.max(0, named);
    const used = sheets[sheet]!.used ?? { top: 0, left: 0, bottom: 0, right: 0 };
    if (at < 0 && named >= 0) return { spot, sheet, cells: used, isWhole: true };
    const cells = spot.slice(at + 1);
    const isRows = /^\d+:\d+$/.test(cells);
    return {
      ...{ spot, sheet, isWhole: false, isRows },
      cells: parseLines(cells, () => used) ?? parseCells(cells) ?? used,
    };
  });
}

/**
 * Puts a block into a sheet: into cells, or as rows below others, matched by the names of columns.
 * @throws DrawerError `cannot-edit`, `no-spot`, `bad-spot`
 */
export async function putIntoSheet(
  editor: SheetEditor,
  bytes: Uint8Array,
  file: string,
  spot: string,
  input: WriteInput,
  put: Put | undefined,
): Promise<Edited> {
  const source = await readSource(bytes, file);
  const place = sheetPlaces(source, spot)[0]!;
  const { isWhole, cells } = place;
  const refused = (reason: string) =>
    new DrawerError(editErrors, "cannot-edit/put", { file, spot, put: reason });
  if (put === "before") throw refused("before");
  if (put !== "after" && !(put === undefined && isWhole)) {
    if (isWhole) throw refused("instead of");
    return editor.put(bytes, file, place, input, put === "instead");
  }
  if (!isWhole && cells.top === cells.bottom && cells.left === cells.right) throw refused("after");
  const [table, ...others] = input.content;
  if (table?.type !== "table" || others.length > 0)
    throw new DrawerError(editErrors, "cannot-edit/cells", { file, spot });
  const sheet = source.sheets![place.sheet]!;
  // A sheet that is empty takes all of it, with the names of its columns.
  if (isWhole && !sheet.used) return editor.put(bytes, file, place, input, false);
  const { top, columns, headerRows, notices } = matched(table, sheet, place, file);
  const under = { ...place, cells: { ...cells, top } };
  const edited = await editor.append(bytes, file, under, input, { headerRows, columns, untilBlank: isWhole });
  return { ...edited, notices: [...notices, ...edited.notices] };
}

/**
 * The columns of a sheet that those of a table are for, the row that names them, and how many rows of the table do so: its header, or a
 * first row of which at least half says names of the sheet's columns.
 */
function matched(table: Table, sheet: SourceSheet, { cells, isWhole, spot }: NamedPlace, file: string) {
  const rows = sheet.texts({
    ...cells,
    bottom: isWhole ? Math.min(cells.bottom, cells.top + HEAD) : cells.top,
  });
  const heads = rows.map((row) => row.map(plainName));
  const grid = fillGrid(table, "", ({ flows }) => cellText(flows));
  const first = grid[0]?.map(plainName) ?? [];
  // Those below the first row with several names may say what the block says.
  const head = heads.find((each) => each.filter((name) => name !== "").length > 1) ?? [];
  const saysNames = first.length > 1 && 2 * countAmong(first, head) >= first.length;
  const headerRows = table.headerRows === 0 && saysNames ? 1 : table.headerRows;
  const count = table.rows.length - headerRows;
  if (headerRows === 0) {
    const width = columnsOf(table);
    if (cells.left + width - 1 > cells.right)
      throw new DrawerError(editErrors, "cannot-edit/shape", { file, spot });
    const notices: Notice[] = [notice(editNotices, "appended/order", { count, sheet: sheet.name })];
    const columns = Array.from({ length: width }, (_, at) => cells.left + at);
    return { top: cells.top, columns, headerRows, notices };
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
  const empty = rows[best]!.filter((name, at) => name.trim() !== "" && !columns.includes(at));
  const notices: Notice[] = [notice(editNotices, "appended/columns", { count, sheet: sheet.name, empty })];
  return { top: cells.top + best, columns: columns.map((at) => cells.left + at), headerRows, notices };
}

function countAmong(names: readonly string[], head: readonly string[]): number {
  return names.filter((name) => name !== "" && head.includes(name)).length;
}
