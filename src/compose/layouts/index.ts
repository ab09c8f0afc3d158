import type { Layout } from "../layout.js";
import { columns } from "./columns.js";
import { joined } from "./joined.js";
import { lines } from "./lines.js";
import { link } from "./link.js";
import { bullets, numbers } from "./list.js";
import { pairs } from "./pairs.js";
import { quotes } from "./quotes.js";
import { rows } from "./rows.js";
import { sentence } from "./sentence.js";
import { sequence } from "./sequence.js";

/** All layouts, by the names that a recipe calls them by: one file a layout, and this map. */
export const layouts = {
  sequence,
  lines,
  joined,
  sentence,
  bullets,
  numbers,
  rows,
  columns,
  pairs,
  link,
  quotes,
} satisfies Readonly<Record<string, Layout>>;

/** The name of a layout. */
export type LayoutName = keyof typeof layouts;

/** How a block can be laid out. */
export const LAYOUTS = Object.keys(layouts) as readonly LayoutName[];
