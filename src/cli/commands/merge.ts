import type { Command } from "commander";
import { commands } from "../../messages/en/cli-help.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { recipeFrom } from "../block-output.js";
import { begin } from "../command.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "../recipe-options.js";

/** `drawer merge PICK [recipe]`: makes one snippet of several. */
export function add(program: Command): void {
  addRecipeOptions(begin(program, "merge"))
    .option("--recipe <name>", commands.place.recipe)
    .action(async (pick: readonly string[], options: CommonOptions & RecipeOptions & { recipe?: string }) => {
      const typed = recipeOf(options);
      await act(options, async (drawer) => {
        const recipe = await recipeFrom(drawer, typed, options.recipe);
        return (await drawer.merge(pick.join(" "), recipe)).notices;
      });
    });
}
