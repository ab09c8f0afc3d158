import { DrawerError } from "../content/error.js";
import { checkBytes } from "../content/limits.js";
import type { Content } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import { tellFormat } from "../formats/detect.js";
import { plainName, type Filled, type NamedPlace, type Template, type Values } from "../formats/fill.js";
import { flatOdfType } from "../formats/heads.js";
import { FILLED_FORMATS, formatOf } from "../formats/registry.js";
import { editErrors } from "../messages/en/edit.js";

/** What goes into the named places of a file: content for each name, and the bytes of the pictures in it. */
export interface FillValue {
  readonly content: Content;
  readonly pictures?: ReadonlyMap<string, Uint8Array>;
}

/** A file whose named places are filled. */
export interface FilledFile {
  readonly data: Uint8Array;
  /** The names of places that have no value, each once: they stay as they are. */
  readonly empty: readonly string[];
  /** The names of values that no place has. */
  readonly unused: readonly string[];
  readonly notices: readonly Notice[];
}

/**
 * The named places of a file, in their order: content controls, fields of form letters and forms, bookmarks, named cells, and names in
 * double braces (`{{Name}}`).
 *
 * @param bytes the whole file
 * @param name its name, for its ending and for messages
 * @throws DrawerError `cannot-edit` for a format without such places; `unknown-format`, `unreadable`, `locked`, `too-large`
 */
export async function placesIn(bytes: Uint8Array, name: string): Promise<NamedPlace[]> {
  return (await templateOf(bytes, name)).places(bytes, name);
}

/**
 * Fills the named places of a file: the bytes of the file with what goes there. A place takes the look that it has; a name in braces that
 * stands alone in its line takes whole blocks.
 *
 * @param bytes the whole file
 * @param name its name, for its ending and for messages
 * @param values what goes into them, by their names in any case
 * @throws DrawerError `cannot-edit`, `unknown-format`, `unreadable`, `locked`, `too-large`
 */
export async function fillPlaces(
  bytes: Uint8Array,
  name: string,
  values: Readonly<Record<string, FillValue>>,
): Promise<FilledFile> {
  const template = await templateOf(bytes, name);
  const [contents, picture] = [contentsOf(values), pictureIn([values])];
  return told(template, bytes, name, [values], await template.fill(bytes, name, contents, picture));
}

/**
 * Fills the named places of a file for each of some values, and makes one file of them, each on pages of its own. What stands at the
 * edges of pages is there once, and takes what all values say alike.
 *
 * @param bytes the whole file
 * @param name its name, for its ending and for messages
 * @param each what goes into the places, by their names in any case, for each of its pages
 * @throws DrawerError `cannot-edit` for a format in which that is not made, and for a document with notes or comments; as {@link fillPlaces}
 */
export async function fillPages(
  bytes: Uint8Array,
  name: string,
  each: readonly Readonly<Record<string, FillValue>>[],
): Promise<FilledFile> {
  const template = await templateOf(bytes, name);
  if (!template.fillPages) throw new DrawerError(editErrors, "cannot-edit/pages", { file: name });
  const filled = await template.fillPages(bytes, name, each.map(contentsOf), pictureIn(each));
  return told(template, bytes, name, each, filled);
}

function contentsOf(values: Readonly<Record<string, FillValue>>): Values {
  return new Map(Object.entries(values).map(([key, { content }]) => [plainName(key), content]));
}

function pictureIn(each: readonly Readonly<Record<string, FillValue>>[]) {
  const pictures = new Map(
    each.flatMap((values) => Object.values(values)).flatMap((value) => [...(value.pictures ?? [])]),
  );
  return (hash: string) => pictures.get(hash);
}

/** A filled file, with what stayed empty and what was not used. */
async function told(
  template: Template,
  bytes: Uint8Array,
  name: string,
  each: readonly Readonly<Record<string, FillValue>>[],
  { data, filled, notices }: Filled,
): Promise<FilledFile> {
  const places = await template.places(bytes, name);
  const unfilled = places.filter((place) => !filled.has(plainName(place.name))).map((place) => place.name);
  const keys = [...new Set(each.flatMap((values) => Object.keys(values)))];
  return {
    ...{ data, notices },
    empty: [...new Set(unfilled)],
    unused: keys.filter((key) => !filled.has(plainName(key))),
  };
}

async function templateOf(bytes: Uint8Array, name: string): Promise<Template> {
  checkBytes(bytes.length, name);
  const format = tellFormat(bytes, name);
  if (flatOdfType(bytes)) throw new DrawerError(editErrors, "cannot-edit/flat", { file: name, as: format });
  const { fill } = formatOf(format);
  if (fill) return fill();
  const formats = FILLED_FORMATS.join(", ");
  throw new DrawerError(editErrors, "cannot-edit/places", { file: name, format, formats });
}
