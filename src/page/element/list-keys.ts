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

/** The keys of the list: each does to the row with the focus what its button does, or takes the focus elsewhere. */
export class ListKeys {
  constructor(
    readonly host: DrawerHost,
    readonly list: KeyedList,
    readonly actions: RowActions,
  ) {}

  readonly pressed = (event: KeyboardEvent): void => {
    const item = (event.target as Element).closest("li");
    const row = this.list.rows.find(({ entry }) => entry.id === item?.dataset["id"]);
    const action = actionOfKey(event);
    if (!item || !row || !action) return;
    this.#perform(action, row, item);
    event.preventDefault();
    event.stopPropagation();
  };

  #perform(action: RunAction, row: ListRow, item: Element): void {
    switch (action) {
      case "next":
        return void this.#goBy(row, 1);
      case "previous":
        return void this.#goBy(row, -1);
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
      case "pick":
      case "keep":
      case "copy":
      case "discard":
        return this.actions[action](row);
      case "undo":
        return this.host.undo();
      case "redo":
        return this.host.redo();
      case "leave":
        return this.host.leave();
    }
  }

  /** Gives the focus to the row beside: in the run the next position, in what was found the next one found. */
  async #goBy(row: ListRow, step: 1 | -1): Promise<void> {
    const at = this.host.viewModel?.found?.indexOf(row);
    const position = (at === undefined ? row.position : at + 1) + step;
    if (position >= 1) await this.list.focusAt(position);
  }

  /** Gives the focus to the button beside, in the same row. */
  #goInside(item: Element, step: 1 | -1): void {
    const buttons = [...item.querySelectorAll<HTMLButtonElement>("button:enabled")];
    const { activeElement } = this.host.renderRoot as ShadowRoot;
    buttons[buttons.indexOf(activeElement as HTMLButtonElement) + step]?.focus();
  }
}
