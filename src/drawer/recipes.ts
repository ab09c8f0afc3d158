import type { Recipe } from "../compose/recipe.js";
import { hasControls } from "../content/controls.js";
import { DrawerError } from "../content/error.js";
import { perform } from "./act.js";
import type { Drawer } from "./drawer.js";
import { VALUES } from "./values.js";

/** The recipes that are kept with a drawer, by name. */
export class Recipes {
  constructor(readonly drawer: Drawer) {}

  /** Their names, in order. */
  async names(): Promise<string[]> {
    const names = await this.drawer.store.valueNames(this.drawer.name, VALUES.recipe);
    return names.map((name) => name.slice(VALUES.recipe.length));
  }

  /**
   * A recipe by its name.
   * @throws DrawerError `nothing` when there is none of that name
   */
  async get(name: string): Promise<Recipe> {
    const text = await this.#text(name);
    if (text !== undefined) return JSON.parse(text) as Recipe;
    const names = await this.names();
    const kept =
      names.length === 0
        ? "None is kept yet; keep one with “drawer recipe save”."
        : `Kept are: ${names.join(", ")}.`;
    throw new DrawerError(
      "nothing",
      `There is no recipe “${name}” in the drawer “${this.drawer.name}”. ${kept}`,
    );
  }

  /** Keeps a recipe under a name, in place of the one that had it. Gives whether there was one. */
  async save(name: string, recipe: Recipe): Promise<boolean> {
    if (!/^\S{1,60}$/.test(name) || hasControls(name))
      throw new DrawerError("bad-option", "A recipe needs a name of one word, of at most 60 characters.");
    const before = await this.#text(name);
    await this.#change(name, JSON.stringify(recipe));
    return before !== undefined;
  }

  /** Takes a recipe away. Gives what it was. */
  async remove(name: string): Promise<Recipe> {
    const recipe = await this.get(name);
    await this.#change(name, undefined);
    return recipe;
  }

  #text(name: string): Promise<string | undefined> {
    return this.drawer.store.value(this.drawer.name, VALUES.recipe + name);
  }

  /** Changes a recipe as an act of the drawer, which undo takes back. */
  #change(name: string, after: string | undefined): Promise<void> {
    return perform(this.drawer.store, this.drawer.name, "recipe", async () => {
      const before = await this.#text(name);
      const value = {
        name: VALUES.recipe + name,
        ...(before !== undefined && { before }),
        ...(after !== undefined && { after }),
      };
      return { edits: [], values: before === after ? [] : [value] };
    });
  }
}
