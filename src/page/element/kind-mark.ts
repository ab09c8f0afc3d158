import { svg } from "lit";
import type { Kind } from "../../content/kind.js";

/** Lines of a text, cells of a table, a picture on a wall, a chain: drawn in a square of 16. */
const MARKS: Readonly<Record<Kind, string>> = {
  text: "M2 4h12M2 8h12M2 12h7",
  table: "M2 3h12v10H2zM2 6.5h12M6.5 3v10",
  picture: "M2 3h12v10H2zM3 12l3.5-4.5 2.5 3 1.8-2L13 12M10.6 6h.6",
  link: "M6.7 9.3 9.3 6.7M7.5 5l1.3-1.3a2.5 2.5 0 0 1 3.5 3.5L11 8.5M8.5 11l-1.3 1.3a2.5 2.5 0 0 1-3.5-3.5L5 7.5",
};

/** A small mark for what kind a snippet is; for the eyes alone. */
export function kindMark(kind: Kind) {
  return svg`<svg class="kind" viewBox="0 0 16 16" aria-hidden="true"><path d=${MARKS[kind]} /></svg>`;
}
