import { paragraph } from "../../content/model.js";
import { originText } from "../../content/origin.js";
import { withoutNotices, type LaidOut, type Layout, type Piece } from "../layout.js";

/** Every piece is a quote, with where it came from on a line below it, as far as that is known. */
export const quotes: Layout = {
  lay: layQuotes,
  isTable: false,
  between: "none",
  renamesColumns: false,
};

function layQuotes(pieces: readonly Piece[]): LaidOut {
  return withoutNotices(
    pieces.map(({ content, origin }) => {
      const source = origin === undefined ? "" : originText(origin);
      const inner = content.flatMap((flow) => (flow.type === "quote" ? flow.flows : [flow]));
      return { type: "quote", flows: source === "" ? inner : [...inner, paragraph(`— ${source}`)] };
    }),
  );
}
