import { DrawerError } from "../content/error.js";
import { contentErrors } from "../messages/en/errors/content.js";

/** How a block is laid out. */
export const LAYOUTS = [
  "sequence",
  "lines",
  "joined",
  "sentence",
  "bullets",
  "numbers",
  "rows",
  "columns",
  "pairs",
  "link",
  "quotes",
] as const;
/** Whose look the block has: the source's, the place's where it lands, or none. */
export const STYLES = ["own", "host", "bare"] as const;
/** What is tidied: the edges of pieces, blank lines inside, runs of spaces, repeated lines, lines broken by hard ends. */
export const TIDYINGS = ["edges", "lines", "spaces", "repeats", "rejoin"] as const;
/** How it is said where each piece came from. */
export const CITATIONS = ["none", "inline", "notes", "list"] as const;
/** What the block lands in. */
export const FITS = ["page", "plain", "line", "cell", "cells", "address"] as const;

/** Whether the first rows of tables name their columns, where their sources do not say. */
export const HEADERS = ["yes", "no"] as const;

/** The name of a layout. */
export type LayoutName = (typeof LAYOUTS)[number];
/** Whose look a block has. */
export type StyleName = (typeof STYLES)[number];
/** What is tidied in each piece. */
export type Tidying = (typeof TIDYINGS)[number];
/** How a block says where each piece came from. */
export type Citation = (typeof CITATIONS)[number];
/** What a block lands in. */
export type Fit = (typeof FITS)[number];
/** Whether the first rows of tables are headers. */
export type HeaderChoice = (typeof HEADERS)[number];

/** Names of what can stand between pieces, and the text that each is. */
export const BETWEENS: Readonly<Record<string, string>> = {
  newline: "\n",
  blank: "\n\n",
  space: " ",
  comma: ", ",
  semicolon: "; ",
  tab: "\t",
  nothing: "",
};

/** How a block is made of the snippets that were picked. Whatever is absent has its default. */
export interface Recipe {
  /** How it is laid out; `sequence` (each as it is, one after another). */
  readonly as?: LayoutName;
  /** What stands between the pieces: a name of {@link BETWEENS}, or any text. Each layout has a default of its own. */
  readonly between?: string;
  /** Whose look; `own`. */
  readonly style?: StyleName;
  /** What is tidied besides the edges; an empty list tidies nothing, not even the edges. `["edges"]`. */
  readonly tidy?: readonly Tidying[];
  /** How sources are named; `none`. */
  readonly cite?: Citation;
  /**
   * Whether the first row of each table of several rows, and of the first table of all, names its columns (`yes`) or no
   * row does (`no`); told from their sources and from the names.
   */
  readonly header?: HeaderChoice;
  /** With `rows`: what columns are called in the block, by what they are called in the pieces. */
  readonly columns?: Readonly<Record<string, string>>;
  /** What it lands in; `page`. */
  readonly fit?: Fit;
  /** Text before each piece. */
  readonly before?: string;
  /** Text after each piece. */
  readonly after?: string;
  /** The language whose words and signs join a sentence (BCP 47); the program's own. */
  readonly locale?: string;
}

/** Layouts in which a table's columns go on standing under others. */
export const TABULAR: readonly LayoutName[] = ["rows", "columns", "pairs"];

/** Layouts in which any text may stand between the pieces, on the same line too. */
const ON_ONE_LINE: readonly LayoutName[] = ["sequence", "joined", "sentence"];

/**
 * Checks that a layout can do what a recipe says besides.
 * @throws DrawerError `bad-option` for what would do nothing
 */
export function checkApplies(recipe: Recipe, as: LayoutName): void {
  if (recipe.between !== undefined && !takesBetween(as, recipe.between)) {
    const instead = as === "lines" ? "lines" : "none";
    throw new DrawerError(contentErrors, "bad-option/between", { as, between: recipe.between, instead });
  }
  if (recipe.columns !== undefined && as !== "rows")
    throw new DrawerError(contentErrors, "bad-option/columns", { as });
}

function takesBetween(as: LayoutName, between: string): boolean {
  if (ON_ONE_LINE.includes(as) || betweenText(between) === "\n") return true;
  return as === "lines" && !runsOn(between);
}

/** A recipe without what another layout would have no use for. */
export function recipeFor(recipe: Recipe, as: LayoutName): Recipe {
  const { between, columns, ...others } = recipe;
  return {
    ...others,
    as,
    ...(between !== undefined && takesBetween(as, between) && { between }),
    ...(columns !== undefined && as === "rows" && { columns }),
  };
}

/** Whether pieces with this between them go on on the same line; other texts without a line end stand on one of their own. */
export function runsOn(between: string): boolean {
  const text = betweenText(between);
  return !text.includes("\n") && (text.trim() === "" || Object.values(BETWEENS).includes(text));
}

/**
 * Checks that a word is one of those that may stand there.
 * @throws DrawerError `bad-option` when it is not
 */
export function oneOf<Name extends string>(what: string, names: readonly Name[], name: string): Name {
  const found = names.find((known) => known === name);
  if (found !== undefined) return found;
  throw new DrawerError(contentErrors, "bad-option/name", { what, name, names });
}

/** The name of a layout, checked. */
export function layoutName(name: string): LayoutName {
  return oneOf("layout", LAYOUTS, name);
}

/** The text that stands between pieces, by its name or as it is. */
export function betweenText(between: string): string {
  return BETWEENS[between] ?? between;
}
