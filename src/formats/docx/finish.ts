import { editParts } from "../office/zip.js";

/**
 * Gives a written document what its schema wants and the package that writes it does not do (ECMA-376 part 1): each
 * drawing a number of its own (20.4.2.5), and numbers of lists aligned by a word of the transitional schema (17.9.7).
 */
export function finish(document: Uint8Array): Uint8Array {
  let drawings = 0;
  return editParts(document, {
    "word/document.xml": (xml) =>
      xml.replace(/(<wp:docPr\b[^>]*?\bid=")[^"]*"/g, (_, before: string) => `${before}${++drawings}"`),
    "word/numbering.xml": (xml) => xml.replace(/(<w:lvlJc w:val=")start"/g, '$1left"'),
  });
}
