import type { Block } from "../../compose/block.js";
import { defined } from "../../content/defined.js";
import type { Flavours } from "../../formats/flavours.js";
import type { NamedPlace } from "../../messages/core/names.js";
import { fieldIn, shownIn, type GridCell, type GridName } from "./cells.js";
import { putting } from "./lazy.js";
import { describePlace } from "./name.js";
import type { Caret, Place, PlaceKind, Placing } from "./place.js";

/** How a grid and its cells are told. How something is written into them stands in `putting/grids.ts`. */
interface GridKind {
  /** The grid's own element. */
  readonly host: string;
  /** A cell of it. */
  readonly cell: string;
  /** The cell that is chosen, where the focus is not in it. */
  readonly chosen?: string;
  /** Whether an element that `host` tells is one after all. */
  readonly isGrid?: (host: Element) => boolean;
}

const GRIDS: Readonly<Record<GridName, GridKind>> = {
  agGrid: { host: ".ag-root-wrapper", cell: ".ag-cell", chosen: ".ag-cell-focus" },
  tabulator: {
    host: ".tabulator",
    cell: ".tabulator-cell",
    chosen: ".tabulator-editing, .tabulator-range-only-cell-selected",
  },
  handsontable: {
    host: ".handsontable:not(.handsontable .handsontable)",
    cell: ".ht_master tbody td",
    chosen: ".ht_master td.current",
  },
  fields: {
    ...{ host: "table, [role=grid]", cell: "td, th, [role=gridcell]" },
    isGrid: (host) =>
      [...host.querySelectorAll("tr, [role=row]")].some(
        (row) => [...row.children].filter((cell) => fieldIn(cell)).length > 1,
      ),
  },
};

/** The cells of grids. */
export const grids: PlaceKind = { find: gridPlaceOf };

function gridPlaceOf(element: Element): GridPlace | undefined {
  for (const [name, kind] of Object.entries(GRIDS) as [GridName, GridKind][]) {
    const host = element.closest(kind.host);
    if (!host || (kind.isGrid && !kind.isGrid(host))) continue;
    const cell =
      element.closest<HTMLElement>(kind.cell) ?? host.querySelector<HTMLElement>(kind.chosen ?? ":not(*)");
    if (!cell) continue;
    if (name !== "fields") return new GridPlace(cell, host, name);
    // There one writes in the field, and its caret counts.
    const field = fieldIn(cell);
    if (field) return new GridPlace(field, host, name);
  }
  return undefined;
}

/** What the chosen cell of a grid shows, for a copy when nothing is selected; nothing in anything else. */
export function copiedCell(element: Element): Flavours | undefined {
  const cell = gridPlaceOf(element);
  const text = cell && !fieldIn(cell.element) ? shownIn(cell.element) : "";
  return text === "" ? undefined : { text };
}

/** A cell of a grid, from which on a block goes down and across. */
export class GridPlace implements Place, GridCell {
  readonly fit = "cells";

  constructor(
    readonly element: HTMLElement,
    readonly host: Element,
    readonly grid: GridName,
  ) {}

  get name(): NamedPlace {
    const own = fieldIn(this.element);
    if (own?.getAttribute("aria-label") || own?.labels?.length) return describePlace(own);
    return { element: "cell", ...defined({ column: this.#column() || undefined }) };
  }

  /** What stands above its column. */
  #column(): string {
    const { element: cell, host } = this;
    const index = cell.getAttribute("aria-colindex") ?? cell.getAttribute("tabulator-field");
    const byIndex =
      index !== null &&
      host.querySelector(`[role=columnheader]:is([aria-colindex="${index}"], [tabulator-field="${index}"])`);
    const column = [...(cell.parentElement?.children ?? [])].indexOf(cell);
    const heads = host.querySelector("thead tr")?.children;
    return (byIndex || heads?.[column])?.textContent?.replace(/\s+/g, " ").trim() ?? "";
  }

  async put(block: Block, caret?: Caret): Promise<Placing> {
    return (await putting()).putIntoGrid(this, block, caret);
  }
}
