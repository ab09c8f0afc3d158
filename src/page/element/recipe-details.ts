import { html } from "lit";
import { live } from "lit/directives/live.js";
import { BETWEENS, FITS, HEADERS, type Fit, type HeaderChoice } from "../../compose/options.js";
import type { Recipe } from "../../compose/recipe.js";
import { details as words } from "../../messages/core/composer-sentences.js";

/** What a recipe can say beside what the sentence says: what stands between and around the pieces, tables, the language. */
export type RecipeDetails = { readonly [Name in (typeof DETAILS)[number]]?: Recipe[Name] | undefined };

const DETAILS = ["between", "before", "after", "header", "columns", "locale", "fit"] as const;

/** Draws what else a recipe can say, folded until it is wanted. An empty field leaves it as it is by itself. */
export function detailsView(recipe: RecipeDetails, change: (changes: RecipeDetails) => void) {
  const text = (name: "between" | "before" | "after" | "locale", list?: string) =>
    html`<label
      >${words[name]}
      <input
        list=${list ?? ""}
        placeholder=${words.usual[name]}
        .value=${live(recipe[name] ?? "")}
        @change=${({ target }: Event) => {
          const { value } = target as HTMLInputElement;
          change({ [name]: value === "" ? undefined : value });
        }}
    /></label>`;
  const choice = <Name extends string>(
    label: string,
    names: readonly Name[],
    said: Readonly<Record<Name | "usual", string>>,
    chosen: Name | undefined,
    choose: (name: Name | undefined) => void,
  ) =>
    html`<label
      >${label}
      <select
        @change=${({ target }: Event) => choose(((target as HTMLSelectElement).value || undefined) as Name)}
      >
        <option value="" .selected=${live(chosen === undefined)}>${said.usual}</option>
        ${names.map((name) => html`<option value=${name} .selected=${live(name === chosen)}>${said[name]}</option>`)}
      </select></label
    >`;
  const isSet = DETAILS.some((name) => recipe[name] !== undefined);
  return html`<details class="details" ?open=${isSet}>
    <summary>${words.name}</summary>
    ${text("between", "betweens")} ${text("before")} ${text("after")}
    ${choice<HeaderChoice>(words.header, HEADERS, words.headers, recipe.header, (header) => change({ header }))}
    <label
      >${words.columns}
      <input
        placeholder=${words.usual.columns}
        .value=${live(writeColumns(recipe.columns))}
        @change=${({ target }: Event) => change({ columns: readColumns((target as HTMLInputElement).value) })}
    /></label>
    ${choice<Fit>(words.fit, FITS, words.fits, recipe.fit, (fit) => change({ fit }))} ${text("locale")}
    <datalist id="betweens">
      ${Object.keys(BETWEENS).map((name) => html`<option value=${name}></option>`)}
    </datalist>
  </details>`;
}

/** Names of columns as they are typed: `E-Mail=Email, Tel=Telephone`. */
function readColumns(typed: string): Readonly<Record<string, string>> | undefined {
  const pairs = typed
    .split(",")
    .map((pair) => pair.split("=").map((name) => name.trim()))
    .filter(([name, other]) => name && other);
  return pairs.length === 0 ? undefined : (Object.fromEntries(pairs) as Record<string, string>);
}

function writeColumns(columns: Recipe["columns"] = {}): string {
  return Object.entries(columns)
    .map((pair) => pair.join("="))
    .join(", ");
}
