import { html } from "lit";
import { page } from "../../messages/core/page-sentences.js";
import { NEXT_KEYS, type NextKey } from "../binding/host-desktop.js";
import type { Arrangement } from "./arrangement.js";
import { choice } from "./recipe-sentence.js";

/** The choice whether one comes back from the window in which something was placed. */
export function returnChoice(arrangement: Arrangement) {
  const { name, there, here } = page.desktop.then;
  const chosen = arrangement.returns ? "here" : "there";
  return choice(name, { there, here }, chosen, (to) => arrangement.change({ returns: to === "here" }), ".");
}

/** The choice of what is pressed between one snippet and the next, which places each by itself. */
export function eachChoice(place: (key: NextKey) => void) {
  const { name, keys } = page.desktop.each;
  const chosen = (event: Event) => {
    const select = event.target as HTMLSelectElement;
    const key = select.value as NextKey;
    select.value = "";
    place(key);
  };
  return html`<select class="each" aria-label=${name} @change=${chosen}>
    <option value="">${name}</option>
    ${NEXT_KEYS.map((key) => html`<option value=${key}>${keys[key]}</option>`)}
  </select>`;
}
