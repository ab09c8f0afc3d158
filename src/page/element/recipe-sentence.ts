import { html } from "lit";
import { live } from "lit/directives/live.js";
import type { LayoutName } from "../../compose/layouts/index.js";
import type { Citation, StyleName } from "../../compose/options.js";
import { sentence as words } from "../../messages/core/composer-sentences.js";
import type { SnippetScope } from "./list-view-model.js";
import { DEFAULT_CHOICES, type SentenceChoices } from "./recipe-choices.js";

/** The sentence that says what is placed and how; its underlined words are choices. */

/** How layouts, looks or ways to cite are called: every one has its words. */
type Words<Name extends string> = Readonly<Record<Name, string>>;

/** What the sentence speaks of, and what is called when one of its words is changed. */
export interface SentenceState {
  readonly choices: SentenceChoices;
  readonly which: SnippetScope;
  /** How many snippets there are, how many of them are picked, and how many were found. */
  readonly count: number;
  readonly picked: number;
  readonly found: number;
  readonly choose: (choices: SentenceChoices) => void;
  readonly chooseWhich: (which: SnippetScope) => void;
  /** A document that some of them are from. */
  readonly document: string | undefined;
  /** Is called with a pick in the place of a choice. */
  readonly pick: (pick: string) => void;
}

/** What it says, without what is called. */
type SentenceFacts = Omit<SentenceState, "choose" | "chooseWhich" | "document" | "pick">;

/** Which snippets it may speak of, in words. */
function selectionsOf({ which, count, picked, found }: SentenceFacts) {
  const selections: Partial<Record<SnippetScope, string>> = {
    ...(picked > 0 && { picked: words.which.picked(picked) }),
    ...((found > 0 || which === "found") && { found: words.which.found(found) }),
    all: words.which.all(count),
    last: words.which.last,
  };
  return selections;
}

/** What it says in short: which snippets, and laid out as what, where they are not just one after another. */
export function inShort(state: SentenceFacts): string {
  const { which, choices } = state;
  const laid = choices.as === DEFAULT_CHOICES.as ? "" : ` ${words.as} ${words.layouts[choices.as]}`;
  return `${words.place} ${selectionsOf(state)[which] ?? ""}${laid}`;
}

/** Draws the sentence. */
export function sentenceView({ choose, chooseWhich, document, pick, ...state }: SentenceState) {
  const { names } = words;
  const { choices, which } = state;
  const picks: Readonly<Record<string, string>> = {
    today: words.which.today,
    ...(document !== undefined && { [`from:"${document}"`]: words.which.from(document) }),
  };
  const selections: Partial<Record<string, string>> = { ...selectionsOf(state), ...picks };
  const select = (chosen: string) => (chosen in picks ? pick(chosen) : chooseWhich(chosen as SnippetScope));
  return html`
    <p class="sentence" part="sentence">
      ${words.place} ${choice<string>(names.which, selections, which, select)} ${words.as}
      ${choice(names.as, words.layouts satisfies Words<LayoutName>, choices.as, (as) => choose({ ...choices, as }), ",")}
      ${words.in}
      ${choice(names.style, words.styles satisfies Words<StyleName>, choices.style, (style) => choose({ ...choices, style }), ",")}
      ${choice(names.tidy, words.tidying, choices.tidy, (tidy) => choose({ ...choices, tidy }), ",")}
      ${choice(names.cite, words.citations satisfies Words<Citation>, choices.cite, (cite) => choose({ ...choices, cite }), ".")}
    </p>
  `;
}

/** A word of the sentence: what it says, what else it could say, and the sign that stands after it. */
export function choice<Name extends string>(
  label: string,
  said: Partial<Record<Name, string>>,
  chosen: Name,
  choose: (name: Name) => void,
  sign = "",
) {
  const options = Object.entries(said) as [Name, string][];
  const changed = (event: Event) => choose((event.target as HTMLSelectElement).value as Name);
  return html`<span class="word"
    ><select aria-label=${label} @change=${changed}>
      ${options.map(([name, text]) => html`<option value=${name} .selected=${live(name === chosen)}>${text}</option>`)}</select
    >${sign}</span
  >`;
}
