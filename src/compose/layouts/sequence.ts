import { isBlank } from "../../content/measure.js";
import type { Content } from "../../content/model.js";
import type { Layout } from "../layout.js";

/** Each piece as it is, one after another. A lone cell gives its text: nobody wants a table of one cell on a page. */
export const sequence: Layout = (pieces) => ({
  content: pieces.flatMap((piece) => loneCell(piece.content)),
  notices: [],
});

function loneCell(content: Content): Content {
  const [only, ...rest] = content;
  if (rest.length > 0 || only?.type !== "table" || only.rows.length !== 1 || only.caption) return content;
  const [cell, ...others] = only.rows[0]!;
  return cell && others.length === 0 && !isBlank(cell.flows) ? cell.flows : content;
}
