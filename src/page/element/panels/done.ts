import { html } from "lit";
import type { LoggedAction } from "../../../drawer/action-log.js";
import { done as words } from "../../../messages/core/panel-sentences.js";
import { shownTime } from "./time.js";

/** What was done and still stands, the latest first, and the way back to before each. */
export function donePanel(acts: readonly LoggedAction[], undoTo: (id: string) => void) {
  return html`
    <section class="panel" aria-label=${words.name} part="panel">
      ${acts.length === 0 ? html`<p class="note">${words.nothing}</p>` : ""}
      <ol>
        ${acts.map(({ id, at, summary }, index) => {
          const act = words.act(summary);
          const count = index + 1;
          return html`
            <li>
              <span class="says" dir="auto">${act}</span>
              <span class="from">${shownTime(at)}</span>
              <button aria-label=${words.undoFrom({ act, count })} @click=${() => undoTo(id)}>
                ${words.undo(count)}
              </button>
            </li>
          `;
        })}
      </ol>
    </section>
  `;
}
