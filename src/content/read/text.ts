import { checkLength } from "../limits.js";
import { paragraph, safeLink, textRun, type Content } from "../model.js";
import type { Reading } from "../notice.js";

/**
 * Reads plain text: a line is a paragraph, an empty line an empty paragraph, so that the text comes out again
 * character for character (line ends of any kind become `\n`; a NUL, which some programs put at the end, is dropped).
 * A text that is one address and nothing else becomes a link.
 */
export function readText(text: string): Reading {
  checkLength(text, "text");
  const clean = text.replace(/^\uFEFF/, "").replace(/\u0000/g, "");
  const lines = clean.split(/\r\n|\r|\n/);
  const link = lines.length === 1 && /^\S+$/.test(clean) ? safeLink(clean) : undefined;
  const content: Content = link
    ? [{ type: "paragraph", runs: [textRun(clean, { link })] }]
    : lines.map((line) => paragraph(line));
  return { content: clean === "" ? [] : content, pictures: new Map(), notices: [] };
}
