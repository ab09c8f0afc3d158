import type { Block } from "../../compose/block.js";
import type { Fit } from "../../compose/options.js";
import type { Recipe } from "../../compose/recipe.js";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { pickOf } from "../../drawer/model/pick.js";
import type { Positioned } from "../../drawer/store.js";
import { many } from "../../messages/core/page-sentences.js";
import { refusalFor } from "../binding/actions.js";
import type { PlaceRequest } from "../binding/placements.js";
import { BlockPreview } from "./block-preview.js";
import type { DrawerHost } from "./drawer-host.js";
import type { ListViewModel, SnippetScope } from "./list-view-model.js";
import { choicesOf, DEFAULT_CHOICES, recipeOfChoices, type SentenceChoices } from "./recipe-choices.js";
import type { RecipeDetails } from "./recipe-details.js";
import { copyBlockOf, placeBlockOf } from "./row-placing.js";

/** How snippets are put down: what the sentence says is placed and how, and the block as it will land. */
export class Composer {
  choices: SentenceChoices = DEFAULT_CHOICES;
  which: SnippetScope = "all";
  /** What of a kept recipe the sentence has no words for. */
  #others: Recipe = {};
  /** What it lands in, where the user has said so. */
  #fit: Fit | undefined;
  /** The block as it will land. */
  preview: BlockPreview | undefined;
  /** Why the block cannot be shown. */
  notShown: string | undefined;

  constructor(readonly host: DrawerHost) {}

  /** Follows another drawer. */
  follow(viewModel: ListViewModel): void {
    this.preview = new BlockPreview(
      viewModel,
      () => this.#forPlace(),
      () => this.host.requestUpdate(),
    );
  }

  /** The recipe that the sentence says. */
  get recipe(): Recipe {
    return { ...recipeOfChoices(this.choices), ...this.#others };
  }

  set recipe(recipe: Recipe) {
    const { choices, others } = choicesOf(recipe);
    const { fit: _, ...kept } = others;
    this.chooseRecipe(choices);
    this.#others = kept;
    void this.compose();
  }

  #forPlace(): Recipe {
    return { ...this.recipe, fit: this.#fit ?? this.host.binding?.target?.fit ?? "page" };
  }

  /** Changes words of the sentence. */
  chooseRecipe(choices: SentenceChoices): void {
    // Another layout has no use for what was said for the one before.
    if (choices.as !== this.choices.as) {
      const { between: _, columns: __, ...others } = this.#others;
      this.#others = others;
    }
    if (choices.tidy !== this.choices.tidy) {
      const { tidy: _, ...others } = this.#others;
      this.#others = others;
    }
    this.choices = choices;
    void this.compose();
  }

  /** What the recipe says beside the sentence. */
  get details(): RecipeDetails {
    return { ...this.#others, fit: this.#fit };
  }

  /** Changes some of that. */
  changeDetails(change: RecipeDetails): void {
    const { fit, ...changes } = { fit: this.#fit, ...change };
    this.#fit = fit;
    this.#others = defined({ ...this.#others, ...changes });
    void this.compose();
  }

  /** Chooses which snippets are placed. */
  choose(which: SnippetScope): void {
    this.which = which;
    void this.compose();
  }

  /** Something else is in sight: what is chosen by that is another. */
  sightChanged(): void {
    this.host.requestUpdate();
    if (this.which !== "found") return;
    if (!this.host.viewModel?.found) this.which = "all";
    void this.compose();
  }

  /** Composes the block for the place it would land in. */
  async compose(): Promise<void> {
    this.host.requestUpdate();
    try {
      await this.preview?.refresh(this.which);
      this.#setNotShown(undefined);
    } catch (error) {
      // A snippet may be forgotten between being listed and being read; the drawer is read again then.
      this.#setNotShown(refusalFor(error).message);
      if (!(error instanceof DrawerError)) throw error;
    }
  }

  #setNotShown(why: string | undefined): void {
    if (why !== this.notShown) this.host.requestUpdate();
    this.notShown = why;
  }

  /** Chooses those that are picked; all, when none is. */
  choosePicked(): void {
    this.choose((this.host.viewModel?.picked.length ?? 0) > 0 ? "picked" : "all");
  }

  /** The look that a lone snippet is placed in. */
  get styleOfOne(): Recipe {
    return defined({ style: this.recipe.style });
  }

  /** How many snippets are chosen. */
  get count(): number {
    return this.host.viewModel?.chosenCount(this.which) ?? 0;
  }

  /** The whole block of what is chosen, as it is placed. */
  readonly whole = async (chosen: readonly Positioned[], fit: Fit): Promise<Block> => {
    const block = await this.preview!.whole(chosen, fit);
    // What could not be shown before can be made by now.
    if (this.notShown !== undefined) void this.compose();
    return block;
  };

  /** What is chosen, in the order in which it is placed, as a request to place it. */
  async request(make = this.whole): Promise<PlaceRequest> {
    const chosen = await this.host.viewModel!.chosen(this.which);
    return {
      ids: chosen.map(({ entry }) => entry.id),
      make: (fit) => make(chosen, this.#fit ?? fit),
      what: many(chosen.length),
    };
  }

  /** Places what the sentence says at the caret; or, on a desktop where none can be reached, copies it. */
  place(): void {
    void placeBlockOf(this.host, this.request());
  }

  copy(): void {
    void copyBlockOf(this.host, this.request());
  }

  /** What is chosen, as a pick. */
  async pick(): Promise<string> {
    return this.which === "all" ? "all" : pickOf(await this.host.viewModel!.chosen(this.which));
  }
}
