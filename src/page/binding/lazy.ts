import type { Block } from "../../compose/block.js";
import type { Piece } from "../../compose/layout.js";
import type { Recipe } from "../../compose/recipe.js";

/**
 * What a page loads when it is first needed. The doors to it are here, so that a bundler makes one file of what is behind each.
 */

/** What reads copies. */
export const readers = () => import("../capture/read-copied.js");

/** What makes blocks. */
export const blocks = () => import("./blocks.js");

/** What fills forms. */
export const forms = () => import("../places/form.js");

/** What reads files. */
export const fileReaders = () => import("../capture/read-files.js");

/** Loads what every user needs sooner or later. Should it not come now, it is asked for again then, and missed aloud. */
export function loadAhead(): void {
  for (const part of [blocks, readers]) part().catch(() => undefined);
}

/**
 * Makes a block of snippets, as `compose` does.
 * @throws DrawerError `bad-option`
 */
export async function composed(snippets: readonly Piece[], recipe: Recipe): Promise<Block> {
  const { compose } = await blocks();
  return compose(snippets, recipe);
}
