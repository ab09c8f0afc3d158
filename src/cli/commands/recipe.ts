import type { Command } from "commander";
import type { Recipe } from "../../compose/recipe.js";
import { answers } from "../../messages/en/cli-answers.js";
import { answerWith, type CommonOptions } from "../answer.js";
import { printColumns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "../recipe-options.js";
import { describeRecipe } from "../recipe-words.js";
import { print, printJson } from "../terminal.js";

/** `drawer recipe [save|show|remove NAME]`: recipes kept with the drawer, all of them without more words. */
export function add(program: Command): void {
  // What stands after the name of a command in it is that command's own.
  const command = begin(program, "recipe").enablePositionalOptions().action(list);
  const tell = (
    options: CommonOptions,
    name: string,
    recipe: Recipe,
    sentence: (data: { name: string; recipe: string }) => string,
  ) => answerWith(options, "recipe", sentence({ name, recipe: describeRecipe(recipe) }), { name, recipe });
  addRecipeOptions(begin(command, "recipe save")).action(
    async (name: string, options: CommonOptions & RecipeOptions) => {
      const made = recipeOf(options);
      const isReplaced = await withDrawer(options.drawer, (drawer) => drawer.saveRecipe(name, made));
      tell(options, name, made, (data) => answers.recipeKept({ ...data, isReplaced }));
    },
  );
  begin(command, "recipe show").action(async (name: string, options: CommonOptions) => {
    tell(options, name, await withDrawer(options.drawer, (drawer) => drawer.recipe(name)), answers.recipe);
  });
  begin(command, "recipe remove").action(async (name: string, options: CommonOptions) => {
    const removed = await withDrawer(options.drawer, (drawer) => drawer.removeRecipe(name));
    tell(options, name, removed, answers.recipeRemoved);
  });
}

async function list(options: CommonOptions): Promise<void> {
  const kept = await withDrawer(options.drawer, async (drawer) => {
    const names = await drawer.recipes();
    return Promise.all(names.map(async (name) => ({ name, recipe: await drawer.recipe(name) })));
  });
  if (options.json) return printJson({ recipes: kept, notices: [] });
  if (kept.length === 0) return print(`${answers.noRecipes(options)}\n`);
  const rows = kept.map(({ name, recipe }) => [name, describeRecipe(recipe)]);
  printColumns(rows, 1);
}
