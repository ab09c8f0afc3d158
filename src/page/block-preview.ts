import type { Block } from "../compose/block.js";
import { compose } from "../compose/compose.js";
import type { Recipe } from "../compose/recipe.js";
import { masked } from "../drawer/selection.js";
import type { ListViewModel, Selection } from "./list-view-model.js";

/** How many snippets are shown as they will land; more are placed, but nobody reads so far. */
const SHOWN = 60;

/** The block of what is chosen, as it will land: shown with what is private masked, and made whole when it is placed. */
export class BlockPreview {
  /** What lands: of what is chosen, as much as is shown. */
  block: Block | undefined;
  #composing = 0;
  /** Settles when the block is the one of what is chosen. */
  #ready: Promise<void> = Promise.resolve();

  /**
   * @param recipe tells how it is laid out now
   * @param changed is called when the block is another one
   */
  constructor(
    readonly list: ListViewModel,
    readonly recipe: () => Recipe,
    readonly changed: () => void,
  ) {}

  /**
   * Composes what is shown; of several composings under way only the last one counts.
   * @throws DrawerError `no-position` and others, where a snippet was forgotten between being listed and being read
   */
  refresh(which: Selection): Promise<void> {
    this.#ready = this.#compose(which);
    return this.#ready;
  }

  async #compose(which: Selection): Promise<void> {
    const composing = ++this.#composing;
    const snippets = await this.list.drawer.read(await this.list.chosen(which, SHOWN));
    if (composing !== this.#composing) return;
    this.block = compose(snippets.map(masked), this.recipe());
    this.changed();
  }

  /** How many of the chosen snippets are not shown. */
  notShown(which: Selection): number {
    return Math.max(0, this.list.chosenCount(which) - SHOWN);
  }

  /** The whole block, as it is placed: the one that is shown, when that is all and nothing in it is masked. */
  async whole(which: Selection): Promise<Block> {
    await this.#ready;
    const chosen = await this.list.chosen(which);
    const isShown = this.block && chosen.length <= SHOWN && chosen.every(({ entry }) => !entry.private);
    return isShown ? this.block! : compose(await this.list.drawer.read(chosen), this.recipe());
  }
}
