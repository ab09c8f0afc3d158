import { DrawerError } from "../content/error.js";
import { argumentErrors } from "../messages/en/content.js";

/** Whose look the block has: the source's, the place's where it lands, or none. */
export const STYLES = ["own", "host", "bare"] as const;
/**
 * What is tidied: the edges of pieces, blank lines inside, runs of spaces, repeated lines, lines broken by hard ends; and rows of one
 * table that follow each other as pieces.
 */
export const TIDYINGS = ["edges", "lines", "spaces", "repeats", "rejoin", "tables"] as const;
/** How it is said where each piece came from. */
export const CITATIONS = ["none", "inline", "notes", "list"] as const;
/** What the block lands in. */
export const FITS = ["page", "plain", "line", "cell", "cells", "address"] as const;

/** Whether the first rows of tables name their columns, where their sources do not say. */
export const HEADERS = ["yes", "no"] as const;

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

/** The text that stands between pieces, by its name or as it is. */
export function betweenText(between: string): string {
  return BETWEENS[between] ?? between;
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
  throw new DrawerError(argumentErrors, "bad-option/name", { what, name, names });
}
