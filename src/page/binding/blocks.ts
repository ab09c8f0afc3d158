import { Block } from "../../compose/block.js";
import { compose } from "../../compose/compose.js";
import type { Fit } from "../../compose/options.js";
import type { Recipe } from "../../compose/recipe.js";
import type { Cell, Content, Flow, Table } from "../../content/model.js";
import type { Snippet } from "../../drawer/snippets.js";
import { writeHtml } from "../../formats/html/write.js";

/** What a page makes of snippets. This is the door to composing: a page loads it when it is first needed. */
export { compose };
export { suggest } from "../../compose/suggest.js";

/** How many flows, rows and items of a block are drawn; more are placed, but nobody reads so far. */
const DRAWN = 200;

/** A block as it is shown. */
export interface ShownBlock {
  readonly html: string;
  /** Whether this is not all of the block: one snippet may be as long as a book. */
  readonly isCut: boolean;
}

/** What is shown of a block. */
export function shownOf({ content, picture }: Block): ShownBlock {
  const beginning = cut(content);
  return { html: writeHtml(beginning, { picture }), isCut: beginning !== content };
}

/** The beginning of content; itself when it is short. */
function cut(content: Content): Content {
  const flows = content.slice(0, DRAWN).map((flow): Flow => {
    if (flow.type === "table" && flow.rows.length > DRAWN)
      return { ...flow, rows: flow.rows.slice(0, DRAWN) };
    if (flow.type === "list" && flow.items.length > DRAWN)
      return { ...flow, items: flow.items.slice(0, DRAWN) };
    return flow;
  });
  const isWhole = flows.length === content.length && flows.every((flow, at) => flow === content[at]);
  return isWhole ? content : flows;
}

/** Makes a block in which each snippet has a cell of its own, one below the other or side by side. */
export function blockOfCells(
  snippets: readonly Snippet[],
  way: "down" | "across",
  fit: Fit,
  recipe: Recipe,
): Block {
  const cells = snippets.map((snippet): Cell => {
    const [table] = compose([snippet], { ...recipe, fit: "cell" }).content as readonly Table[];
    return table?.rows[0]?.[0] ?? { flows: [] };
  });
  const rows = way === "down" ? cells.map((cell) => [cell]) : [cells];
  return new Block([{ type: "table", headerRows: 0, rows }], [], undefined, fit);
}
