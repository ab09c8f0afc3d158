import type { Command } from "commander";
import type { Recipe } from "../../compose/recipe.js";
import { Recipes } from "../../drawer/recipes.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "../recipe-options.js";
import { describeRecipe } from "../recipe-words.js";

/** `drawer recipe save|show|remove NAME`: recipes kept with the drawer. */
export function add(program: Command): void {
  const recipe = program.command("recipe").description("keep, show and remove named recipes");
  addRecipeOptions(begin(recipe, "save <name>", "keep a recipe under a name")).action(
    async (name: string, options: CommonOptions & RecipeOptions) => {
      const made = recipeOf(options);
      const replaced = await withDrawer(options.drawer, (drawer) => new Recipes(drawer).save(name, made));
      const message = `Kept the recipe “${name}”${replaced ? ", in place of the one before" : ""}: ${describeRecipe(made)}.`;
      answer(options, [{ code: "recipe", message }]);
    },
  );
  const say = (name: string, options: CommonOptions, made: Recipe, message: string) =>
    answer(options, [{ code: "recipe", message: `${message} “${name}”: ${describeRecipe(made)}.` }], {
      name,
      recipe: made,
    });
  begin(recipe, "show <name>", "show a recipe").action(async (name: string, options: CommonOptions) => {
    say(
      name,
      options,
      await withDrawer(options.drawer, (drawer) => new Recipes(drawer).get(name)),
      "The recipe",
    );
  });
  begin(recipe, "remove <name>", "remove a recipe").action(async (name: string, options: CommonOptions) => {
    say(
      name,
      options,
      await withDrawer(options.drawer, (drawer) => new Recipes(drawer).remove(name)),
      "Removed the recipe",
    );
  });
}
