import { html, nothing } from "lit";
import { refusalFor } from "../binding/actions.js";
import type { ComposerView } from "./composer-view.js";
import type { Composer } from "./composer.js";

/** Draws the composer of an element; what draws it is loaded once there is something to put down. */
export class ComposerDrawing {
  #view: ComposerView | undefined;
  /** Why it is not to be had. */
  #missing: string | undefined;
  #loading: Promise<typeof import("./composer-view.js")> | undefined;

  constructor(readonly composer: Composer) {}

  /** What is drawn of it now; until that is loaded, its room is kept. */
  view() {
    // While there is nothing yet, there is nothing to say of it.
    if (this.composer.host.viewModel?.count === 0) return nothing;
    if (!this.#loading) void this.#load().catch((error: unknown) => this.#failed(error));
    const missing = this.#missing === undefined ? nothing : html`<p class="note">${this.#missing}</p>`;
    const { unfolded } = this.composer.host.arrangement;
    const room = html`<section class=${unfolded ? "composer" : "composer folded"}>${missing}</section>`;
    return this.#view?.view() ?? room;
  }

  #failed(error: unknown): void {
    this.#missing = refusalFor(error).message;
    this.composer.host.requestUpdate();
  }

  /** Lays the pieces out as they ask for, once it is known what that is. */
  async takeSuggestion(): Promise<void> {
    const view = await this.#load();
    await view.takeSuggestion();
  }

  async #load(): Promise<ComposerView> {
    const { host } = this.composer;
    this.#loading ??= import("./composer-view.js");
    const { ComposerView, composerStyles } = await this.#loading;
    if (!this.#view) {
      this.#view = new ComposerView(this.composer);
      (host.renderRoot as ShadowRoot).adoptedStyleSheets.push(composerStyles.styleSheet!);
      host.requestUpdate();
    }
    return this.#view;
  }
}
