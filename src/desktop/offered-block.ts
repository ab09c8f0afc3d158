import type { Block } from "../compose/block.js";
import { kindOf } from "../content/kind.js";
import { addressesOf, picturesOf, someFlow } from "../content/traverse.js";
import type { Offered } from "./desktop.js";
import { SECRET_HINT } from "./forms.js";

/**
 * A block in every form that helps the program it is pasted in: HTML for word processors and sheets, rows where it has a
 * table, addresses where it is a link, a picture where it is one alone, and text for everything else.
 *
 * @param isPrivate whether anything in it is private
 * @param block what is to be pasted
 */
export function offeredBlock(block: Block, isPrivate: boolean): Offered {
  const { content } = block;
  const encoder = new TextEncoder();
  const offered = new Map<string, Uint8Array>();
  const kind = kindOf(content);
  const [picture, ...others] = picturesOf(content);
  const bytes = kind === "picture" && others.length === 0 ? block.picture(picture!.hash) : undefined;
  if (bytes && picture) offered.set(picture.mediaType, bytes);
  // Programs that take HTML without a word of its encoding for an old one are told.
  const html = `<meta http-equiv="content-type" content="text/html; charset=utf-8">${block.html}`;
  offered.set("text/html", encoder.encode(html));
  if (someFlow(content, ({ type }) => type === "table"))
    offered.set("text/tab-separated-values", encoder.encode(block.tsv));
  if (kind === "link") offered.set("text/uri-list", encoder.encode(addressesOf(content).join("\r\n")));
  offered.set("text/plain", encoder.encode(block.text));
  if (isPrivate) offered.set(SECRET_HINT, encoder.encode("secret"));
  return offered;
}
