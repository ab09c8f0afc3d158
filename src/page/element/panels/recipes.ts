import { html } from "lit";
import type { Recipe } from "../../../compose/recipe.js";
import { recipesPanel as words } from "../../../messages/core/panel-sentences.js";

/** The recipes that are kept with the drawer, and a way to keep the one that the sentence says. */
export function recipesPanel(
  recipes: ReadonlyMap<string, Recipe>,
  actions: {
    readonly use: (recipe: Recipe) => void;
    readonly remove: (name: string) => void;
    readonly keep: (name: string) => void;
  },
) {
  const keep = (event: SubmitEvent) => {
    event.preventDefault();
    const field = (event.target as HTMLFormElement).querySelector("input")!;
    actions.keep(field.value.trim());
    field.value = "";
  };
  return html`
    <section class="panel" aria-label=${words.name} part="panel">
      ${recipes.size === 0 ? html`<p class="note">${words.nothing}</p>` : ""}
      <ul>
        ${[...recipes].map(
          ([name, recipe]) => html`
            <li>
              <span class="says" dir="auto">${name}</span>
              <span class="from">${saying(recipe)}</span>
              <span class="both">
                <button aria-label=${`${words.use}: ${name}`} @click=${() => actions.use(recipe)}>
                  ${words.use}
                </button>
                <button aria-label=${`${words.remove}: ${name}`} @click=${() => actions.remove(name)}>
                  ${words.remove}
                </button>
              </span>
            </li>
          `,
        )}
      </ul>
      <form class="note" @submit=${keep}>
        <button>${words.keep}</button>
        <input
          aria-label=${words.keepName}
          placeholder=${words.keepName}
          required
          pattern="\\S+"
          maxlength="60"
        />
      </form>
    </section>
  `;
}

/** A recipe in its own words: `as bullets, between comma`. */
function saying(recipe: Recipe): string {
  return Object.entries(recipe)
    .map(([name, value]) => `${name} ${typeof value === "string" ? value : JSON.stringify(value)}`)
    .join(", ");
}
