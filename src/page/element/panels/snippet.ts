import { html, nothing } from "lit";
import { originText } from "../../../content/origin.js";
import type { Snippet } from "../../../drawer/snippets.js";
import { snippetPanel as words } from "../../../messages/core/page-sentences.js";
import type { ShownBlock } from "../../binding/blocks.js";
import { lookedAt } from "../looked-at.js";
import { shownTime } from "./time.js";

/** One snippet whole, as it is written out, with where it came from and when. What is private stays masked. */
export function snippetPanel({ position, entry }: Snippet, written: ShownBlock) {
  const facts = [
    entry.label ?? "",
    originText(entry.origin),
    words.came(shownTime(entry.collectedAt)),
    entry.kept ? words.kept : "",
  ];
  return html`
    <section class="panel whole" aria-label=${words.name(position)} part="panel" tabindex="0">
      <p class="note">${facts.filter(Boolean).join(" · ")}</p>
      <div class="preview" dir="auto">
        ${lookedAt(written.html)}${written.isCut ? html`<p class="note">${words.more}</p>` : nothing}
      </div>
    </section>
  `;
}
