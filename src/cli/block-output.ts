import { basename } from "node:path";
import type { Block } from "../compose/block.js";
import { recipeFor } from "../compose/check-recipe.js";
import { compose } from "../compose/compose.js";
import { type Recipe } from "../compose/recipe.js";
import { suggest, type Suggestion } from "../compose/suggest.js";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import {
  extensionOf,
  findWrittenFormat,
  formatOf,
  WRITTEN_FORMATS,
  type FormatName,
} from "../formats/registry.js";
import { contentErrors } from "../messages/en/content.js";
import { UsageError } from "./refusal.js";

/** A block, of how many snippets it is, and whether one of them is private. */
export interface Composed {
  readonly block: Block;
  readonly count: number;
  readonly isPrivate: boolean;
  /** What was left out of it. */
  readonly notices: readonly Notice[];
}

/**
 * Makes a block of a pick by a recipe as it was typed, which changes one that is kept, if a name was given. `suggest` tells what the
 * pieces ask for.
 */
export async function blockOf(
  drawer: Drawer,
  pick: string,
  typed: Recipe,
  name: string | undefined,
): Promise<Composed & { readonly suggest: () => Suggestion | undefined }> {
  const { snippets, notices } = await drawer.snippetsToGiveOut(pick);
  const recipe = await recipeFrom(drawer, typed, name);
  return {
    block: compose(snippets, recipe),
    suggest: () => suggest(snippets, recipe),
    count: snippets.length,
    isPrivate: snippets.some(({ entry }) => entry.private),
    notices,
  };
}

/** A recipe as it was typed, which changes one that is kept, if a name was given. */
export async function recipeFrom(drawer: Drawer, typed: Recipe, name: string | undefined): Promise<Recipe> {
  const kept = name === undefined ? {} : await drawer.recipe(name);
  const fitting = typed.as === undefined ? kept : recipeFor(kept, typed.as);
  return { ...fitting, ...typed };
}

/**
 * The format that is wanted: as it was said, as the file's ending says, or text.
 * @throws UsageError `bad-option`
 * @throws DrawerError `unknown-format`
 */
export function outputFormat(out: string | undefined, to: string | undefined): FormatName {
  if (out !== undefined) {
    const said = findWrittenFormat(out);
    if (said) return said;
    throw new UsageError("bad-option/out", { out, outputs: WRITTEN_FORMATS });
  }
  if (to === undefined) return "text";
  const found = findWrittenFormat(extensionOf(to) ?? "");
  if (found) return found;
  const endings = WRITTEN_FORMATS.map((name) => `.${formatOf(name).extensions[0]}`);
  throw new DrawerError(contentErrors, "unknown-format/write", { file: to, endings });
}

/** The title of a file that a block is put into: its name without the ending. */
export function titleOf(path: string): string {
  return basename(path).replace(/\.[^.]+$/, "");
}
