import type { NamedPlace } from "../../messages/core/names.js";
import type { Field } from "./field-types.js";

/** Grids that are known by their elements, and tables of fields, which any other may be. */
export type GridName = "agGrid" | "tabulator" | "handsontable" | "fields";

/** A cell of a grid. */
export interface GridCell {
  readonly element: HTMLElement;
  /** The grid's own element. */
  readonly host: Element;
  readonly grid: GridName;
  readonly name: NamedPlace;
}

/** The field that stands in a cell. */
export function fieldIn(cell: Element): Field | undefined {
  const field = cell.matches("input, textarea")
    ? (cell as Field)
    : cell.querySelector<Field>("input, textarea");
  return field && !/^(?:hidden|checkbox|radio|button|submit|password)$/.test(field.type) ? field : undefined;
}

/** What a cell shows, or what its open editor holds. */
export function shownIn(cell: HTMLElement): string {
  return (fieldIn(cell)?.value ?? cell.textContent ?? "").trim();
}
