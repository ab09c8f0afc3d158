import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import type { Content } from "./model.js";

/** SHA-256 of some bytes, in lower-case hexadecimal: the name under which they are stored. */
export type Hash = string;

/** Every name the model knows, in the order in which it is written, so that equal content has equal bytes. */
const NAMES = [
  ...[
    "type",
    "level",
    "ordered",
    "start",
    "headerRows",
    "align",
    "direction",
    "runs",
    "text",
    "marks",
    "caption",
  ],
  ...[
    "widths",
    "items",
    "rows",
    "flows",
    "colspan",
    "rowspan",
    "background",
    "value",
    "number",
    "date",
    "boolean",
  ],
  ...[
    "format",
    "hash",
    "mediaType",
    "width",
    "height",
    "alt",
    "language",
    "bold",
    "italic",
    "underline",
    "strike",
  ],
  ...["code", "sub", "sup", "color", "font", "size", "link"],
];

/** Content as bytes: JSON in UTF-8, names in a fixed order. */
export function encodeContent(content: Content): Uint8Array {
  return new TextEncoder().encode(JSON.stringify(content, NAMES));
}

/** The content that {@link encodeContent} wrote. */
export function decodeContent(bytes: Uint8Array): Content {
  return JSON.parse(new TextDecoder().decode(bytes)) as Content;
}

/** The hash of some bytes. */
export function hashBytes(bytes: Uint8Array): Hash {
  return bytesToHex(sha256(bytes));
}
