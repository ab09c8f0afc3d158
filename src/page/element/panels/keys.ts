import { html } from "lit";
import { keysPanel as words } from "../../../messages/core/panel-sentences.js";
import type { HostDesktop } from "../../binding/host-desktop.js";

/**
 * The keys, each with what it does: those that work anywhere on the page, which may be none, and those of the list.
 * @param desktop where blocks go instead of into the page
 */
export function keysPanel(hotkey: string, sendkey: string, desktop: HostDesktop | undefined) {
  const { placeKey, copyKey, desktopKey, leaveKey, keys } = words;
  const inRun = desktop ? [desktop.target ? desktopKey : copyKey, ...keys] : [placeKey, ...keys, leaveKey];
  const line = (key: string, does: string) =>
    html`<div>
      <dt>${key.split(", ").map((each, at) => html`${at > 0 ? ", " : ""}<kbd>${each}</kbd>`)}</dt>
      <dd>${does}</dd>
    </div>`;
  return html`
    <section class="panel" aria-label=${words.name} part="panel" tabindex="0">
      <dl>
        ${hotkey === "" ? "" : line(hotkey.replaceAll("+", " "), words.hotkey)}
        ${sendkey === "" || desktop ? "" : line(sendkey.replaceAll("+", " "), words.sendKey)}
      </dl>
      <p class="note">${words.inRun}</p>
      <dl>${inRun.map(([key, does]) => line(key, does))}</dl>
    </section>
  `;
}
