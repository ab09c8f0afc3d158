import type { Command } from "commander";
import type { Recipe } from "../../compose/recipe.js";
import { answers } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { answerWith, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "../recipe-options.js";
import { describeRecipe } from "../recipe-words.js";

/** `drawer recipe save|show|remove NAME`: recipes kept with the drawer. */
export function add(program: Command): void {
  const command = program.command("recipe").description(commands.recipe.about);
  const tell = (
    options: CommonOptions,
    name: string,
    recipe: Recipe,
    sentence: (data: { name: string; recipe: string }) => string,
  ) => answerWith(options, "recipe", sentence({ name, recipe: describeRecipe(recipe) }), { name, recipe });
  addRecipeOptions(begin(command, "recipe save", "<name>")).action(
    async (name: string, options: CommonOptions & RecipeOptions) => {
      const made = recipeOf(options);
      const isReplaced = await withDrawer(options.drawer, (drawer) => drawer.saveRecipe(name, made));
      tell(options, name, made, (data) => answers.recipeKept({ ...data, isReplaced }));
    },
  );
  begin(command, "recipe show", "<name>").action(async (name: string, options: CommonOptions) => {
    tell(options, name, await withDrawer(options.drawer, (drawer) => drawer.recipe(name)), answers.recipe);
  });
  begin(command, "recipe remove", "<name>").action(async (name: string, options: CommonOptions) => {
    const removed = await withDrawer(options.drawer, (drawer) => drawer.removeRecipe(name));
    tell(options, name, removed, answers.recipeRemoved);
  });
}
