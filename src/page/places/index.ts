import { editors } from "./editor.js";
import { fields } from "./field.js";
import { grids } from "./grids.js";
import type { Place, PlaceKind } from "./place.js";

/** The kinds of places, the most particular first. A new one is a file and a line here. */
const KINDS: readonly PlaceKind[] = [grids, fields, editors];

/**
 * The place that an element is or stands in; nothing when one cannot write there.
 * @param element what has the focus
 */
export function placeOf(element: Element): Place | undefined {
  for (const kind of KINDS) {
    const place = kind.find(element);
    if (place) return place;
  }
  return undefined;
}
