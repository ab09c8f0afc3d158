import type { Block } from "../compose/block.js";
import { kindOf } from "../content/kind.js";
import { picturesOf, someFlow } from "../content/traverse.js";
import { loneLineHtml } from "../formats/html/lone-line.js";
import { writeHtml } from "../formats/html/write.js";
import { writeRtf } from "../formats/rtf/write.js";
import { writeXls } from "../formats/xls/write.js";
import type { Offered } from "./desktop.js";
import { CELLS, RICH_TEXT, SECRET_HINT } from "./forms.js";

/**
 * A block in every form that helps the program it is pasted in: HTML for word processors; cells for sheets, which ask a question
 * at each paste of HTML; Rich Text Format for programs that take no HTML; rows where it has a table, a picture where it is one alone, and text for everything else. A lone line joins the line in which it is pasted. An address is
 * offered as a link of HTML: as a list of addresses, word processors would link a section to it.
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
  const fragment = writeHtml(content, { picture: (hash) => block.picture(hash), cellBlocks: true });
  // Programs that take HTML without a word of its encoding for an old one are told.
  const html = `<meta http-equiv="content-type" content="text/html; charset=utf-8">${loneLineHtml(content, fragment) ?? fragment}`;
  offered.set("text/html", encoder.encode(html));
  // A sheet takes cells before all else. A picture among others it does not take in HTML either: its description stands there.
  const cells = bytes ? undefined : writeXls(content);
  if (cells) offered.set(CELLS, cells);
  if (someFlow(content, ({ type }) => type === "table"))
    offered.set("text/tab-separated-values", encoder.encode(block.tsv));
  // By this name word processors that take HTML leave it to those that do not.
  offered.set(
    RICH_TEXT,
    encoder.encode(`${writeRtf({ content, picture: (hash) => block.picture(hash) }).data}`),
  );
  offered.set("text/plain", encoder.encode(block.text));
  if (isPrivate) offered.set(SECRET_HINT, encoder.encode("secret"));
  return offered;
}
