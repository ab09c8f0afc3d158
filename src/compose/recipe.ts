import { DrawerError } from "../content/error.js";

/** How a block is laid out. */
export const LAYOUTS = ["sequence", "lines", "bullets", "numbers", "rows"] as const;

/** The name of a layout. */
export type LayoutName = (typeof LAYOUTS)[number];

/** How a block is made of the snippets that were picked. */
export interface Recipe {
  /** How it is laid out; `sequence` (each as it is, one after another) when absent. */
  readonly as?: LayoutName;
}

/**
 * Checks the name of a layout.
 * @throws DrawerError `bad-option` when there is none of that name
 */
export function layoutName(name: string): LayoutName {
  const found = LAYOUTS.find((layout) => layout === name);
  if (found) return found;
  throw new DrawerError(
    "bad-option",
    `There is no layout “${name}”. The layouts are: ${LAYOUTS.join(", ")}.`,
  );
}
