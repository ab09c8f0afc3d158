import { html } from "lit";
import type { Rules } from "../../../drawer/model/rules.js";
import { rulesPanel as rulesWords, ruleSentences } from "../../../messages/core/panel-sentences.js";
import { DAY, MEGABYTE, MINUTE } from "../../../messages/core/units.js";

/** What each rule can be made with one choice; what it is now is always among them. */
const CHOICES: { readonly [Name in keyof Rules]: readonly Rules[Name][] } = {
  collecting: [true, false],
  blanks: ["skip", "allow"],
  repeats: ["skip", "allow", "move"],
  snippets: [100, 500, 1000, 5000, null],
  size: [64 * MEGABYTE, 256 * MEGABYTE, 1024 * MEGABYTE, null],
  textAge: [7 * DAY, 30 * DAY, 365 * DAY, null],
  pictureAge: [DAY, 7 * DAY, 30 * DAY, null],
  detect: [true, false],
  privateAge: [2 * MINUTE, 10 * MINUTE, 60 * MINUTE, null],
  goneAge: [DAY, 7 * DAY, 30 * DAY, null],
  neverFrom: [""],
};

/**
 * The rules, each a sentence with a choice in it.
 * @param isDesktop whether what is copied on a desktop is collected; else the rule for that is not shown
 */
export function rulesPanel(rules: Rules, isDesktop: boolean, change: (changes: Partial<Rules>) => void) {
  const all = Object.keys(CHOICES) as (keyof Rules)[];
  const names = all.filter((name) => name !== "neverFrom" || isDesktop);
  return html`
    <section class="panel" aria-label=${rulesWords.name}>
      ${names.map((name) => ruleSentence(name, rules, change))}
      <p class="note">${rulesWords.note}</p>
    </section>
  `;
}

function ruleSentence<Name extends keyof Rules>(
  name: Name,
  rules: Rules,
  change: (changes: Partial<Rules>) => void,
) {
  const { before, say } = ruleSentences[name] as {
    readonly before: string;
    readonly say: (value: Rules[Name]) => string;
  };
  const choices: readonly Rules[Name][] = CHOICES[name];
  const all = [...new Set([...choices, rules[name]])];
  const changed = (event: Event) => {
    const select = event.target as HTMLSelectElement;
    const value = all[select.selectedIndex];
    // It shows what holds; when the change is made it shows that.
    select.selectedIndex = all.indexOf(rules[name]);
    change({ [name]: value });
  };
  return html`
    <p class="rule">
      ${before}
      <span class="word"
        ><select aria-label=${before} @change=${changed}>
          ${all.map((value) => html`<option ?selected=${value === rules[name]}>${say(value)}</option>`)}</select
        >.</span
      >
    </p>
  `;
}
