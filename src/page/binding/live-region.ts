import { spokenLanguage } from "../../messages/core/language.js";

/** Announces things to those who use a screen reader, in a polite live region that nobody sees. */
export class LiveRegion {
  readonly #region: HTMLElement;

  constructor(root: Document = document) {
    this.#region = root.createElement("div");
    this.#region.setAttribute("role", "status");
    this.#region.setAttribute("aria-live", "polite");
    this.#region.style.cssText =
      "position:absolute;width:1px;height:1px;margin:-1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap";
    root.body.append(this.#region);
  }

  /** Says a sentence; the same one twice is said twice. */
  announce(sentence: string): void {
    const { tag, dir } = spokenLanguage();
    Object.assign(this.#region, { lang: tag, dir });
    this.#region.textContent = "";
    requestAnimationFrame(() => (this.#region.textContent = sentence));
  }

  /** Falls silent for good. */
  remove(): void {
    this.#region.remove();
  }
}
