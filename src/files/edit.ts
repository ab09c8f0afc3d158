import type { Block } from "../compose/block.js";
import type { Rectangle } from "../content/cells.js";
import { defined } from "../content/defined.js";
import { DrawerError } from "../content/error.js";
import { checkBytes } from "../content/limits.js";
import { picturesOf } from "../content/traverse.js";
import { tellFormat } from "../formats/detect.js";
import type { DocumentPlace, Edited, Put } from "../formats/edit.js";
import { flatOdfType } from "../formats/heads.js";
import { EDITED_FORMATS, formatOf, type FormatName } from "../formats/registry.js";
import { editErrors } from "../messages/en/edit.js";
import { filesErrors } from "../messages/en/files.js";
import { fillPlaces, placesIn } from "./fill.js";
import { flowsOf, Leaves } from "./parts.js";
import { putIntoSheet, sheetPlaces } from "./sheet-edit.js";
import { readSource } from "./source.js";
import { appendToTable } from "./table-edit.js";
import { linesPlace } from "./text-edit.js";

/** How a block is put into a file. */
export interface PutOptions {
  /** Whether it goes after what stands at the spot, before it, or in its place; after it when it is left out, and only into cells that are empty. */
  readonly put?: Put;
  /** Whether it has the looks of the document (`host`) or brings its own. */
  readonly style?: "own" | "host" | "bare";
  /** Whether what changes is marked, for somebody to accept; as the document says when it is left out. */
  readonly track?: boolean;
  /** When it is done, for what is marked. */
  readonly at?: Date;
}

/**
 * Puts a block into a file at a spot: the bytes of the file with the block in it. All else of the file stays as it is; parts of a zipped
 * document that need no change are not even packed anew.
 *
 * @param bytes the whole file
 * @param name its name, for its ending and for messages
 * @param spot where: `p3`, `t1!B2`, `Spring!A2`, `name:Wind`
 * @param block what is put there
 * @throws DrawerError `cannot-edit` with what stands in its way; `bad-spot`, `no-spot`, `unknown-format`, `unreadable`, `locked`, `too-large`
 */
export async function putInto(
  bytes: Uint8Array,
  name: string,
  spot: string,
  block: Block,
  options: PutOptions = {},
): Promise<Edited> {
  const { put, style = "own", track, at = new Date() } = options;
  if (spot.startsWith("name:")) return putIntoNamed(bytes, name, spot, block);
  const { editor, format } = await editorOf(bytes, name);
  const { content } = block;
  const input = { content, picture: block.picture, isHost: style !== "own" };
  switch (editor.type) {
    case "document": {
      const [place] = await documentPlaces(bytes, name, format, [spot], put === "instead");
      if (put === "after" && editor.append && place!.cells && isSeveral(place!.cells))
        return appendToTable(editor.append, bytes, name, place!, input, { ...defined({ track }), at });
      return editor.put(bytes, name, place!, put, input, { ...defined({ track }), at });
    }
    case "sheet":
      return putIntoSheet(editor, bytes, name, spot, input, put);
    case "text":
      return editor.put(bytes, name, linesPlace(bytes, name, spot), put, input);
  }
}

/**
 * Takes what stands at spots out of a file: the bytes of the file without it. Take it as content first, with {@link readSource}.
 *
 * @param bytes the whole file
 * @param name its name, for its ending and for messages
 * @param spots where: `p3..p4`, `t1`, `Spring!A2:G2`
 * @throws DrawerError `cannot-edit` with what stands in its way; `bad-spot`, `no-spot`, `unknown-format`, `unreadable`, `locked`, `too-large`
 */
export async function takeOut(
  bytes: Uint8Array,
  name: string,
  spots: readonly string[],
  options: Pick<PutOptions, "track" | "at"> = {},
): Promise<Edited> {
  const { track, at = new Date() } = options;
  const { editor, format } = await editorOf(bytes, name);
  switch (editor.type) {
    case "document": {
      const places = await documentPlaces(bytes, name, format, spots, true);
      return editor.takeOut(bytes, name, places, { ...defined({ track }), at });
    }
    case "sheet": {
      const source = await readSource(bytes, name);
      const places = spots.flatMap((spot) => sheetPlaces(source, spot));
      return editor.takeOut(bytes, name, places);
    }
    case "text":
      return editor.takeOut(
        bytes,
        name,
        spots.map((spot) => linesPlace(bytes, name, spot)),
      );
  }
}

function isSeveral({ top, left, bottom, right }: Rectangle): boolean {
  return top < bottom || left < right;
}

/** Puts a block into all places of a name. */
async function putIntoNamed(bytes: Uint8Array, file: string, spot: string, block: Block): Promise<Edited> {
  const { content } = block;
  const hashes = picturesOf(content).map(({ hash }) => hash);
  const pictures = new Map(hashes.map((hash) => [hash, block.picture(hash)!]));
  const wanted = spot.slice("name:".length);
  const { data, unused, notices } = await fillPlaces(bytes, file, { [wanted]: { content, pictures } });
  if (unused.length === 0) return { data, notices };
  const names = [...new Set((await placesIn(bytes, file)).map((place) => place.name))];
  throw new DrawerError(filesErrors, "no-spot/name", { file, name: wanted, names });
}

/** What changes files of the format that these bytes are. */
async function editorOf(bytes: Uint8Array, name: string) {
  checkBytes(bytes.length, name);
  const format = tellFormat(bytes, name);
  if (flatOdfType(bytes)) throw new DrawerError(editErrors, "cannot-edit/flat", { file: name, as: format });
  const { edit } = formatOf(format);
  if (edit) return { format, editor: await edit() };
  const formats = EDITED_FORMATS.join(", ");
  throw new DrawerError(editErrors, "cannot-edit/format", { file: name, format, formats });
}

/** Where spots of a document stand in its file. */
async function documentPlaces(
  bytes: Uint8Array,
  name: string,
  format: FormatName,
  spots: readonly string[],
  isTaken: boolean,
): Promise<DocumentPlace[]> {
  const file = await formatOf(format).read!(bytes, name, { places: true });
  if ("sheets" in file) throw new Error(`${name} is no document`);
  const leaves = new Leaves(file.open ?? flowsOf(file));
  const places = spots.map((spot) => leaves.placeAt(spot, name));
  for (const { spot, isShared } of places)
    if (isShared && isTaken) throw new DrawerError(editErrors, "cannot-edit/shared", { file: name, spot });
  return places;
}
