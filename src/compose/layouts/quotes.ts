import { paragraph } from "../../content/model.js";
import { originText } from "../../content/origin.js";
import { withoutNotices, type Layout } from "../layout.js";

/** Every piece is a quote, with where it came from on a line below it, as far as that is known. */
export const quotes: Layout = (pieces) =>
  withoutNotices(
    pieces.map(({ content, origin }) => {
      const source = origin === undefined ? "" : originText(origin);
      const inner = content.flatMap((flow) => (flow.type === "quote" ? flow.flows : [flow]));
      return { type: "quote", flows: source === "" ? inner : [...inner, paragraph(`— ${source}`)] };
    }),
  );
