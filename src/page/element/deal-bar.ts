import { html, nothing } from "lit";
import { composer as words } from "../../messages/core/composer-sentences.js";
import type { DrawerHost } from "./drawer-host.js";

/** How far a deal is, and what moves it. */
export function dealBar(host: DrawerHost) {
  const { deal, options } = host.binding ?? {};
  if (!deal?.state) return nothing;
  const act = (word: string, does: () => Promise<void> | void, isOff = false) =>
    html`<button
      ?disabled=${isOff}
      @click=${() => void Promise.resolve(does()).then(() => host.requestUpdate())}
    >
      ${word}
    </button>`;
  const { next, left, of } = deal.state;
  return html`
    <p class="dealing" part="dealing">
      <span>${words.dealing(deal.state)}</span>
      ${options?.desktop ? nothing : act(words.dealActs.next, () => deal.next(), next === undefined)}
      ${act(words.dealActs.back, () => deal.back(), left === of)}
      ${act(words.dealActs.skip, () => deal.skip(), next === undefined)}
      ${act(words.dealActs.end, () => deal.end())}
    </p>
  `;
}
