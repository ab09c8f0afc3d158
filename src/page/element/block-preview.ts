import type { Block } from "../../compose/block.js";
import type { Fit } from "../../compose/options.js";
import type { Recipe } from "../../compose/recipe.js";
import type { Suggestion } from "../../compose/suggest.js";
import { masked, withContent, type Snippet } from "../../drawer/snippets.js";
import type { Positioned } from "../../drawer/store.js";
import type { ShownBlock } from "../binding/blocks.js";
import { blocks, composed } from "../binding/lazy.js";
import type { ListViewModel, SnippetScope } from "./list-view-model.js";

/** How many snippets are shown as they will land; more are placed, but nobody reads so far. */
const SHOWN = 60;

/** What tells blocks apart: how they are laid out, and of what. */
const keyOf = (recipe: Recipe, chosen: readonly Positioned[]) => JSON.stringify([recipe, chosen]);

/** The block of what is chosen, as it will land: shown with what is private masked, and made whole when it is placed. */
export class BlockPreview {
  /** What lands: of what is chosen, as much as is shown. */
  block: Block | undefined;
  /** What is shown of it. */
  shown: ShownBlock | undefined;
  /** What the pieces ask for. */
  suggestion: Suggestion | undefined;
  #composing = 0;
  /** What the block was made of: the recipe, and what was chosen. */
  #madeOf = "";
  /** The snippets that it was made of, by their contents. */
  #snippets: ReadonlyMap<string, Snippet> = new Map();
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
  refresh(which: SnippetScope): Promise<void> {
    this.#ready = this.#compose(which);
    return this.#ready;
  }

  /** Settles when the block is the one of what is chosen, or could not be made. */
  get ready(): Promise<void> {
    return this.#ready.catch(() => undefined);
  }

  async #compose(which: SnippetScope): Promise<void> {
    const composing = ++this.#composing;
    const recipe = this.recipe();
    const chosen = await this.list.chosen(which, SHOWN);
    if (composing !== this.#composing) return;
    const madeOf = keyOf(recipe, chosen);
    if (madeOf === this.#madeOf) return;
    const [snippets, { compose, shownOf, suggest }] = await Promise.all([this.#read(chosen), blocks()]);
    if (composing !== this.#composing) return;
    const pieces = snippets.map(masked);
    const block = compose(pieces, recipe);
    this.#madeOf = madeOf;
    this.#snippets = new Map(snippets.map((snippet) => [snippet.entry.content, snippet]));
    this.block = block;
    this.shown = shownOf(block);
    this.suggestion = suggest(pieces, recipe);
    this.changed();
  }

  /** Reads what was chosen; what it was made of before is at hand, because a content never changes. */
  async #read(chosen: readonly Positioned[]): Promise<Snippet[]> {
    const unread = chosen.filter(({ entry }) => !this.#snippets.has(entry.content));
    const read = new Map((await this.list.drawer.read(unread)).map((one) => [one.entry.content, one]));
    return chosen.map((one) =>
      withContent(one, (read.get(one.entry.content) ?? this.#snippets.get(one.entry.content))!),
    );
  }

  /** How many of the chosen snippets are not shown. */
  notShown(which: SnippetScope): number {
    return Math.max(0, this.list.chosenCount(which) - SHOWN);
  }

  /**
   * The whole block of what is chosen, as it is placed: the one that is shown, when it is made of just that and nothing in it
   * is masked. What is shown may be older than what is chosen, when something has come since.
   * @param fit what it lands in
   */
  async whole(chosen: readonly Positioned[], fit: Fit): Promise<Block> {
    // Why it could not be shown was told then; it may be that it can be made now.
    await this.ready;
    const recipe = { ...this.recipe(), fit };
    const isOpen = chosen.length <= SHOWN && chosen.every(({ entry }) => !entry.private);
    if (isOpen && this.block && this.#madeOf === keyOf(recipe, chosen)) return this.block;
    return composed(await this.list.drawer.read(chosen), recipe);
  }
}
