import type { LaidOut, Layout, LayoutOptions, Piece } from "../layout.js";
import { dividersLeftOut, linesOf } from "./lines-of.js";
import { sequence } from "./sequence.js";

/** Every piece on lines of its own: a paragraph, an item or a row is a line; marks and links stay. */
export const lines: Layout = {
  lay: layLines,
  isTable: false,
  between: "lines",
  renamesColumns: false,
};

function layLines(pieces: readonly Piece[], recipe: LayoutOptions): LaidOut {
  return {
    content: sequence.lay(
      pieces.map((piece) => ({ ...piece, content: linesOf(piece.content) })),
      recipe,
    ).content,
    notices: dividersLeftOut(pieces.map(({ content }) => content)),
  };
}
