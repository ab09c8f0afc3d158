import { html, nothing } from "lit";
import { live } from "lit/directives/live.js";
import type { Rules } from "../../drawer/model/rules.js";
import { page } from "../../messages/core/page-sentences.js";
import type { DrawerHost } from "./drawer-host.js";

/** What becomes of what is copied: it is collected by itself, goes onto the latest, or is left alone. */
type Collecting = keyof typeof page.collecting.states;

/** What becomes of what is copied, at a glance, and the choice of it. */
export function stateView(host: DrawerHost, setRules: (changes: Partial<Rules>) => void) {
  const { binding, viewModel } = host;
  const isOn = viewModel?.rules?.collecting ?? true;
  const state: Collecting = isOn ? (binding?.appends ? "latest" : "on") : "off";
  const chosen = (event: Event) => {
    const wanted = (event.target as HTMLSelectElement).value as Collecting;
    if (binding) binding.appends = wanted === "latest";
    if ((wanted !== "off") !== isOn) setRules({ collecting: wanted !== "off" });
    host.requestUpdate();
  };
  const states = Object.entries(page.collecting.states) as [Collecting, string][];
  return html`<span class="state ${state}" part="state">
    <select aria-label=${page.collecting.name} title=${page.collecting.does[state]} @change=${chosen}>
      ${states.map(([name, said]) => html`<option value=${name} .selected=${live(name === state)}>${said}</option>`)}
    </select>
  </span>`;
}

/** That nothing is kept, where it is so. */
export function keepingView({ viewModel }: DrawerHost) {
  return viewModel?.drawer.store.isVolatile ? html`<p class="kept">${page.notKept}</p>` : nothing;
}

/**
 * Which drawer is shown, and a way to another.
 * @param drawers the names of those that there are
 * @param read is called when the user is about to choose
 */
export function drawerChoice(
  { binding, viewModel }: DrawerHost,
  drawers: readonly string[],
  read: () => void,
) {
  const shown = viewModel?.drawer.name;
  if (shown === undefined) return nothing;
  const names = [...new Set([shown, ...drawers])].sort();
  const chosen = (event: Event) => {
    const select = event.target as HTMLSelectElement;
    const name = select.value === "" ? prompt(page.drawers.ask)?.trim() : select.value;
    select.value = shown;
    if (name) void binding?.open(name);
  };
  return html`<select class="drawers" aria-label=${page.drawers.name} @focus=${read} @change=${chosen}>
    ${names.map((name) => html`<option value=${name} .selected=${name === shown}>${name}</option>`)}
    <option value="">${page.drawers.another}</option>
  </select>`;
}
