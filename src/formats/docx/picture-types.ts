import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import type { Content, PictureType } from "../../content/model.js";
import { picturesOf } from "../../content/traverse.js";

const CONTENT_TYPES = "[Content_Types].xml";
/** The endings of pictures in a docx; word processors do not draw the others. */
export const PICTURE_ENDINGS: Readonly<Partial<Record<PictureType, string>>> = {
  ...{ "image/png": "png", "image/jpeg": "jpg", "image/gif": "gif", "image/bmp": "bmp" },
  ...{ "image/tiff": "tiff", "image/emf": "emf", "image/wmf": "wmf" },
};
/** Those of which the library for docx does not write what they are, with their media types as office programs call them. */
const OFFICE_PICTURES: ReadonlyMap<PictureType, string> = new Map([
  ["image/tiff", "image/tiff"],
  ["image/emf", "image/x-emf"],
  ["image/wmf", "image/x-wmf"],
]);

/**
 * A docx that says what its pictures of office programs are (ECMA-376 part 2, 7.2.3.2.3), where it has any.
 * @param docx as the library wrote it
 * @param content what was written
 */
export function withPictureTypes(docx: Uint8Array, content: Content): Uint8Array {
  if (!picturesOf(content).some(({ mediaType }) => OFFICE_PICTURES.has(mediaType))) return docx;
  const parts = unzipSync(docx);
  let types = strFromU8(parts[CONTENT_TYPES]!);
  for (const [type, name] of OFFICE_PICTURES) {
    const entry = `<Default ContentType="${name}" Extension="${PICTURE_ENDINGS[type]}"/>`;
    types = types.replace(/<Default\b/, `${entry}$&`);
  }
  return zipSync({ ...parts, [CONTENT_TYPES]: strToU8(types) });
}
