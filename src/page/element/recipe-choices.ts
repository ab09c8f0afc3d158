import type { LayoutName } from "../../compose/layouts/index.js";
import type { Citation, StyleName } from "../../compose/options.js";
import type { Recipe } from "../../compose/recipe.js";

/** What can be chosen in the sentence that says what is placed and how, and what recipe that makes. */

/** The ways to tidy of which the sentence says one. */
const TIDY_CHOICES = ["edges", "lines", "repeats", "rejoin", "tables", "none"] as const;
type TidyChoice = (typeof TIDY_CHOICES)[number];

/** What the sentence says. */
export interface SentenceChoices {
  readonly as: LayoutName;
  readonly style: StyleName;
  readonly tidy: TidyChoice;
  readonly cite: Citation;
}

/** What it says before anybody has changed a word. */
export const DEFAULT_CHOICES: SentenceChoices = { as: "sequence", style: "own", tidy: "edges", cite: "none" };

/** The recipe that the sentence says. */
export function recipeOfChoices({ as, style, tidy, cite }: SentenceChoices): Recipe {
  return { as, style, cite, tidy: tidy === "none" ? [] : tidy === "edges" ? ["edges"] : ["edges", tidy] };
}

/** What the sentence says for a recipe, and what of the recipe it has no words for. */
export function choicesOf({ as, style, tidy, cite, ...others }: Recipe): {
  readonly choices: SentenceChoices;
  readonly others: Recipe;
} {
  const added = tidy?.filter((each) => each !== "edges") ?? [];
  const said = added.find((each) => (TIDY_CHOICES as readonly string[]).includes(each)) as
    TidyChoice | undefined;
  const choices = {
    as: as ?? DEFAULT_CHOICES.as,
    style: style ?? DEFAULT_CHOICES.style,
    tidy: tidy?.length === 0 ? ("none" as const) : (said ?? "edges"),
    cite: cite ?? DEFAULT_CHOICES.cite,
  };
  // The sentence has a word for one way to tidy; of several it says the first, and all are kept.
  const isMore =
    added.length > (said === undefined ? 0 : 1) || (tidy?.length ?? 0) > 0 !== tidy?.includes("edges");
  return { choices, others: isMore && tidy !== undefined ? { ...others, tidy } : others };
}
