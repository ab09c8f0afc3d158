import { html, nothing } from "lit";
import { originText } from "../content/origin.js";
import type { FoundContext } from "../drawer/find.js";
import { page, row as words } from "../messages/en/page.js";
import { MASK } from "../drawer/secret.js";
import type { SmallGrid } from "./small-grid.js";
import type { Positioned } from "../drawer/store.js";

/** A snippet as it stands in the run, with the match where it was found. */
export interface ListRow extends Positioned {
  readonly context?: FoundContext;
  /** For a private one, when it goes, in milliseconds since 1970. */
  readonly goesAt?: number;
  /** The first rows of a table, as they are drawn small. */
  readonly grid?: SmallGrid;
}

/** What can be done from a row. */
export interface RowActions {
  readonly pick: (row: ListRow) => void;
  readonly place: (row: ListRow) => void;
  readonly move: (row: ListRow, before: number) => void;
  readonly keep: (row: ListRow) => void;
  readonly hide: (row: ListRow) => void;
  readonly reveal: (row: ListRow) => void;
  readonly discard: (row: ListRow) => void;
}

/** How a row stands among the others. */
export interface RowState {
  /** How many snippets there are. */
  readonly count: number;
  /** Its turn in the pick; 0 when it is not picked. */
  readonly turn: number;
  /** What it says, when it is private and was revealed. */
  readonly revealed: string | undefined;
}

/** A row of the run: its number, what it says and where from, and what can be done with it. */
export function rowOf(row: ListRow, { count, turn, revealed }: RowState, actions: RowActions) {
  const { position, entry, context, grid } = row;
  const from = originText(entry.origin);
  const facts = [
    entry.kept ? words.kept : "",
    entry.private ? privacy(row.goesAt) : "",
    entry.kind === "text" ? "" : entry.kind,
    from,
  ];
  const pick = words.pick({ position, turn });
  const text = entry.private ? words.private : entry.text;
  const name = words.name({ position, label: entry.label, text, kept: entry.kept, from });
  return html`
    <li
      data-position=${position}
      data-id=${entry.id}
      aria-setsize=${count}
      aria-posinset=${position}
      class=${turn > 0 ? "picked" : ""}
    >
      <button
        class="position"
        aria-pressed=${turn > 0}
        aria-label=${pick}
        title=${pick}
        @click=${() => actions.pick(row)}
      >
        ${turn > 0 ? html`<b>${turn}</b>` : position}
      </button>
      <button class="snippet" aria-label=${name} title=${page.place} @click=${() => actions.place(row)}>
        <span class=${!entry.private && !context && grid ? "says drawn" : "says"} dir="auto"
          >${entry.label ? html`<b>${entry.label}</b> ` : nothing}${
            entry.private ? (revealed ?? MASK) : context ? marked(context) : grid ? drawn(grid) : entry.text
          }</span
        >
        <span class="from">${facts.filter(Boolean).join(" · ")}</span>
      </button>
      <span class="actions">
        <button @click=${() => actions.keep(row)}>${entry.kept ? words.release : words.keep}</button>
        ${
          entry.private
            ? html`<button @click=${() => actions.reveal(row)}>
                ${revealed === undefined ? words.reveal : words.mask}
              </button>`
            : nothing
        }
        <button @click=${() => actions.hide(row)}>${entry.private ? words.unhide : words.hide}</button>
        <button ?disabled=${position === 1} @click=${() => actions.move(row, position - 1)}>
          ${words.earlier}
        </button>
        <button ?disabled=${position === count} @click=${() => actions.move(row, position + 2)}>
          ${words.later}
        </button>
        <button @click=${() => actions.discard(row)}>${words.discard}</button>
      </span>
    </li>
  `;
}

/** That a snippet is private, and until when: a time stays true while nobody draws it again. */
function privacy(goesAt: number | undefined): string {
  if (goesAt === undefined) return words.private;
  return words.privateUntil(new Date(goesAt).toLocaleTimeString(undefined, { timeStyle: "medium" }));
}

/** A small table. It stands in a button, whose name says the same, so it is for the eyes alone. */
function drawn({ rows, headerRows, isCut }: SmallGrid) {
  return html`<span class="grid" aria-hidden="true"
    >${rows.map(
      (cells, index) =>
        html`<span class="line"
          >${cells.map((text) => html`<span class=${index < headerRows ? "cell head" : "cell"}>${text}</span>`)}${
            isCut ? html`<span class="cell">…</span>` : nothing
          }</span
        >`,
    )}</span
  >`;
}

/** A text with its matches marked. */
function marked({ text, matches }: FoundContext) {
  let at = 0;
  const parts = matches.map(([from, to]) => {
    const part = html`${text.slice(at, from)}<mark>${text.slice(from, to)}</mark>`;
    at = to;
    return part;
  });
  return html`${parts}${text.slice(at)}`;
}
