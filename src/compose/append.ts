import { paragraph, type Content, type Paragraph } from "../content/model.js";
import { mergeRuns } from "../content/table.js";
import { sequence } from "./layouts/sequence.js";
import { betweenText } from "./recipe.js";
import { tidyEdges } from "./tidy.js";

/**
 * Content with more at its end. Line ends between them make it the next flow; any other text between them makes the last
 * line run on, where both it and what is added are lines of text.
 */
export function appended(content: Content, more: Content, between = "newline"): Content {
  const pieces = [tidyEdges(content), tidyEdges(more)].filter((piece) => piece.length > 0);
  const [before = [], after = []] = pieces;
  const text = betweenText(between);
  const last = before.at(-1);
  const [first, ...rest] = after;
  if (text.includes("\n") || !isLine(last) || !isLine(first)) {
    return sequence(
      pieces.map((piece) => ({ content: piece })),
      { between },
    ).content;
  }
  const runs = mergeRuns([...last.runs, ...paragraph(text).runs, ...first.runs]);
  return [...before.slice(0, -1), { ...last, runs }, ...rest];
}

function isLine(flow: Content[number] | undefined): flow is Paragraph {
  return flow?.type === "paragraph";
}
