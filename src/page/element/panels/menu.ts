import { html, nothing } from "lit";
import { page } from "../../../messages/core/page-sentences.js";
import type { DrawerHost } from "../drawer-host.js";

/** What opens the panels. */
export class PanelMenu {
  /** Whether there is shown what can be opened. */
  #isMenu = false;

  /**
   * @param opened is told which panel is to be opened
   * @param chosen is given the files that are to be looked into
   */
  constructor(
    readonly host: DrawerHost,
    readonly opened: (panel: keyof typeof page.panels) => void,
    readonly chosen: (files: readonly File[]) => void,
  ) {}

  get isOpen(): boolean {
    return this.#isMenu;
  }

  /** Draws it: a word, and below it, once it is pressed, what there is. */
  view() {
    const { host } = this;
    const { settings } = host.binding?.options.desktop ?? {};
    const all = Object.keys(page.panels) as (keyof typeof page.panels)[];
    const names = all.filter((name) => name !== "computer" || settings);
    const input = () => host.renderRoot.querySelector<HTMLInputElement>("input[type=file]")!;
    const chosen = () => {
      const files = [...(input().files ?? [])];
      input().value = "";
      void this.chosen(files);
    };
    const word = (text: string, does: () => void) =>
      html`<button
        @click=${() => {
          this.#setMenu(false);
          does();
        }}
      >
        ${text}
      </button>`;
    const key = (event: KeyboardEvent) => {
      if (event.key !== "Escape") return;
      event.stopPropagation();
      this.#setMenu(false);
      host.renderRoot.querySelector<HTMLElement>(".more")?.focus();
    };
    const left = (event: FocusEvent) => {
      const to = event.relatedTarget as Element | null;
      if (to && !to.closest(".menu, .more")) this.#setMenu(false);
    };
    return html`<button
        class="more"
        aria-expanded=${this.#isMenu}
        @click=${() => this.#setMenu(!this.#isMenu)}
        @focusout=${left}
      >
        ${page.menu}</button
      >${
        this.#isMenu
          ? html`<div class="menu" @keydown=${key} @focusout=${left}>
              ${word(page.lookInto, () => input().click())}
              ${names.map((name) => word(page.panels[name], () => void this.opened(name)))}
            </div>`
          : nothing
      }<input type="file" multiple hidden @change=${chosen} />`;
  }

  #setMenu(isOpen: boolean): void {
    this.#isMenu = isOpen;
    this.host.requestUpdate();
  }
}
