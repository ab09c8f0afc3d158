import type { LayoutOptions } from "./layout.js";
import type { LayoutName } from "./layouts/index.js";
import type { Citation, StyleName } from "./options.js";

/** How a block is made of the snippets that were picked. Whatever is absent has its default. */
export interface Recipe extends LayoutOptions {
  /** How it is laid out; `sequence` (each as it is, one after another). */
  readonly as?: LayoutName;
  /** Whose look; `own`. */
  readonly style?: StyleName;
  /** How sources are named; `none`. */
  readonly cite?: Citation;
  /** Text before each piece. */
  readonly before?: string;
  /** Text after each piece. */
  readonly after?: string;
}
