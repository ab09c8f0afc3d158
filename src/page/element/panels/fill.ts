import { html, nothing } from "lit";
import { fillPanel as words } from "../../../messages/core/panel-sentences.js";
import type { FieldToFill, FillPlan } from "../../places/form.js";

/** What each field of a form would get, before anything is filled. */
export function fillPanel(
  { fields, refused, unmatched }: FillPlan,
  actions: { readonly fill: (fields: readonly FieldToFill[]) => void; readonly leave: () => void },
) {
  const line = ({ name, text }: FieldToFill, why?: string) => html`
    <li>
      <span class="from">${name}</span>
      <span class="says" dir="auto">${text}</span>
      ${why === undefined ? nothing : html`<span class="from why">${why}</span>`}
    </li>
  `;
  return html`
    <section class="panel fill" aria-label=${words.name} part="panel">
      ${fields.length === 0 ? html`<p class="note">${words.nothing}</p>` : nothing}
      <p class="note">
        ${
          fields.length > 0
            ? html`<button class="fill" @click=${() => actions.fill(fields)}>
                ${words.fill(fields.length)}
              </button>`
            : nothing
        }
        <button @click=${actions.leave}>${words.leave}</button>
      </p>
      <ul>
        ${fields.map((field) => line(field))} ${refused.map(({ why, ...field }) => line(field, words[why]))}
      </ul>
      ${unmatched.length > 0 ? html`<p class="note">${words.unmatched(unmatched)}</p>` : nothing}
    </section>
  `;
}
