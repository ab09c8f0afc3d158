import type { TextPiece } from "../office/braces.js";
import { textXml } from "../office/odf.js";
import type { XmlPlace } from "../office/xml-text.js";

/** The pieces of text of a line, without those of lines in it, as of boxes and notes. */
export function piecesIn(text: string, line: XmlPlace): TextPiece[] {
  const pieces: TextPiece[] = [];
  let at = line.inner;
  let depth = 0;
  for (const match of text.slice(line.inner, line.innerEnd).matchAll(/<(\/?)([\w:-]+)[^>]*?(\/?)>/g)) {
    const [tag, isEnd, name, isAlone] = match;
    const from = line.inner + match.index;
    if (depth === 0 && from > at) pieces.push({ from: at, to: from });
    if ((name === "text:p" || name === "text:h") && !isAlone) depth += isEnd ? -1 : 1;
    at = from + tag.length;
  }
  if (line.innerEnd > at) pieces.push({ from: at, to: line.innerEnd });
  return pieces;
}

/** A text of several lines, as it stands in one paragraph. */
export function linesXml(value: string): string {
  return value
    .split("\n")
    .map((line) => textXml(line, false))
    .join("<text:line-break/>");
}
