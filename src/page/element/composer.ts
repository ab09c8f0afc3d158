import { html, nothing } from "lit";
import type { Block } from "../../compose/block.js";
import type { Fit } from "../../compose/options.js";
import type { Recipe } from "../../compose/recipe.js";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { pickOf } from "../../drawer/model/pick.js";
import type { Positioned } from "../../drawer/store.js";
import { type FormatName } from "../../formats/registry.js";
import { page, many, suggestions } from "../../messages/core/page-sentences.js";
import { refusalFor } from "../binding/actions.js";
import type { DesktopTarget, NextKey } from "../binding/host-desktop.js";
import { blocks } from "../binding/lazy.js";
import type { PlaceRequest } from "../binding/placements.js";
import { carryBlock } from "../places/carrying.js";
import { BlockPreview } from "./block-preview.js";
import { dealBar } from "./deal-bar.js";
import { eachChoice, returnChoice } from "./desktop-choices.js";
import type { DrawerHost } from "./drawer-host.js";
import { landing } from "./landing.js";
import type { ListViewModel, SnippetScope } from "./list-view-model.js";
import { lookedAt } from "./looked-at.js";
import { detailsView, type RecipeDetails } from "./recipe-details.js";
import {
  choicesOf,
  DEFAULT_CHOICES,
  recipeOfChoices,
  inShort,
  sentenceView,
  type SentenceChoices,
} from "./recipe-sentence.js";
import { copyBlockOf, placeBlockOf, placeOnDesktop, requestOf } from "./row-placing.js";
import { fileChoice, exportSnippets, saveBlock } from "./save-block.js";

/** How snippets are put down: the sentence that says what is placed and how, the block as it will land, and the acts. */
export class Composer {
  choices: SentenceChoices = DEFAULT_CHOICES;
  which: SnippetScope = "all";
  /** What of a kept recipe the sentence has no words for. */
  #others: Recipe = {};
  /** What it lands in, where the user has said so. */
  #fit: Fit | undefined;
  #preview: BlockPreview | undefined;
  /** Why the block cannot be shown. */
  #notShown: string | undefined;

  constructor(readonly host: DrawerHost) {}

  /** Follows another drawer. */
  follow(viewModel: ListViewModel): void {
    this.#preview = new BlockPreview(
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
    this.#chooseRecipe(choices);
    this.#others = kept;
    void this.compose();
  }

  #forPlace(): Recipe {
    return { ...this.recipe, fit: this.#fit ?? this.host.binding?.target?.fit ?? "page" };
  }

  #chooseRecipe(choices: SentenceChoices): void {
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

  #changeDetails({ fit, ...changes }: RecipeDetails): void {
    this.#fit = fit;
    this.#others = defined({ ...this.#others, ...changes });
    void this.compose();
  }

  /** A document that some of the snippets in sight are from: the picked ones first. */
  get #document(): string | undefined {
    const { picked = [], rows = [] } = this.host.viewModel ?? {};
    const documents = [...rows, ...picked].map(({ entry }) => entry.origin.document);
    return documents.findLast((document) => document !== undefined && !document.includes('"'));
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
      await this.#preview?.refresh(this.which);
      this.#setNotShown(undefined);
    } catch (error) {
      // A snippet may be forgotten between being listed and being read; the drawer is read again then.
      this.#setNotShown(refusalFor(error).message);
      if (!(error instanceof DrawerError)) throw error;
    }
  }

  #setNotShown(why: string | undefined): void {
    if (why !== this.#notShown) this.host.requestUpdate();
    this.#notShown = why;
  }

  /** Chooses those that are picked; all, when none is. */
  choosePicked(): void {
    this.choose((this.host.viewModel?.picked.length ?? 0) > 0 ? "picked" : "all");
  }

  /** Lays the pieces out as they ask for, once it is known what that is. */
  async takeSuggestion(): Promise<void> {
    await this.#preview?.ready;
    const { suggestion } = this.#preview ?? {};
    if (!suggestion) return;
    this.recipe = suggestion.recipe;
    this.host.binding?.announce(suggestions[suggestion.name][1]);
  }

  /** The look that a lone snippet is placed in. */
  get styleOfOne(): Recipe {
    return defined({ style: this.recipe.style });
  }

  /** How many snippets are chosen. */
  get count(): number {
    return this.host.viewModel?.chosenCount(this.which) ?? 0;
  }

  view() {
    const { viewModel } = this.host;
    // While there is nothing yet, there is nothing to say of it.
    if (viewModel?.count === 0) return nothing;
    const { choices, which } = this;
    const { unfolded } = this.host.arrangement;
    const counts = {
      count: viewModel?.chosenCount("all") ?? 0,
      picked: viewModel?.picked.length ?? 0,
      found: viewModel?.found?.length ?? 0,
    };
    const fold = () => this.host.arrangement.change({ unfolded: !unfolded });
    return html`
      <section
        class=${unfolded ? "composer" : "composer folded"}
        aria-label=${page.putDown}
        ?inert=${!this.host.binding}
      >
        <button class="fold" aria-expanded=${unfolded} @click=${fold}>
          ${inShort({ choices, which, ...counts })}${this.#landsInShort()}
        </button>
        <div class="unfolded">
          ${sentenceView({
            ...{ choices, which, ...counts },
            choose: (made) => this.#chooseRecipe(made),
            chooseWhich: (chosen) => this.choose(chosen),
            document: this.#document,
            pick: (pick) => this.host.act(async () => (await this.host.pick(pick), [])),
          })}
          ${detailsView({ ...this.#others, fit: this.#fit }, (changes) => this.#changeDetails({ fit: this.#fit, ...changes }))}
          ${this.#previewView()}
        </div>
        ${this.#acts()}
      </section>
    `;
  }

  /** Where it lands, where the sentence is folded. */
  #landsInShort(): string {
    const { binding } = this.host;
    return binding?.options.desktop?.target ? ` · ${landing(binding).lands.replace(/,$/, "")}` : "";
  }

  /** What lands is shown from the very block that is placed. Its HTML is written from content, which can hold no script. */
  #previewView() {
    const block = this.#preview?.block;
    const shown = this.#preview?.shown;
    const more = this.#preview?.notShown(this.which) ?? 0;
    const leftOut = this.host.viewModel?.leftOut(this.which) ?? 0;
    const drag = (event: DragEvent) => {
      if (block && more === 0 && event.dataTransfer) carryBlock(event.dataTransfer, block);
      else event.preventDefault();
    };
    return html`
      <div
        class="preview"
        part="preview"
        aria-label=${page.preview}
        role="region"
        tabindex="0"
        draggable="true"
        @dragstart=${drag}
      >
        ${leftOut > 0 ? html`<p class="note">${page.leftOut(leftOut)}</p>` : nothing}
        ${
          this.#notShown === undefined
            ? lookedAt(shown?.html ?? "")
            : html`<p class="note">${page.notShown} ${this.#notShown}</p>`
        }
        ${shown?.isCut ? html`<p class="note">${page.moreOfIt}</p>` : nothing}
        ${block?.notices.map(({ message }) => html`<p class="note">${message}</p>`)}
        ${more > 0 ? html`<p class="note">${page.more(more)}</p>` : nothing}
      </div>
    `;
  }

  #acts() {
    const { binding, viewModel } = this.host;
    const { count } = this;
    const isNothing = count === 0;
    const { desktop } = binding?.options ?? {};
    const act = (word: string, does: () => void) =>
      html`<button ?disabled=${isNothing} @click=${does}>${word}</button>`;
    const { lands, act: actOf } = landing(binding);
    const { suggestion } = this.#preview ?? {};
    const go = html`<button
      class="go"
      part="place"
      title=${lands}
      ?disabled=${isNothing}
      @click=${() => this.place()}
    >
      ${actOf(count)}
    </button>`;
    return html`
      <p class="note lands">${lands} ${desktop?.target ? returnChoice(this.host.arrangement) : nothing}</p>
      <p class="going">
        ${go}
        ${
          suggestion && !isNothing
            ? html`<button
                class="suggested"
                title=${suggestions[suggestion.name][1]}
                aria-keyshortcuts="A"
                @click=${() => void this.takeSuggestion()}
              >
                ${suggestions[suggestion.name][0]}
              </button>`
            : nothing
        }
      </p>
      ${dealBar(this.host)}
      <p class="acts" part="acts">
        ${desktop ? this.#desktopActs(act, count) : this.#pageActs(act)}
        ${(viewModel?.picked.length ?? 0) > 1 && this.which === "picked" ? act(page.acts.merge, () => this.merge()) : nothing}
        ${fileChoice(isNothing, (choice) => this.#save(choice))}
        <slot name="acts"></slot>
      </p>
    `;
  }

  /** What else can be done on a desktop. */
  #desktopActs(act: (word: string, does: () => void) => unknown, count: number) {
    const { target } = this.host.binding?.options.desktop ?? {};
    return [
      target ? act(page.acts.copy, () => this.copy()) : nothing,
      target && count > 1 ? eachChoice((key) => void this.#placeEach(target, key)) : nothing,
      act(page.desktop.deal, () => void this.deal()),
    ];
  }

  /** What else can be done where the page has places to put into. */
  #pageActs(act: (word: string, does: () => void) => unknown) {
    const inCells = this.host.binding?.target?.fit === "cells";
    return [
      act(page.acts.copy, () => this.copy()),
      ...(inCells
        ? [
            act(page.acts.down, () => this.#placeCells("down")),
            act(page.acts.across, () => this.#placeCells("across")),
          ]
        : [act(page.acts.deal, () => void this.deal())]),
      act(page.acts.fill, () => void this.host.planFill()),
      html`<button @pointerdown=${(event: Event) => event.preventDefault()} @click=${() => this.host.send()}>
        ${page.acts.send}
      </button>`,
    ];
  }

  readonly #whole = async (chosen: readonly Positioned[], fit: Fit): Promise<Block> => {
    const block = await this.#preview!.whole(chosen, fit);
    // What could not be shown before can be made by now.
    if (this.#notShown !== undefined) void this.compose();
    return block;
  };

  /** What is chosen, in the order in which it is placed, as a request to place it. */
  async #request(make = this.#whole): Promise<PlaceRequest> {
    const chosen = await this.host.viewModel!.chosen(this.which);
    return {
      ids: chosen.map(({ entry }) => entry.id),
      make: (fit) => make(chosen, this.#fit ?? fit),
      what: many(chosen.length),
    };
  }

  /** Places what the sentence says at the caret; or, on a desktop where none can be reached, copies it. */
  place(): void {
    void placeBlockOf(this.host, this.#request());
  }

  /** Places each snippet by itself in the window that the user came from, with a key between that leads to the next field. */
  async #placeEach(target: DesktopTarget, key: NextKey): Promise<void> {
    const chosen = await this.host.viewModel!.chosen(this.which);
    const requests = chosen.map((row) => requestOf(this.host, row));
    await placeOnDesktop(this.host, requests, many(chosen.length), target, key);
  }

  copy(): void {
    void copyBlockOf(this.host, this.#request());
  }

  /** Places each snippet in a cell of its own. */
  #placeCells(way: "down" | "across"): void {
    const inCells = async (chosen: readonly Positioned[], fit: Fit) => {
      const { blockOfCells } = await blocks();
      const snippets = await this.host.viewModel!.drawer.read(chosen);
      return blockOfCells(snippets, way, fit, this.host.styleOfOne);
    };
    void this.#request(inCells).then((request) => this.host.binding?.place(request));
  }

  async deal(): Promise<void> {
    await this.host.binding?.deal.begin(await this.pick(), this.host.styleOfOne);
    this.host.requestUpdate();
  }

  /** What is chosen, as a pick. */
  async pick(): Promise<string> {
    return this.which === "all" ? "all" : pickOf(await this.host.viewModel!.chosen(this.which));
  }

  merge(): void {
    const [pick, recipe] = [this.pick(), this.recipe];
    this.host.act(async (drawer) => (await drawer.merge(await pick, recipe)).notices);
  }

  /** Saves the block as a file of some format, or the snippets as a drawer file. */
  #save(choice: FormatName | "drawer"): void {
    const { host } = this;
    host.act(async () => {
      if (choice === "drawer") return exportSnippets(host, await this.pick(), this.count);
      const chosen = await host.viewModel!.chosen(this.which);
      return saveBlock(await this.#whole(chosen, "page"), choice, host.viewModel!.drawer.name);
    });
  }
}
