import { escapeXml } from "../office/odf.js";

/** The look of the first run in some XML, which what comes in its place takes on; nothing where it has none. */
export function lookOf(xml: string): string {
  return /<w:r(?:\s[^>]*)?>\s*(<w:rPr>[\s\S]*?<\/w:rPr>)/.exec(xml)?.[1] ?? "";
}

/** A run with lines of text in a look; nothing for no text. */
export function runXml(value: string, look: string): string {
  return value === "" ? "" : `<w:r>${look}<w:t xml:space="preserve">${linesXml(value)}</w:t></w:r>`;
}

/** Lines of text as they stand in an element of text. */
export function linesXml(value: string): string {
  return value.split("\n").map(escapeXml).join('</w:t><w:br/><w:t xml:space="preserve">');
}
