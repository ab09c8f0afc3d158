import type { Command } from "commander";
import { answers } from "../../messages/en/cli-answers.js";
import { type CommonOptions } from "../answer.js";
import { columns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { describeRecipe } from "../recipe-words.js";
import { print, printJson } from "../terminal.js";

/** `drawer recipes`: the recipes kept with the drawer. */
export function add(program: Command): void {
  begin(program, "recipes").action(async (options: CommonOptions) => {
    const kept = await withDrawer(options.drawer, async (drawer) => {
      const names = await drawer.recipes();
      return Promise.all(names.map(async (name) => ({ name, recipe: await drawer.recipe(name) })));
    });
    if (options.json) printJson({ recipes: kept, notices: [] });
    else if (kept.length === 0) print(`${answers.noRecipes(options)}\n`);
    else
      for (const line of columns(
        kept.map(({ name, recipe }) => [name, describeRecipe(recipe)]),
        1,
      ))
        print(line + "\n");
  });
}
