import { html } from "lit";
import type { Rules } from "../drawer/model/rules.js";
import { displayText } from "../drawer/selection.js";
import { DAY, MEGABYTE, MINUTE } from "../messages/units.js";
import { duration, grouped, size as sizeText } from "../messages/en/phrases.js";
import type { Gone, Positioned } from "../drawer/store.js";

/** A rule as a sentence of which one word, or a few, are a choice. */
interface RuleSentence<Value> {
  readonly before: string;
  /** What it can be made with one choice; what it is now is always among them. */
  readonly choices: readonly Value[];
  readonly say: (value: Value) => string;
}

const stays = (before: string, choices: readonly number[]): RuleSentence<number | null> => ({
  before,
  choices: [...choices, null],
  say: (age) => (age === null ? "until they are discarded" : duration(age)),
});

const SENTENCES: { readonly [Name in keyof Rules]: RuleSentence<Rules[Name]> } = {
  collecting: {
    before: "What is copied",
    choices: [true, false],
    say: (on) => (on ? "is collected" : "is not collected"),
  },
  blanks: {
    before: "What holds nothing",
    choices: ["skip", "allow"],
    say: (what) => (what === "skip" ? "is skipped" : "is collected too"),
  },
  repeats: {
    before: "When the same piece comes again,",
    choices: ["skip", "allow", "move"],
    say: (what) =>
      ({
        skip: "it is skipped",
        allow: "it is collected again",
        move: "the one that is here becomes the latest",
      })[what],
  },
  snippets: {
    before: "The drawer holds",
    choices: [100, 500, 1000, 5000, null],
    say: (count) => (count === null ? "any number of snippets" : `at most ${grouped(count)} snippets`),
  },
  size: {
    before: "They take",
    choices: [64 * MEGABYTE, 256 * MEGABYTE, 1024 * MEGABYTE, null],
    say: (size) => (size === null ? "any room" : `at most ${sizeText(size)}`),
  },
  textAge: stays("Text, tables and links stay", [7 * DAY, 30 * DAY, 365 * DAY]),
  pictureAge: stays("Pictures stay", [DAY, 7 * DAY, 30 * DAY]),
  detect: {
    before: "What looks like a secret",
    choices: [true, false],
    say: (on) => (on ? "is made private" : "is kept like the rest"),
  },
  privateAge: stays("Private snippets stay", [2 * MINUTE, 10 * MINUTE, 60 * MINUTE]),
  goneAge: {
    before: "What left can be brought back",
    choices: [DAY, 7 * DAY, 30 * DAY, null],
    say: (age) => (age === null ? "always" : `for ${duration(age)}`),
  },
};

/** The rules, each a sentence with a choice in it. */
export function rulesPanel(rules: Rules, change: (changes: Partial<Rules>) => void) {
  const names = Object.keys(SENTENCES) as (keyof Rules)[];
  return html`
    <section class="panel" aria-label="Rules">
      ${names.map((name) => ruleSentence(name, rules, change))}
      <p class="note">What is kept stays whatever the rules say. The oldest that is not kept goes first.</p>
    </section>
  `;
}

function ruleSentence<Name extends keyof Rules>(
  name: Name,
  rules: Rules,
  change: (changes: Partial<Rules>) => void,
) {
  const { before, choices, say } = SENTENCES[name] as RuleSentence<Rules[Name]>;
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

/** What has left, the latest first, and the way back. */
export function gonePanel(
  gone: readonly (Gone & Positioned)[],
  deeds: {
    readonly restore: (position: number) => void;
    readonly empty: () => void;
    readonly forget: () => void;
  },
) {
  const time = (iso: string) =>
    new Date(iso).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
  return html`
    <section class="panel" aria-label="What has left">
      ${gone.length === 0 ? html`<p class="note">Nothing has left that could be brought back.</p>` : ""}
      <ul>
        ${[...gone].reverse().map(
          ({ position, entry, at }) => html`
            <li>
              <span class="says" dir="auto">${displayText(entry)}</span>
              <span class="from">left ${time(at)}</span>
              <button @click=${() => deeds.restore(position)}>Bring back</button>
            </li>
          `,
        )}
      </ul>
      <p class="note">
        <button @click=${deeds.empty}>Empty the drawer</button> of all that is not kept, or
        <button @click=${deeds.forget}>forget it for good</button>, with all that has left.
      </p>
    </section>
  `;
}
