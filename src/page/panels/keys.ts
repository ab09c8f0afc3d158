import { html } from "lit";
import { keysPanel as words } from "../../messages/en/page.js";

/** The keys, each with what it does. `hotkey` is the one that leads into the drawer; nothing when there is none. */
export function keysPanel(hotkey: string | undefined) {
  const line = (key: string, does: string) =>
    html`<div>
      <dt>${key.split(", ").map((each, at) => html`${at > 0 ? ", " : ""}<kbd>${each}</kbd>`)}</dt>
      <dd>${does}</dd>
    </div>`;
  return html`
    <section class="panel" aria-label=${words.name} part="panel">
      ${hotkey ? html`<dl>${line(hotkey.replaceAll("+", " "), words.hotkey)}</dl>` : ""}
      <p class="note">${words.inRun}</p>
      <dl>${words.keys.map(([key, does]) => line(key, does))}</dl>
    </section>
  `;
}
