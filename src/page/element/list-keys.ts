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
}

/** What keys do while the focus is on a choice: they lead away from it. */
const OUT_OF_A_CHOICE: ReadonlySet<RunAction> = new Set(["left", "right", "leave"]);

/** The keys of the list: each does to the row with the focus what its button does, or takes the focus elsewhere. */
export class ListKeys {
  /** Where the keys lead that have come, until the focus is there. */
  #goal: number | undefined;
  readonly #inTurn = pLimit(1);

  constructor(
    readonly host: DrawerHost,
    readonly list: KeyedList,
    readonly actions: RowActions,
  ) {}

  readonly pressed = (event: KeyboardEvent): void => {
    const item = (event.target as Element).closest<HTMLElement>(".row");
    const row = this.list.rows.find(({ entry }) => entry.id === item?.dataset["id"]);
    const action = actionOfKey(event);
    if (!item || !row || !action) return;
    // A choice has keys of its own.
    if ((event.target as Element).localName === "select" && !OUT_OF_A_CHOICE.has(action)) return;
    this.#perform(action, row, item);
    event.preventDefault();
    event.stopPropagation();
  };

  #perform(action: RunAction, row: ListRow, item: Element): void {
    switch (action) {
      case "next":
        return this.#goBy(row, 1);
      case "previous":
        return this.#goBy(row, -1);
      case "first":
        return void this.list.focusAt(1);
      case "last":
        return void this.list.focusAt(this.host.viewModel!.count);
      case "right":
        return this.#goInside(item, 1);
      case "left":
        return this.#goInside(item, -1);
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

  /**
   * Gives the focus to the row beside: in the list the next position, in what was found the next one found. Keys may come faster
   * than rows are drawn: each goes on from where the one before leads.
   */
  #goBy(row: ListRow, step: 1 | -1): void {
    const { found, count } = this.host.viewModel!;
    const here = this.#goal ?? (found ? found.indexOf(row) + 1 : row.position);
    const goal = Math.min(Math.max(1, here + step), found?.length ?? count);
    this.#goal = goal;
    void this.#inTurn(async () => {
      if (goal !== this.#goal) return;
      await this.list.focusAt(goal);
      if (goal === this.#goal) this.#goal = undefined;
    });
  }

  /** Gives the focus to what is beside, in the same row. */
  #goInside(item: Element, step: 1 | -1): void {
    const controls = [...item.querySelectorAll<HTMLElement>(":is(button, select):enabled")];
    const seen = controls.filter((control) => control.checkVisibility());
    const { activeElement } = this.host.renderRoot as ShadowRoot;
    seen[seen.indexOf(activeElement as HTMLElement) + step]?.focus();
  }
}
