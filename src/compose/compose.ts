import type { Content } from "../content/model.js";
import { Block } from "./block.js";
import type { Layout } from "./layout.js";
import { bullets, numbers } from "./layouts/list.js";
import { lines } from "./layouts/lines.js";
import { rows } from "./layouts/rows.js";
import { sequence } from "./layouts/sequence.js";
import { layoutName, type LayoutName, type Recipe } from "./recipe.js";
import { tidyEdges } from "./tidy.js";

/** What composing needs of a snippet. */
export interface Ingredient {
  readonly content: Content;
  /** The bytes of the content's pictures, by hash. */
  readonly pictures?: ReadonlyMap<string, Uint8Array>;
}

/** One file a layout, and this map that names them all. */
const layouts: Readonly<Record<LayoutName, Layout>> = { sequence, lines, bullets, numbers, rows };

/**
 * Makes one block of snippets, in the order given. Nothing of them is lost without a notice in the block, and they are
 * not changed.
 *
 * @throws DrawerError `bad-option` for a recipe that says something unknown
 */
export function compose(snippets: readonly Ingredient[], recipe: Recipe = {}): Block {
  const as = layoutName(recipe.as ?? "sequence");
  const layout = layouts[as];
  const pieces = snippets.map(({ content }) => ({ content: tidyEdges(content, as === "rows") }));
  const { content, notices } = layout(pieces.filter((piece) => piece.content.length > 0));
  const pictures = new Map<string, Uint8Array>();
  for (const snippet of snippets) snippet.pictures?.forEach((bytes, hash) => pictures.set(hash, bytes));
  return new Block(content, notices, (hash) => pictures.get(hash));
}
