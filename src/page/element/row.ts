import { html, nothing } from "lit";
import { originText } from "../../content/origin.js";
import type { FoundContext } from "../../drawer/find.js";
import { MASK } from "../../drawer/mask.js";
import type { Positioned } from "../../drawer/store.js";
import { row as words } from "../../messages/core/page-sentences.js";
import type { FileStanding } from "../binding/host-files.js";
import { actMenu } from "./act-menu.js";
import { timeOfDay } from "./day.js";
import { kindMark } from "./kind-mark.js";
import { dateLanguage } from "./panels/time.js";
import type { SmallGrid } from "./small-grid.js";

/** A snippet as it stands in the list, with the match where it was found. */
export interface ListRow extends Positioned {
  readonly context?: FoundContext;
  /** For a private one, when it goes, in milliseconds since 1970. */
  readonly goesAt?: number;
  /** The first rows of a table, as they are drawn small. */
  readonly grid?: SmallGrid;
  /** The address of a picture, as it is drawn small. */
  readonly picture?: string;
}

/** What can be done from a row. */
export interface RowActions {
  readonly pick: (row: ListRow) => void;
  /** Picks it and all between it and the one that was picked last. */
  readonly pickTo: (row: ListRow) => Promise<void>;
  /** Shows it whole. */
  readonly show: (row: ListRow) => void;
  readonly place: (row: ListRow) => void;
  readonly copy: (row: ListRow) => void;
  /** Opens the address that it is. */
  readonly open: (row: ListRow) => void;
  /** Moves it so many places: up when it is less than 0. Settles when it is seen. */
  readonly move: (row: ListRow, step: 1 | -1) => Promise<void>;
  readonly keep: (row: ListRow) => void;
  readonly hide: (row: ListRow) => void;
  readonly reveal: (row: ListRow) => void;
  readonly split: (row: ListRow) => void;
  /** Discards it. Settles when it is seen. */
  readonly discard: (row: ListRow) => Promise<void>;
  /** Asks for its label. */
  readonly askLabel: (row: ListRow) => void;
  /** Gives it a label; without one, it stays as it was. */
  readonly label: (row: ListRow, label: string | undefined) => void;
  /** It is about to be dragged, or is being dragged. */
  readonly prepareDrag: (row: ListRow) => void;
  readonly drag: (row: ListRow, event: DragEvent) => void;
}

/** How a row stands among the others. */
export interface RowState {
  /** How many snippets there are. */
  readonly count: number;
  /** Its turn in the pick; 0 when it is not picked. */
  readonly turn: number;
  /** What it says, when it is private and was revealed. */
  readonly revealed: string | undefined;
  /** Whether it is the one in the list that the Tab key goes to. */
  readonly isCurrent: boolean;
  /** Whether what can be done with it is shown: it is under the mouse, or the one that the Tab key goes to. */
  readonly isActive: boolean;
  /** Whether its label is being asked for. */
  readonly isLabelled: boolean;
  /** Whether it has just come. */
  readonly isNew: boolean;
  /** The day that begins with it, as it is called. */
  readonly day: string | undefined;
  /** What a click on it does. */
  readonly does: string;
  /** What has become of it in its file, where it is not the same there. */
  readonly standing: FileStanding["type"] | undefined;
}

/**
 * A row of the list: its number, what it says and where from, and what can be done with it. For who listens it is the row of a grid,
 * so that a screen reader hands its keys on to the list (ARIA Authoring Practices, Grid).
 */
export function rowOf(row: ListRow, state: RowState, actions: RowActions) {
  const { position, entry } = row;
  const { turn, isCurrent, isNew, day } = state;
  const pick = words.pick({ position, turn });
  const states = Object.entries({ picked: turn > 0, current: isCurrent, new: isNew });
  return html`
    <div
      role="row"
      data-position=${position}
      data-id=${entry.id}
      aria-rowindex=${position}
      aria-selected=${turn > 0}
      class=${["row", ...states.flatMap(([name, is]) => (is ? name : []))].join(" ")}
      part=${turn > 0 ? "row picked" : "row"}
      draggable=${state.isLabelled ? "false" : "true"}
      @pointerdown=${() => actions.prepareDrag(row)}
      @dragstart=${(event: DragEvent) => actions.drag(row, event)}
    >
      ${day === undefined ? nothing : html`<span class="day" role="rowheader">${day}</span>`}
      <span class="of" role="gridcell"
        ><button
          class="position"
          tabindex="-1"
          aria-pressed=${turn > 0}
          aria-label=${pick}
          title=${pick}
          @click=${(event: MouseEvent) => (event.shiftKey ? actions.pickTo(row) : actions.pick(row))}
        >
          <b class="box">${turn > 0 ? turn : ""}</b>${position}
        </button></span
      >
      <span class="of" role="gridcell"
        >${state.isLabelled ? labelField(row, actions) : saying(row, state, actions)}</span
      >
      ${state.isActive ? rowButtons(row, state, actions) : nothing}
    </div>
  `;
}

/** What it says and where from: the button that places it. What is only heard stands in it too, so that its name holds what is seen. */
function saying(row: ListRow, { revealed, isCurrent, does, standing }: RowState, actions: RowActions) {
  const { position, entry, context } = row;
  const isShown = !entry.private && !context;
  const picture = row.picture === undefined ? undefined : html`<img src=${row.picture} alt="" />`;
  const small = isShown ? (row.grid ? drawn(row.grid) : picture) : undefined;
  const says = entry.private ? (revealed ?? MASK) : context ? marked(context) : (small ?? entry.text);
  const facts = [
    entry.kept ? words.kept : "",
    entry.private ? privacy(row.goesAt) : "",
    originText(entry.origin),
  ];
  return html`
    <button
      class="snippet"
      tabindex=${isCurrent ? "0" : "-1"}
      title=${does}
      @click=${(event: MouseEvent) => (event.shiftKey ? actions.pickTo(row) : actions.place(row))}
    >
      ${kindMark(entry.kind)}
      <span class="heard">${position}, ${entry.kind === "text" ? "" : words.kinds[entry.kind]}</span>
      <span class=${small ? "says drawn" : "says"} dir="auto"
        >${entry.label ? html`<b>${entry.label}</b> ` : nothing}${says}</span
      >
      ${small ? html`<span class="heard">${entry.text}</span>` : nothing}
      <span class="from"
        >${standing && html`<i class="standing">${words.standings[standing]}</i> `}${facts.filter(Boolean).join(" · ")}</span
      >
      <span class="when">${timeOfDay(entry.collectedAt)}</span>
    </button>
  `;
}

/** Something that can be done with a row: how it is called, what does it, and whether it cannot be done now. */
type RowAct = readonly [word: string, act: (row: ListRow) => void, isOff?: boolean];

/**
 * What can be done with it. Those that are done most often are in sight at any width; where there is no room for the others, a
 * choice has all of them. Each says also to which snippet it is done.
 */
function rowButtons(row: ListRow, { count, revealed }: RowState, actions: RowActions) {
  const { position, entry } = row;
  const always: RowAct[] = [
    [words.show, actions.show],
    [words.discard, actions.discard],
  ];
  const often: RowAct[] = [
    [words.copy, actions.copy],
    [entry.kept ? words.release : words.keep, actions.keep],
  ];
  const others: RowAct[] = [
    ...(entry.kind === "link" && !entry.private ? [[words.open, actions.open] as const] : []),
    [words.label, actions.askLabel],
    ...(entry.private ? [[revealed === undefined ? words.reveal : words.mask, actions.reveal] as const] : []),
    [entry.private ? words.unhide : words.hide, actions.hide],
    ...(entry.parts ? [[words.split, actions.split] as const] : []),
    [words.earlier, (each) => actions.move(each, -1), position === 1],
    [words.later, (each) => actions.move(each, 1), position === count],
  ];
  const button = ([word, act, isOff = false]: RowAct) =>
    html`<button
      tabindex="-1"
      ?disabled=${isOff}
      aria-label=${words.actionOn({ action: word, position })}
      @click=${() => act(row)}
    >
      ${word}
    </button>`;
  const now = [...always, ...often, ...others].filter(([, , isOff]) => !isOff);
  return html`
    <span class="actions" part="actions" role="gridcell" tabindex="-1">
      ${always.map(button)}
      <span class="often">${often.map(button)}</span>
      <span class="others">${others.map(button)}</span>
      ${actMenu(
        words.otherActs,
        now.map(([word]) => [word, word]),
        (chosen) => now.find(([word]) => word === chosen)![1](row),
        { label: words.actionOn({ action: words.otherActs, position }), tabindex: -1 },
      )}
    </span>
  `;
}

/** Where its label is written: Enter gives it, Escape leaves it as it was. */
function labelField(row: ListRow, actions: RowActions) {
  const { position, entry } = row;
  const field = (event: Event) => event.currentTarget as HTMLInputElement;
  const key = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key !== "Escape" && event.key !== "Enter") return;
    // The key is not for what has the focus next.
    event.preventDefault();
    actions.label(row, event.key === "Enter" ? field(event).value : undefined);
  };
  return html`<span class="label">
    <input
      aria-label=${words.labelOf(position)}
      placeholder=${words.labelOf(position)}
      .value=${entry.label ?? ""}
      @keydown=${key}
      @blur=${(event: Event) => actions.label(row, field(event).value)}
    />
  </span>`;
}

/** That a snippet is private, and until when: a time stays true while nobody draws it again. */
function privacy(goesAt: number | undefined): string {
  if (goesAt === undefined) return words.private;
  return words.privateUntil(new Date(goesAt).toLocaleTimeString(dateLanguage(), { timeStyle: "medium" }));
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
