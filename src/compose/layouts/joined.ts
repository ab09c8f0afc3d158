import { paragraph, type Run } from "../../content/model.js";
import { mergeRuns } from "../../content/runs.js";
import type { LaidOut, Layout, LayoutOptions, Piece } from "../layout.js";
import { betweenText } from "../options.js";
import { dividersLeftOut, inlineOf } from "./lines-of.js";

/** All pieces in one paragraph, each on one line of thought, with a space between them, or what was asked for. */
export const joined: Layout = {
  lay: layJoined,
  isTable: false,
  between: "any",
  renamesColumns: false,
};

function layJoined(pieces: readonly Piece[], { between = "space" }: LayoutOptions): LaidOut {
  const separator = paragraph(betweenText(between)).runs;
  const runs: Run[] = [];
  pieces.forEach(({ content }, index) => {
    if (index > 0) for (const run of separator) runs.push(run);
    for (const run of inlineOf(content)) runs.push(run);
  });
  return {
    content: runs.length === 0 ? [] : [{ type: "paragraph", runs: mergeRuns(runs) }],
    notices: dividersLeftOut(pieces.map(({ content }) => content)),
  };
}
