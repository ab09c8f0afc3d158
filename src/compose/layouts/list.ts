import type { Content, Flow, Item } from "../../content/model.js";
import { withoutNotices, type LaidOut, type Layout, type Piece } from "../layout.js";
import { linesOf, unaligned } from "./lines-of.js";

/** Every piece is an item of one list with bullets. */
export const bullets: Layout = list(false);

/** Every piece is an item of one numbered list. */
export const numbers: Layout = list(true);

function list(ordered: boolean): Layout {
  return {
    lay: (pieces) => listed(pieces, ordered),
    isTable: false,
    between: "none",
    renamesColumns: false,
  };
}

function listed(pieces: readonly Piece[], ordered: boolean): LaidOut {
  const items = pieces.flatMap((piece) => itemsOf(unaligned(piece.content)));
  return withoutNotices(items.length === 0 ? [] : [{ type: "list", ordered, items }]);
}

/**
 * The items a piece becomes: its first line is the item, what follows stands under it. A piece that is a list gives
 * its own items, one that is a table an item for each row; so no bullet stands before nothing but other bullets.
 */
function itemsOf(content: Content): Item[] {
  if (content.every((flow) => flow.type === "list")) return content.flatMap((flow) => flow.items);
  if (content.every((flow) => flow.type === "table"))
    return linesOf(content).map((line) => ({ flows: [line] }));
  return [{ flows: content.flatMap(itemFlow) }];
}

/** Headings and tables do not stand well in an item: a heading becomes a line, a table a list of its rows. */
function itemFlow(flow: Flow): Content {
  if (flow.type === "heading") return linesOf([flow]);
  if (flow.type !== "table") return [flow];
  return [{ type: "list", ordered: false, items: linesOf([flow]).map((line) => ({ flows: [line] })) }];
}
