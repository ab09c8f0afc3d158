import type { OnProgress } from "../format.js";
import { flatOdfType } from "../heads.js";
import { packFlatOdf } from "./flat-odf.js";
import { locked, Parts } from "./zip.js";

/**
 * Opens an OpenDocument file: a package, or one that is a single XML file.
 * @throws DrawerError `unreadable`; `locked` when any of its parts is encrypted (ODF 1.3 part 2, 3.4.2)
 */
export function odfParts(bytes: Uint8Array, file: string, onProgress?: OnProgress): Parts {
  const packed = flatOdfType(bytes) === undefined ? bytes : packFlatOdf(bytes, file);
  const parts = new Parts(packed, file, onProgress);
  if (parts.text("META-INF/manifest.xml")?.includes("encryption-data")) throw locked(file);
  return parts;
}
