import type { Recipe } from "../../compose/recipe.js";
import { checkText } from "../../content/check.js";
import { hasControls } from "../../content/controls.js";
import { DrawerError } from "../../content/error.js";
import { actErrors } from "../../messages/en/acts.js";
import { readValue, VALUES } from "../model/values.js";
import { valueEdits, type Context, type Operation, type Procedure } from "../transaction.js";

/** The names of the recipes that are kept with the drawer, in order. */
export const recipes: Procedure<[], Promise<string[]>> = {
  async run({ store, drawer }) {
    const names = await store.valueNames(drawer, VALUES.recipe);
    return names.map((name) => name.slice(VALUES.recipe.length));
  },
};

/**
 * A recipe by its name.
 * @throws DrawerError `nothing` when there is none of that name
 */
export const recipe: Procedure<[name: string], Promise<Recipe>> = {
  async run(context, name) {
    const text = await textOf(context, name);
    const kept = readValue<Recipe>(text, () => true);
    if (kept) return kept;
    throw new DrawerError(actErrors, "nothing/recipe", {
      name,
      drawer: context.drawer,
      names: await recipes.run(context),
    });
  },
};

/**
 * Keeps a recipe under a name, in place of the one that had it. Returns whether there was one.
 * @throws DrawerError `bad-option` when the name is not one short word, and for a recipe that cannot be done
 */
export const saveRecipe: Operation<[name: string, recipe: Recipe], boolean> = {
  name: "recipe",
  async plan(transaction, name, made) {
    checkText("name", name);
    const { checkRecipe } = await import("../../compose/check-recipe.js");
    checkRecipe(made);
    if (!/^\S{1,60}$/.test(name) || hasControls(name))
      throw new DrawerError(actErrors, "bad-option/recipe-name", {});
    const before = await textOf(transaction, name);
    const values = valueEdits(VALUES.recipe + name, before, JSON.stringify(made));
    return { values, result: before !== undefined };
  },
};

/**
 * Takes a recipe away. Returns what it was.
 * @throws DrawerError `nothing` when there is none of that name
 */
export const removeRecipe: Operation<[name: string], Recipe> = {
  name: "recipe",
  async plan(transaction, name) {
    const result = await recipe.run(transaction, name);
    return { values: valueEdits(VALUES.recipe + name, await textOf(transaction, name), undefined), result };
  },
};

async function textOf({ store, drawer }: Context, name: string): Promise<string | undefined> {
  checkText("name", name);
  return store.value(drawer, VALUES.recipe + name);
}
