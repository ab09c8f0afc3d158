import type { TextEdit } from "../office/xml-text.js";

/** The edit that adds automatic styles to the text of an OpenDocument file (ODF 1.3 part 3, 3.15.3). */
export function addAutomaticStyles(text: string, styles: string): TextEdit {
  const end = text.indexOf("</office:automatic-styles>");
  if (end >= 0) return { from: end, to: end, text: styles };
  const whole = `<office:automatic-styles>${styles}</office:automatic-styles>`;
  const empty = /<office:automatic-styles\s*\/>/.exec(text);
  if (empty) return { from: empty.index, to: empty.index + empty[0].length, text: whole };
  const body = text.indexOf("<office:body");
  return { from: body, to: body, text: whole };
}
