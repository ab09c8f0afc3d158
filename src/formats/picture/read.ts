import { hashBytes } from "../../content/encode.js";
import type { Reading } from "../../content/notice.js";
import { readPictureBytes } from "../../content/picture.js";

/** Content that holds nothing. */
export const NOTHING: Reading = { content: [], pictures: new Map(), notices: [] };

/** A picture by itself; nothing when the bytes are no picture. */
export function readPicture(bytes: Uint8Array, alt = ""): Reading {
  const facts = readPictureBytes(bytes);
  if (!facts) return NOTHING;
  const hash = hashBytes(bytes);
  return {
    content: [{ type: "picture", hash, ...facts, alt }],
    pictures: new Map([[hash, bytes]]),
    notices: [],
  };
}
