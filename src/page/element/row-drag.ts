import type { Block } from "../../compose/block.js";
import { pickOf } from "../../drawer/model/pick.js";
import { composed } from "../binding/lazy.js";
import { carryBlock } from "../places/carrying.js";
import type { DrawerHost } from "./drawer-host.js";
import type { ListRow } from "./row.js";

/** A row that is dragged: out of the drawer as a block, or to another place in the list. */
export class RowDrag {
  /** The row that may be dragged, with its block as soon as that is made. */
  #dragged: { readonly row: ListRow; block?: Block } | undefined;
  /** Whether it is being dragged now: a row that was only pressed is not. */
  #isDragging = false;

  constructor(readonly host: DrawerHost) {}

  /** Makes the block of a row that may be about to be dragged: it is handed over in the moment in which the drag begins. */
  async prepare(row: ListRow): Promise<void> {
    const dragged: { readonly row: ListRow; block?: Block } = { row };
    this.#dragged = dragged;
    const snippets = await this.host.viewModel!.drawer.read([row]);
    dragged.block = await composed(snippets, { ...this.host.styleOfOne, fit: "page" });
  }

  /** Hands the block over. */
  begin({ entry }: ListRow, event: DragEvent): void {
    const dragged = this.#dragged;
    if (dragged?.row.entry.id !== entry.id || !dragged.block || !event.dataTransfer)
      return event.preventDefault();
    carryBlock(event.dataTransfer, dragged.block);
    event.dataTransfer.effectAllowed = "copyMove";
    this.#isDragging = true;
  }

  /** Shows where the row that is being dragged would go. Returns whether it is one of the list. */
  over(event: DragEvent): boolean {
    if (!this.#isDragging) return false;
    this.left();
    const goal = this.#goal(event);
    if (goal) goal.on.dataset["drop"] = goal.isAfter ? "after" : "before";
    return true;
  }

  /** Shows no more where it would go. */
  left(): void {
    for (const row of this.host.renderRoot.querySelectorAll<HTMLElement>("[data-drop]"))
      delete row.dataset["drop"];
  }

  /** The row that something hangs over, and whether it is the lower half of it; nothing over the dragged row itself. */
  #goal(event: DragEvent): { readonly on: HTMLElement; readonly isAfter: boolean } | undefined {
    const on = (event.composedPath()[0] as Element).closest?.<HTMLElement>(".list .row");
    if (!on || on.dataset["id"] === this.#dragged?.row.entry.id) return undefined;
    const box = on.getBoundingClientRect();
    return { on, isAfter: event.clientY > box.top + box.height / 2 };
  }

  /** Moves the row that is being dragged to where it is dropped in the list. Returns whether it was one of the list. */
  dropped(event: DragEvent): boolean {
    const dragged = this.#dragged;
    const isOwn = this.#isDragging;
    const goal = this.#goal(event);
    this.ended();
    if (!isOwn || !dragged) return false;
    if (!goal) return true;
    const before = Number(goal.on.dataset["position"]) + (goal.isAfter ? 1 : 0);
    const place = before > this.host.viewModel!.count ? ("end" as const) : { position: before };
    this.host.act((drawer) => drawer.move(pickOf([dragged.row]), place));
    return true;
  }

  /** A drag that began in the list has ended, wherever that was. */
  ended(): void {
    this.left();
    this.#dragged = undefined;
    this.#isDragging = false;
  }
}
