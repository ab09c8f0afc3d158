import pLimit from "p-limit";
import type { DrawerHost } from "./drawer-host.js";
import { actionOfKey, type RunAction } from "./keys.js";
import type { ListRow, RowActions } from "./row.js";

/** What the keys of the list need of it. */
export interface KeyedList {
  /** The rows that are drawn. */
  readonly rows: readonly ListRow[];
  /** Gives a row the focus, by its position or, of what was found, its place there. */
  focusAt(position: number): Promise<void>;
  /** The same at once, where the row is drawn. Returns whether it is. */
  focusDrawn(position: number): boolean;
}

/** What keys do while the focus is on a choice: they lead away from it. */
const OUT_OF_A_CHOICE: ReadonlySet<RunAction> = new Set(["left", "right", "leave"]);

/** The keys of the list: each does to the row with the focus what its button does, or takes the focus elsewhere. */
export class ListKeys {
  /** Keys that came before what those before them do was seen. */
  readonly #inTurn = pLimit(1);

  constructor(
    readonly host: DrawerHost,
    readonly list: KeyedList,
    readonly actions: RowActions,
  ) {}

  readonly pressed = (event: KeyboardEvent): void => {
    const action = actionOfKey(event);
    const target = event.target as HTMLElement;
    if (!action || !this.#rowOf(target)) return;
    // A choice has keys of its own.
    if (target.localName === "select" && !OUT_OF_A_CHOICE.has(action)) return;
    event.preventDefault();
    event.stopPropagation();
    const isUnderWay = this.#inTurn.activeCount + this.#inTurn.pendingCount > 0;
    if (isUnderWay) return void this.#inTurn(() => this.#perform(action, this.#focused));
    const there = this.#perform(action, target);
    if (there) void this.#inTurn(() => there);
  };

  get #focused(): HTMLElement | null {
    return (this.host.renderRoot as ShadowRoot).activeElement as HTMLElement | null;
  }

  /** The row that something stands in. */
  #rowOf(element: Element | null): ListRow | undefined {
    const id = element?.closest<HTMLElement>(".row")?.dataset["id"];
    return id === undefined ? undefined : this.list.rows.find(({ entry }) => entry.id === id);
  }

  /** Does what a key says. Settles when the next key can be about what it came to; gives nothing back where that is so at once. */
  #perform(action: RunAction, target: HTMLElement | null): Promise<void> | void {
    const row = this.#rowOf(target);
    if (!target || !row) return;
    const { found } = this.host.viewModel!;
    const place = found ? found.indexOf(row) + 1 : row.position;
    switch (action) {
      case "next":
        return this.#goTo(place + 1);
      case "previous":
        return this.#goTo(place - 1);
      case "first":
        return this.#goTo(1);
      case "last":
        return this.#goTo(Infinity);
      case "right":
        return this.#goInside(target, 1);
      case "left":
        return this.#goInside(target, -1);
      case "later":
        return this.actions.move(row, 1);
      case "earlier":
        return this.actions.move(row, -1);
      case "label":
        return this.actions.askLabel(row);
      case "pickAll":
        return this.host.act(async () => {
          await this.host.pick("all");
          return [];
        });
      case "pick":
      case "pickTo":
      case "show":
      case "keep":
      case "copy":
      case "discard":
        return this.actions[action](row);
      case "edit":
        return this.host.show(row, true);
      case "suggested":
        return this.host.takeSuggestion();
      case "undo":
        return this.host.undo();
      case "redo":
        return this.host.redo();
      case "leave":
        // What is picked is let go of first.
        return this.host.viewModel!.picked.length > 0 ? void this.host.pick("") : this.host.leave();
    }
  }

  /** Gives the focus to a row: by its position or, of what was found, its place there. */
  #goTo(place: number): Promise<void> | void {
    const { found, count } = this.host.viewModel!;
    const there = Math.min(Math.max(1, place), found?.length ?? count);
    return this.list.focusDrawn(there) ? undefined : this.list.focusAt(there);
  }

  /** Gives the focus to what is beside, in the same row. */
  #goInside(target: HTMLElement, step: 1 | -1): void {
    const controls = [
      ...target.closest(".row")!.querySelectorAll<HTMLElement>(":is(button, select):enabled"),
    ];
    const seen = controls.filter((control) => control.checkVisibility());
    seen[seen.indexOf(target) + step]?.focus();
  }
}
