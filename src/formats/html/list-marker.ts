import { bulletMarker, NUMBERS_BY_FIRST, usualBullet } from "../../content/marker.js";
import type { Marker } from "../../content/model.js";
import type { StyleContext } from "./known-places.js";
import type { Declaration } from "./tree-adapter.js";

/**
 * How the items of a list are marked, by its `type` attribute and its style (Lists and Counters Level 3, 3.5); nothing
 * where it says nothing, or what is usual.
 */
export function listMarker(
  ordered: boolean,
  type: string | undefined,
  declarations: readonly Declaration[],
  place: StyleContext,
): Marker | undefined {
  const declared = declarations.findLast(({ property }) => /^list-style(-type)?$/.test(property))?.value;
  if (ordered) {
    const style = STYLE.exec(declared ?? "")?.[0].replace("latin", "alpha");
    const numbers = style === undefined ? NUMBERS_BY_FIRST[type ?? ""] : (style as Marker["numbers"]);
    return numbers && { numbers };
  }
  const quoted = /^["'](.{1,20})["']$/s.exec(declared?.trim() ?? "")?.[1]?.trim();
  const named = /\b(disc|circle|square)\b/.exec(declared ?? type?.toLowerCase() ?? "")?.[1];
  const bullet = quoted ?? (named && usualBullet(["disc", "circle", "square"].indexOf(named)));
  return bullet === undefined ? undefined : bulletMarker(bullet, levelOf(place));
}

const STYLE = /\b(?:lower|upper)-(?:alpha|latin|roman)\b/;

/** How many lists a list stands in. */
function levelOf(place: StyleContext): number {
  let level = 0;
  for (let at = place.parent; at !== undefined; at = at.parent)
    if (at.name === "ul" || at.name === "ol") level++;
  return level;
}
