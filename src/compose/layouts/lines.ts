import type { Layout } from "../layout.js";
import { dividersLeftOut, linesOf } from "./lines-of.js";
import { sequence } from "./sequence.js";

/** Every piece on lines of its own: a paragraph, an item or a row is a line; marks and links stay. */
export const lines: Layout = (pieces, recipe) => ({
  content: sequence(
    pieces.map((piece) => ({ ...piece, content: linesOf(piece.content) })),
    recipe,
  ).content,
  notices: dividersLeftOut(pieces.map(({ content }) => content)),
});
