import { checkOptions, checkText, checkValue } from "../content/check.js";
import { DrawerError } from "../content/error.js";
import { contentErrors } from "../messages/en/content.js";
import { LAYOUTS, layouts, type LayoutName } from "./layouts/index.js";
import {
  betweenText,
  CITATIONS,
  FITS,
  HEADERS,
  oneOf,
  runsOn,
  STYLES,
  TIDYINGS,
  type Citation,
  type Fit,
  type HeaderChoice,
  type StyleName,
  type Tidying,
} from "./options.js";
import type { Recipe } from "./recipe.js";

/** A recipe with its defaults. */
export interface CheckedRecipe {
  readonly as: LayoutName;
  readonly style: StyleName;
  readonly tidy: readonly Tidying[];
  readonly cite: Citation;
  readonly fit: Fit;
  readonly header: HeaderChoice | undefined;
  readonly before: string;
  readonly after: string;
}

/** What is read of each part of a recipe: its value as it may be, or a refusal. The compiler says which is forgotten. */
const PARTS: { readonly [Name in keyof Required<Recipe>]: (value: never) => unknown } = {
  as: (name: string) => layoutName(name),
  between: (text: unknown) => checkText("between", text),
  style: (name: string) => oneOf("style", STYLES, name),
  tidy: (ways: unknown) => {
    checkValue("tidy", ways, Array.isArray(ways), "a list");
    for (const way of ways as readonly string[]) oneOf("way to tidy", TIDYINGS, way);
  },
  cite: (name: string) => oneOf("way to cite", CITATIONS, name),
  header: (name: string) => oneOf("header", HEADERS, name),
  columns: (names: unknown) => {
    const isRecord = typeof names === "object" && names !== null && !Array.isArray(names);
    const isRight = isRecord && Object.values(names).every((name) => typeof name === "string");
    checkValue("columns", names, isRight, "an object of names");
  },
  fit: (name: string) => oneOf("fit", FITS, name),
  before: (text: unknown) => checkText("before", text),
  after: (text: unknown) => checkText("after", text),
  locale: (text: unknown) => checkText("locale", text),
};

/**
 * Checks a recipe: that each part is one that there is, with a value that it may have, and that its layout can do it.
 * Returns it with its defaults.
 * @throws DrawerError `bad-option` for what is unknown, or would do nothing
 */
export function checkRecipe(recipe: Recipe): CheckedRecipe {
  checkOptions("part of a recipe", recipe, Object.keys(PARTS));
  for (const [name, value] of Object.entries(recipe))
    if (value !== undefined) (PARTS[name as keyof Recipe] as (value: unknown) => unknown)(value);
  const { as = "sequence", style = "own", tidy = ["edges"], cite = "none", fit = "page" } = recipe;
  const { between, columns, header, before = "", after = "" } = recipe;
  const layout = layouts[as];
  if (between !== undefined && !takesBetween(as, between)) {
    const instead = layout.between === "lines" ? "lines" : "none";
    throw new DrawerError(contentErrors, "bad-option/between", { as, between, instead });
  }
  if (columns !== undefined && !layout.renamesColumns)
    throw new DrawerError(contentErrors, "bad-option/columns", { as });
  return { as, style, tidy, cite, fit, header, before, after };
}

function takesBetween(as: LayoutName, between: string): boolean {
  const kind = layouts[as].between;
  if (kind === "any" || betweenText(between) === "\n") return true;
  return kind === "lines" && !runsOn(between);
}

/**
 * A recipe without what another layout would have no use for.
 * @param recipe a recipe that was kept
 * @param as the layout that it is to have
 */
export function recipeFor(recipe: Recipe, as: LayoutName): Recipe {
  const { between, columns, ...others } = recipe;
  return {
    ...others,
    as,
    ...(between !== undefined && takesBetween(as, between) && { between }),
    ...(columns !== undefined && layouts[as].renamesColumns && { columns }),
  };
}

/**
 * The name of a layout, checked.
 * @throws DrawerError `bad-option`
 */
export function layoutName(name: string): LayoutName {
  return oneOf("layout", LAYOUTS, name);
}
