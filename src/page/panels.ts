import { html } from "lit";
import { readRule, sayRules, type Rules } from "../drawer/rules.js";
import { shown } from "../drawer/saying.js";
import type { Gone, Positioned } from "../drawer/store.js";

/** What each rule can be made with one choice; what it is now is always among them. */
const CHOICES: Readonly<Record<keyof Rules, readonly string[]>> = {
  collecting: ["on", "off"],
  blanks: ["skip", "allow"],
  repeats: ["skip", "allow", "move"],
  snippets: ["100", "500", "1,000", "5,000", "any"],
  size: ["64 MB", "256 MB", "1 GB", "any"],
  textAge: ["7 days", "30 days", "365 days", "never"],
  pictureAge: ["1 day", "7 days", "30 days", "never"],
  detect: ["on", "off"],
  privateAge: ["2 minutes", "10 minutes", "1 hour", "never"],
  goneAge: ["1 day", "7 days", "30 days", "never"],
};

/** The rules, each a sentence and a choice. */
export function rulesPanel(rules: Rules, change: (changes: Partial<Rules>) => void) {
  return html`
    <section class="panel" aria-label="Rules">
      <dl>
        ${sayRules(rules).map(
          ({ key, name, value, sentence }) => html`
            <dt>
              <select
                aria-label=${name}
                .value=${value}
                @change=${(event: Event) => change(readRule(`${name}=${(event.target as HTMLSelectElement).value}`))}
              >
                ${[...new Set([...CHOICES[key], value])].map(
                  (choice) =>
                    html`<option value=${choice} ?selected=${choice === value}>${name}: ${choice}</option>`,
                )}
              </select>
            </dt>
            <dd>${sentence.replace(/ until “.*(?=\.)/, "")}</dd>
          `,
        )}
      </dl>
    </section>
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
              <span class="says" dir="auto">${shown(entry)}</span>
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
