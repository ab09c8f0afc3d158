import { html, nothing } from "lit";
import { originText } from "../content/origin.js";
import type { Context } from "../drawer/find.js";
import { MASK } from "../drawer/secret.js";
import type { SmallGrid } from "./small-grid.js";
import type { Positioned } from "../drawer/store.js";

/** A snippet as it stands in the run, with the match where it was found. */
export interface ListRow extends Positioned {
  readonly context?: Context;
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
export function rowOf(row: ListRow, { count, turn, revealed }: RowState, deeds: RowActions) {
  const { position, entry, context, grid } = row;
  const from = originText(entry.origin);
  const facts = [
    entry.kept ? "kept" : "",
    entry.private ? privacy(row.goesAt) : "",
    entry.kind === "text" ? "" : entry.kind,
    from,
  ];
  const pick = turn > 0 ? `Picked as number ${turn}; take out of the pick` : `Pick snippet ${position}`;
  const said = entry.private ? "private" : entry.text;
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
        @click=${() => deeds.pick(row)}
      >
        ${turn > 0 ? html`<b>${turn}</b>` : position}
      </button>
      <button
        class="snippet"
        aria-label="${position}, ${entry.label ? `${entry.label}, ` : ""}${said}, ${entry.kept ? "kept, " : ""}from ${from || "elsewhere"}. Place at the caret"
        title="Place at the caret"
        @click=${() => deeds.place(row)}
      >
        <span class=${!entry.private && !context && grid ? "says drawn" : "says"} dir="auto"
          >${entry.label ? html`<b>${entry.label}</b> ` : nothing}${
            entry.private ? (revealed ?? MASK) : context ? marked(context) : grid ? drawn(grid) : entry.text
          }</span
        >
        <span class="from">${facts.filter(Boolean).join(" · ")}</span>
      </button>
      <span class="deeds">
        <button @click=${() => deeds.keep(row)}>${entry.kept ? "Release" : "Keep"}</button>
        ${
          entry.private
            ? html`<button @click=${() => deeds.reveal(row)}>
                ${revealed === undefined ? "Reveal" : "Mask"}
              </button>`
            : nothing
        }
        <button @click=${() => deeds.hide(row)}>${entry.private ? "Unhide" : "Hide"}</button>
        <button ?disabled=${position === 1} @click=${() => deeds.move(row, position - 1)}>Earlier</button>
        <button ?disabled=${position === count} @click=${() => deeds.move(row, position + 2)}>Later</button>
        <button @click=${() => deeds.discard(row)}>Discard</button>
      </span>
    </li>
  `;
}

/** That a snippet is private, and until when: a time stays true while nobody draws it again. */
function privacy(goesAt: number | undefined): string {
  if (goesAt === undefined) return "private";
  return `private, goes at ${new Date(goesAt).toLocaleTimeString(undefined, { timeStyle: "medium" })}`;
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
function marked({ text, matches }: Context) {
  let at = 0;
  const parts = matches.map(([from, to]) => {
    const part = html`${text.slice(at, from)}<mark>${text.slice(from, to)}</mark>`;
    at = to;
    return part;
  });
  return html`${parts}${text.slice(at)}`;
}
