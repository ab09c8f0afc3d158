import { html, nothing } from "lit";
import type { Rules } from "../../drawer/model/rules.js";
import { page } from "../../messages/core/page-sentences.js";
import { MemoryStore } from "../../stores/memory.js";
import type { DrawerHost } from "./drawer-host.js";

/** Whether a drawer collects, and how; and that nothing is kept, where it is so. */
export function stateView(host: DrawerHost, setRules: (changes: Partial<Rules>) => void) {
  const { binding, viewModel } = host;
  const collecting = viewModel?.rules?.collecting ?? true;
  const chosen = (event: Event) => {
    if (binding) binding.appends = (event.target as HTMLSelectElement).value === "latest";
    host.requestUpdate();
  };
  const adding = html`<select aria-label=${page.adding.name} @change=${chosen}>
    <option value="apart" ?selected=${!binding?.appends}>${page.adding.apart}</option>
    <option value="latest" ?selected=${binding?.appends ?? false}>${page.adding.latest}</option>
  </select>`;
  return html`<span class="state" part="state">
    ${page.state(collecting)}${collecting ? html` ${adding}` : nothing}.
    <button @click=${() => setRules({ collecting: !collecting })}>${page.switchState(collecting)}</button>
    ${viewModel?.drawer.store instanceof MemoryStore ? html`<span class="kept">${page.notKept}</span>` : nothing}
  </span>`;
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
