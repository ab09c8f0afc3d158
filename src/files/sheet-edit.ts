import { parseCells, parseLines, type Rectangle } from "../content/cells.js";
import { DrawerError } from "../content/error.js";
import type { Edited, Put, SheetEditor, SheetPlace } from "../formats/edit.js";
import type { WriteInput } from "../formats/format.js";
import { editErrors } from "../messages/en/edit.js";
import { matchColumns } from "./match-columns.js";
import { matchValues } from "./match-values.js";
import { readSource, type Source } from "./source.js";

/** How many rows of a sheet are looked through for the names of its columns. */
const HEAD = 31;

const FIRST_CELL: Rectangle = { top: 0, left: 0, bottom: 0, right: 0 };

/** A place in a workbook as it is named: cells, or a whole sheet, which has none until they are asked for. */
type NamedPlace = Omit<SheetPlace, "cells"> & { readonly cells: Rectangle | undefined };

/** The cells that a spot of a workbook names. */
export function sheetPlaces(source: Source, written: string): SheetPlace[] {
  return namedPlaces(source, written).map((place) => ({ ...place, cells: cellsOf(place, source) }));
}

/** For a whole sheet, all of it is read. */
function cellsOf({ cells, sheet }: NamedPlace, source: Source): Rectangle {
  return cells ?? source.sheets![sheet]!.used ?? FIRST_CELL;
}

function namedPlaces(source: Source, written: string): NamedPlace[] {
  const sheets = source.sheets ?? [];
  const bare = (name: string) => /^'(.*)'$/s.exec(name)?.[1]?.replaceAll("''", "'") ?? name;
  return source.spots(written).map((spot) => {
    const at = spot.lastIndexOf("!");
    const named = sheets.findIndex(({ name }) => name === bare(at < 0 ? spot : spot.slice(0, at)));
    const sheet = Math.max(0, named);
    if (at < 0 && named >= 0) return { spot, sheet, cells: undefined };
    const cells = spot.slice(at + 1);
    const used = () => sheets[sheet]!.used ?? FIRST_CELL;
    return {
      ...{ spot, sheet, isRows: /^\d+:\d+$/.test(cells) },
      cells: parseLines(cells, used) ?? parseCells(cells) ?? used(),
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
  const named = namedPlaces(source, spot)[0]!;
  const { cells } = named;
  const refused = (reason: string) =>
    new DrawerError(editErrors, "cannot-edit/put", { file, spot, put: reason });
  if (put === "before") throw refused("before");
  if (put !== "after" && !(put === undefined && !cells)) {
    if (!cells) throw refused("instead of");
    return editor.put(bytes, file, { ...named, cells }, input, put === "instead");
  }
  if (cells && cells.top === cells.bottom && cells.left === cells.right) throw refused("after");
  const [table, ...others] = input.content;
  if (table?.type !== "table" || others.length > 0)
    throw new DrawerError(editErrors, "cannot-edit/cells", { file, spot });
  const sheet = source.sheets![named.sheet]!;
  const head = cells ? { ...cells, bottom: cells.top } : sheet.head(HEAD);
  // A sheet that is empty takes all of it, with the names of its columns.
  if (!head) return editor.put(bytes, file, { ...named, cells: FIRST_CELL }, input, false);
  const texts = sheet.texts(head);
  const matched = matchColumns(table, { file, spot, name: sheet.name, texts });
  const { headerRows, notices } = matched;
  const top = head.top + matched.row;
  const below = { ...head, top: top + 1, bottom: Math.min((cells ?? head).bottom, top + HEAD) };
  const values = below.bottom < below.top ? [] : sheet.values(below);
  const typed = matchValues(table, headerRows, matched.columns, { names: texts[matched.row]!, values });
  const edited = await editor.append(
    bytes,
    file,
    { ...named, cells: { ...(cells ?? head), top } },
    { ...input, content: [typed.table] },
    { headerRows, columns: matched.columns.map((at) => head.left + at), untilBlank: !cells },
  );
  return { ...edited, notices: [...notices, ...typed.notices, ...edited.notices] };
}
