import type { Content } from "../content/model.js";
import { withoutNotices, type LaidOut } from "./layout.js";
import { joinedOn, loneCell, sequence } from "./layouts/sequence.js";
import { betweenText } from "./options.js";
import { tidyEdges } from "./tidy.js";

/**
 * Content with more at its end. Line ends between them make it the next flow; any other text between them makes the last
 * line run on, where both it and what is added are lines of text, or cells that hold one.
 */
export function appended(content: Content, more: Content, between = "newline"): LaidOut {
  const [before, after] = [loneCell(tidyEdges(content)), loneCell(tidyEdges(more))];
  const text = betweenText(between);
  if (before.length === 0 || after.length === 0) return withoutNotices([...before, ...after]);
  if (text.includes("\n")) return sequence.lay([{ content: before }, { content: after }], { between });
  const joined = joinedOn(before, after, text);
  if (joined) return withoutNotices([...before.slice(0, -1), ...joined]);
  return sequence.lay([{ content: before }, { content: after }], { between });
}
