import type { Command } from "commander";
import { Recipes } from "../../drawer/recipes.js";
import { type CommonOptions } from "../answer.js";
import { columns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { describeRecipe } from "../recipe-words.js";
import { print, printJson } from "../terminal.js";

/** `drawer recipes`: the recipes kept with the drawer. */
export function add(program: Command): void {
  begin(program, "recipes", "the recipes kept with the drawer").action(async (options: CommonOptions) => {
    const kept = await withDrawer(options.drawer, async (drawer) => {
      const recipes = new Recipes(drawer);
      return Promise.all(
        (await recipes.names()).map(async (name) => ({ name, recipe: await recipes.get(name) })),
      );
    });
    if (options.json) printJson({ recipes: kept, notices: [] });
    else if (kept.length === 0) print(`No recipes are kept in the drawer “${options.drawer}”.\n`);
    else
      for (const line of columns(
        kept.map(({ name, recipe }) => [name, describeRecipe(recipe)]),
        1,
      ))
        print(line + "\n");
  });
}
