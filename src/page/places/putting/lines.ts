import type { Block } from "../../../compose/block.js";

/** Whether a block does not begin in the middle of a line: several flows, or one that is more than a line. */
export function standsAlone({ content }: Block): boolean {
  return content.length > 1 || (content.length === 1 && content[0]!.type !== "paragraph");
}

/** Whether a block, which is lines of text by now, was an item of a list with bullets. */
export function isItem({ text }: Block): boolean {
  return /^[-•*] /.test(text);
}
