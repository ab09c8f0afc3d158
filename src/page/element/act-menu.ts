import { html } from "lit";

/**
 * A choice among acts: what is chosen is done at once, and the choice says its name again.
 * @param acts what each is called, by what stands for it
 * @param options `label` is how it is called for who only hears it, where that is more than its name; `tabindex` is -1 where
 * arrows lead to it and the Tab key does not
 */
export function actMenu<Act extends string>(
  name: string,
  acts: readonly (readonly [Act, string])[],
  does: (act: Act) => void,
  { isOff = false, className = "", label = name, tabindex = 0 } = {},
) {
  const chosen = (event: Event) => {
    const select = event.target as HTMLSelectElement;
    const act = select.value as Act;
    select.selectedIndex = 0;
    does(act);
  };
  return html`<select
    class=${className}
    aria-label=${label}
    tabindex=${tabindex}
    ?disabled=${isOff}
    @change=${chosen}
  >
    <option value="" selected>${name}</option>
    ${acts.map(([act, said]) => html`<option value=${act}>${said}</option>`)}
  </select>`;
}
