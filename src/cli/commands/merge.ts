import type { Command } from "commander";
import { answer, listed, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "../recipe-options.js";

/** `drawer merge PICK [recipe]`: makes one snippet of several. */
export function add(program: Command): void {
  addRecipeOptions(begin(program, "merge", "<pick...>")).action(
    async (pick: readonly string[], options: CommonOptions & RecipeOptions) => {
      const recipe = recipeOf(options);
      const { collected, notices } = await withDrawer(options.drawer, (drawer) =>
        drawer.merge(pick.join(" "), recipe),
      );
      answer(options, notices, { collected: collected.map(listed) });
    },
  );
}
