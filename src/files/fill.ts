import { DrawerError } from "../content/error.js";
import { checkBytes } from "../content/limits.js";
import type { Content } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import { tellFormat } from "../formats/detect.js";
import { plainName, type NamedPlace, type Template } from "../formats/fill.js";
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
  const contents = new Map(Object.entries(values).map(([key, { content }]) => [plainName(key), content]));
  const pictures = new Map(Object.values(values).flatMap((value) => [...(value.pictures ?? [])]));
  const places = await template.places(bytes, name);
  const { data, filled, notices } = await template.fill(bytes, name, contents, (hash) => pictures.get(hash));
  const unfilled = places.filter((place) => !filled.has(plainName(place.name))).map((place) => place.name);
  return {
    ...{ data, notices },
    empty: [...new Set(unfilled)],
    unused: Object.keys(values).filter((key) => !filled.has(plainName(key))),
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
