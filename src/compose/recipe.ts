import { DrawerError } from "../content/error.js";

/** How a block is laid out. */
export const LAYOUTS = [
  ...(["sequence", "lines", "joined", "sentence", "bullets", "numbers"] as const),
  ...(["rows", "columns", "pairs", "link", "quotes"] as const),
] as const;
/** Whose look the block has: the source's, the place's where it lands, or none. */
export const STYLES = ["own", "host", "bare"] as const;
/** What is tidied: the edges of pieces, blank lines inside, runs of spaces, repeated lines, lines broken by hard ends. */
export const TIDYINGS = ["edges", "lines", "spaces", "repeats", "rejoin"] as const;
/** How it is said where each piece came from. */
export const CITATIONS = ["none", "inline", "notes", "list"] as const;
/** What the block lands in. */
export const FITS = ["page", "plain", "line", "cell", "cells", "address"] as const;

export type LayoutName = (typeof LAYOUTS)[number];
export type StyleName = (typeof STYLES)[number];
export type Tidying = (typeof TIDYINGS)[number];
export type Citation = (typeof CITATIONS)[number];
export type Fit = (typeof FITS)[number];

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
  /** What it lands in; `page`. */
  readonly fit?: Fit;
  /** Text before each piece. */
  readonly before?: string;
  /** Text after each piece. */
  readonly after?: string;
  /** The language whose words and signs join a sentence (BCP 47); the program's own. */
  readonly locale?: string;
}

/**
 * Checks that a word is one of those that may stand there.
 * @throws DrawerError `bad-option` when it is not
 */
export function oneOf<Name extends string>(what: string, names: readonly Name[], name: string): Name {
  const found = names.find((known) => known === name);
  if (found !== undefined) return found;
  throw new DrawerError("bad-option", `There is no ${what} “${name}”. There is: ${names.join(", ")}.`);
}

/** The name of a layout, checked. */
export function layoutName(name: string): LayoutName {
  return oneOf("layout", LAYOUTS, name);
}

/** The text that stands between pieces, by its name or as it is. */
export function betweenText(between: string): string {
  return BETWEENS[between] ?? between;
}
