import { html, nothing } from "lit";
import type { Fit } from "../../compose/options.js";
import type { Positioned } from "../../drawer/store.js";
import type { FormatName } from "../../formats/registry.js";
import { suggestions, composer as words } from "../../messages/core/composer-sentences.js";
import { many } from "../../messages/core/page-sentences.js";
import type { DesktopTarget, NextKey } from "../binding/host-desktop.js";
import { blocks } from "../binding/lazy.js";
import { carryBlock } from "../places/carrying.js";
import type { Composer } from "./composer.js";
import { dealBar } from "./deal-bar.js";
import { eachChoice, returnChoice } from "./desktop-choices.js";
import type { DrawerHost } from "./drawer-host.js";
import { landing } from "./landing.js";
import { lookedAt } from "./looked-at.js";
import { detailsView } from "./recipe-details.js";
import { inShort, sentenceView } from "./recipe-sentence.js";
import { placeOnDesktop, requestOf } from "./row-placing.js";
import { fileChoice, exportSnippets, saveBlock } from "./save-block.js";

export { composerStyles } from "./composer-styles.js";

/** Draws how snippets are put down: the sentence that says what is placed and how, the block as it will land, and the acts. */
export class ComposerView {
  readonly host: DrawerHost;

  constructor(readonly composer: Composer) {
    this.host = composer.host;
  }

  /** Lays the pieces out as they ask for, once it is known what that is. */
  async takeSuggestion(): Promise<void> {
    const { composer } = this;
    await composer.preview?.ready;
    const { suggestion } = composer.preview ?? {};
    if (!suggestion) return;
    composer.recipe = suggestion.recipe;
    this.host.binding?.announce(suggestions[suggestion.name][1]);
  }

  /** A document that some of the snippets in sight are from: the picked ones first. */
  get #document(): string | undefined {
    const { picked = [], rows = [] } = this.host.viewModel ?? {};
    const documents = [...rows, ...picked].map(({ entry }) => entry.origin.document);
    return documents.findLast((document) => document !== undefined && !document.includes('"'));
  }

  view() {
    const { composer } = this;
    const { viewModel } = this.host;
    const { choices, which } = composer;
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
        aria-label=${words.putDown}
        ?inert=${!this.host.binding}
      >
        <button class="fold" aria-expanded=${unfolded} @click=${fold}>
          ${inShort({ choices, which, ...counts })}${this.#landsInShort()}
        </button>
        <div class="unfolded">
          ${sentenceView({
            ...{ choices, which, ...counts },
            choose: (made) => composer.chooseRecipe(made),
            chooseWhich: (chosen) => composer.choose(chosen),
            document: this.#document,
            pick: (pick) => this.host.act(async () => (await this.host.pick(pick), [])),
          })}
          ${detailsView(composer.details, (changes) => composer.changeDetails(changes))}
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
    const { preview, notShown, which } = this.composer;
    const block = preview?.block;
    const shown = preview?.shown;
    const more = preview?.notShown(which) ?? 0;
    const leftOut = this.host.viewModel?.leftOut(which) ?? 0;
    const drag = (event: DragEvent) => {
      if (block && more === 0 && event.dataTransfer) carryBlock(event.dataTransfer, block);
      else event.preventDefault();
    };
    return html`
      <div
        class="preview"
        part="preview"
        aria-label=${words.preview}
        role="region"
        tabindex="0"
        draggable="true"
        @dragstart=${drag}
      >
        ${leftOut > 0 ? html`<p class="note">${words.leftOut(leftOut)}</p>` : nothing}
        ${
          notShown === undefined
            ? lookedAt(shown?.html ?? "")
            : html`<p class="note">${words.notShown} ${notShown}</p>`
        }
        ${shown?.isCut ? html`<p class="note">${words.moreOfIt}</p>` : nothing}
        ${block?.notices.map(({ message }) => html`<p class="note">${message}</p>`)}
        ${more > 0 ? html`<p class="note">${words.more(more)}</p>` : nothing}
      </div>
    `;
  }

  #acts() {
    const { composer } = this;
    const { binding } = this.host;
    const { count } = composer;
    const isNothing = count === 0;
    const { desktop } = binding?.options ?? {};
    const act = (word: string, does: () => void, isOff = isNothing) =>
      html`<button ?disabled=${isOff} @click=${does}>${word}</button>`;
    const isSeveral = composer.which === "picked" && count > 1;
    const { lands, act: actOf } = landing(binding);
    const { suggestion } = composer.preview ?? {};
    const go = html`<button
      class="go"
      part="place"
      title=${lands}
      ?disabled=${isNothing}
      @click=${() => composer.place()}
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
        ${act(words.acts.merge, () => this.#merge(), !isSeveral)}
        ${fileChoice(isNothing, (choice) => this.#save(choice))}
        <slot name="acts"></slot>
      </p>
    `;
  }

  /** What else can be done on a desktop. */
  #desktopActs(act: (word: string, does: () => void) => unknown, count: number) {
    const { target } = this.host.binding?.options.desktop ?? {};
    return [
      target ? act(words.acts.copy, () => this.composer.copy()) : nothing,
      target ? eachChoice((key) => void this.#placeEach(target, key), count < 2) : nothing,
      act(words.deal, () => void this.#deal()),
    ];
  }

  /** What else can be done where the page has places to put into. */
  #pageActs(act: (word: string, does: () => void) => unknown) {
    const inCells = this.host.binding?.target?.fit === "cells";
    return [
      act(words.acts.copy, () => this.composer.copy()),
      ...(inCells
        ? [
            act(words.acts.down, () => this.#placeCells("down")),
            act(words.acts.across, () => this.#placeCells("across")),
          ]
        : [act(words.acts.deal, () => void this.#deal())]),
      act(words.acts.fill, () => void this.host.planFill()),
      html`<button @pointerdown=${(event: Event) => event.preventDefault()} @click=${() => this.host.send()}>
        ${words.acts.send}
      </button>`,
    ];
  }

  /** Places each snippet by itself in the window that the user came from, with a key between that leads to the next field. */
  async #placeEach(target: DesktopTarget, key: NextKey): Promise<void> {
    const chosen = await this.host.viewModel!.chosen(this.composer.which);
    const requests = chosen.map((row) => requestOf(this.host, row));
    await placeOnDesktop(this.host, requests, many(chosen.length), target, key);
  }

  /** Places each snippet in a cell of its own. */
  #placeCells(way: "down" | "across"): void {
    const inCells = async (chosen: readonly Positioned[], fit: Fit) => {
      const { blockOfCells } = await blocks();
      const snippets = await this.host.viewModel!.drawer.read(chosen);
      return blockOfCells(snippets, way, fit, this.host.styleOfOne);
    };
    void this.composer.request(inCells).then((request) => this.host.binding?.place(request));
  }

  async #deal(): Promise<void> {
    await this.host.binding?.deal.begin(this.composer.pick(), this.host.styleOfOne);
    this.host.requestUpdate();
  }

  #merge(): void {
    const [pick, recipe] = [this.composer.pick(), this.composer.recipe];
    this.host.act(async (drawer) => (await drawer.merge(await pick, recipe)).notices);
  }

  /** Saves the block as a file of some format, or the snippets as a drawer file. */
  #save(choice: FormatName | "drawer"): void {
    const { host, composer } = this;
    host.act(async () => {
      if (choice === "drawer") return exportSnippets(host, await composer.pick(), composer.count);
      const chosen = await host.viewModel!.chosen(composer.which);
      return saveBlock(await composer.whole(chosen, "page"), choice, host.viewModel!.drawer.name);
    });
  }
}
