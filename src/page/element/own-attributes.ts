import { spokenLanguage } from "../../messages/core/language.js";
import { page } from "../../messages/core/page-sentences.js";

/** The name and the language that an element of the page gives itself, where the page has given it none. */
export class OwnAttributes {
  #name: string | null = null;
  #language = "";

  constructor(readonly element: HTMLElement) {}

  /** Sets them as they are spoken now. */
  update(): void {
    const { element } = this;
    if (element.getAttribute("aria-label") === this.#name)
      element.setAttribute("aria-label", (this.#name = page.title));
    const { tag: lang, dir } = spokenLanguage();
    if (element.lang === this.#language) Object.assign(element, { lang: (this.#language = lang), dir });
  }
}
