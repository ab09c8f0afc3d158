import type { Notice } from "../content/notice.js";

/** What a file can be taken by, one by one. */
export const UNITS = ["row", "cell", "paragraph", "item", "line"] as const;
/** A row, a cell, a paragraph, an item of a list, or a line of plain text. */
export type Unit = (typeof UNITS)[number];

/** The spots of the units of a source, and what is told of what stands between them. */
export interface Units {
  readonly spots: readonly string[];
  readonly notices: readonly Notice[];
}
