import type { Layout } from "../layout.js";
import { linesOf } from "./lines-of.js";

/** Every piece on lines of its own: a paragraph, an item or a row is a line; marks and links stay. */
export const lines: Layout = (pieces) => ({
  content: pieces.flatMap((piece) => linesOf(piece.content)),
  notices: [],
});
