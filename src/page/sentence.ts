import type { Citation, LayoutName, Recipe, StyleName } from "../compose/recipe.js";

/** The words of the sentence that says what is placed and how; each is a choice. */

/** How layouts are called. */
export const LAYOUT_WORDS: Readonly<Record<LayoutName, string>> = {
  sequence: "they are, one after another",
  lines: "lines",
  joined: "one paragraph",
  sentence: "a sentence",
  bullets: "bullets",
  numbers: "a numbered list",
  rows: "one table",
  columns: "columns side by side",
  pairs: "labels and values",
  link: "links",
  quotes: "quotes with their origins",
};

/** How looks are called. */
export const STYLE_WORDS: Readonly<Record<StyleName, string>> = {
  own: "their own look",
  host: "the page’s look",
  bare: "plain words",
};

/** How ways of tidying are called, and what each is in a recipe. */
export const TIDY_WORDS = {
  edges: "tidied at the edges",
  lines: "without blank lines",
  repeats: "without repeats",
  rejoin: "with broken lines rejoined",
  none: "untouched",
} as const;

/** How ways of naming sources are called. */
export const CITE_WORDS: Readonly<Record<Citation, string>> = {
  none: "without sources",
  inline: "with sources in brackets",
  notes: "with numbered notes",
  list: "with a list of sources",
};

/** What the sentence says. */
export interface SentenceChoices {
  readonly as: LayoutName;
  readonly style: StyleName;
  readonly tidy: keyof typeof TIDY_WORDS;
  readonly cite: Citation;
}

/** What it says before anybody has changed a word. */
export const DEFAULT_CHOICES: SentenceChoices = { as: "sequence", style: "own", tidy: "edges", cite: "none" };

/** The recipe that the sentence says. */
export function recipeOfChoices({ as, style, tidy, cite }: SentenceChoices): Recipe {
  return { as, style, cite, tidy: tidy === "none" ? [] : tidy === "edges" ? ["edges"] : ["edges", tidy] };
}
