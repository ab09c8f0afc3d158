import { safeLink } from "../../content/address.js";
import { checkLength } from "../../content/limits.js";
import { type Content, type Flow, paragraph, textRun } from "../../content/model.js";
import type { Reading } from "../../content/notice.js";
import { withoutByteOrderMark } from "./byte-order-mark.js";

/**
 * Reads plain text: a line is a paragraph, an empty line an empty paragraph, so that the text comes out again
 * character for character (line ends of any kind become `\n`; a NUL, which some programs put at the end, is dropped).
 * Lines that are addresses and nothing else become links (a list of addresses may have `#` comments, RFC 2483).
 *
 * @param text with line ends of any system
 * @example
 * ```js
 * import { readText } from "drawer";
 *
 * console.log(readText("one\ntwo").content.length); // 2
 * ```
 */
export function readText(text: string): Reading {
  checkLength(text, "text");
  const clean = withoutByteOrderMark(text);
  const lines = clean.split(/\r\n|\r|\n/);
  const content: Content = linkLines(lines) ?? lines.map((line) => paragraph(line));
  return { content: clean === "" ? [] : content, pictures: new Map(), notices: [] };
}

/** The lines as links, when each is an address, a comment or blank, and there is an address among them. */
function linkLines(lines: readonly string[]): Content | undefined {
  const content: Flow[] = [];
  let links = 0;
  for (const line of lines) {
    const link = /^\S+$/.test(line) ? safeLink(line) : undefined;
    if (link === undefined && line.trim() !== "" && !line.startsWith("#")) return undefined;
    if (link !== undefined) links++;
    content.push(
      link === undefined ? paragraph(line) : { type: "paragraph", runs: [textRun(line, { link })] },
    );
  }
  return links > 0 ? content : undefined;
}
