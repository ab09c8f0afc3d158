import { safeLink } from "../../content/address.js";
import { fromBase64 } from "../../content/base64.js";
import { defined } from "../../content/defined.js";
import { hashBytes } from "../../content/encode.js";
import type { Picture } from "../../content/model.js";
import { readPictureBytes } from "../../content/picture.js";
import type { ComputedStyle } from "./computed-style.js";
import type { ElementReader } from "./element-reader.js";
import type { FlowBuilder } from "./flow-builder.js";
import type { StyleContext } from "./known-places.js";

/**
 * Reads a picture: one whose bytes are in the page itself; of another, its description and its address.
 * @param pictures gets the bytes, by their hash
 */
export function readImage<Node>(
  reader: ElementReader<Node>,
  node: Node,
  style: ComputedStyle,
  place: StyleContext,
  builder: FlowBuilder,
  pictures: Map<string, Uint8Array>,
): void {
  const source = reader.attribute(node, "src")?.trim() ?? "";
  const alt = reader.attribute(node, "alt")?.replace(/\s+/g, " ").trim() ?? "";
  const picture = /^data:/i.test(source) ? dataPicture(source, alt, pictures) : undefined;
  if (picture) {
    builder.picture({ ...picture, ...defined({ link: style.link }) }, style, place.heading);
    return;
  }
  const name = alt || pictureName(source);
  const link = style.link ?? safeLink(source);
  reader.asides.add({ type: "picture", name });
  builder.text(name, link ? { ...style, link } : style, place.heading);
}

function dataPicture(source: string, alt: string, pictures: Map<string, Uint8Array>): Picture | undefined {
  const match = /^data:image\/[\w.+-]+(?:;[\w=-]+)*;base64,/i.exec(source.slice(0, 200));
  if (!match) return undefined;
  // What is not base64 is named as a picture that could not be read.
  const bytes = fromBase64(source.slice(match[0].length));
  if (!bytes) return undefined;
  const facts = readPictureBytes(bytes);
  if (!facts) return undefined;
  const hash = hashBytes(bytes);
  pictures.set(hash, bytes);
  return { type: "picture", hash, ...facts, alt };
}
function pictureName(source: string): string {
  const file = /([^/\\?#]{1,80})(?:[?#]|$)/.exec(source.slice(-400))?.[1];
  return file && !/^data:/i.test(source) ? file : "picture";
}
