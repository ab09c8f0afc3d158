import { html } from "lit";
import { displayText } from "../../../drawer/snippets.js";
import type { Gone, Positioned } from "../../../drawer/store.js";
import { gone as goneWords } from "../../../messages/core/panel-sentences.js";
import { shownTime } from "./time.js";

/** What has left, the latest first, and the way back. */
export function gonePanel(
  gone: readonly (Gone & Positioned)[],
  actions: {
    readonly restore: (one: Positioned) => void;
    readonly empty: () => void;
    readonly forget: () => void;
  },
) {
  const [empty, afterEmpty] = goneWords.empty;
  const [forget, afterForget] = goneWords.forget;
  return html`
    <section class="panel" aria-label=${goneWords.name}>
      ${gone.length === 0 ? html`<p class="note">${goneWords.nothing}</p>` : ""}
      <ul>
        ${[...gone].reverse().map(
          (one) => html`
            <li>
              <span class="says" dir="auto">${displayText(one.entry)}</span>
              <span class="from">${goneWords.left(shownTime(one.at))}</span>
              <button @click=${() => actions.restore(one)}>${goneWords.restore}</button>
            </li>
          `,
        )}
      </ul>
      <p class="note">
        <button @click=${actions.empty}>${empty}</button> ${afterEmpty}
        <button @click=${actions.forget}>${forget}</button>${afterForget}
      </p>
    </section>
  `;
}
