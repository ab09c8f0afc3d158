import type { Content, Marker } from "../content/model.js";
import { notice, type Notice } from "../content/notice.js";
import { isDrawn } from "../content/picture.js";
import { addressesNotShown } from "../content/shown-addresses.js";
import { eachFlow, picturesOf } from "../content/traverse.js";
import { contentNotices } from "../messages/en/content.js";

/** What formats of text cannot show, in notices. */

/** That descriptions stand for pictures, where there are any. */
export function picturesInText(content: Content): Notice[] {
  const count = picturesOf(content).length;
  return count === 0 ? [] : [notice(contentNotices, "not-shown/pictures-in-text", { count })];
}

/** That descriptions stand for pictures that no browser draws, where there are any. */
export function picturesNotDrawn(content: Content): Notice[] {
  const count = picturesOf(content).filter(({ mediaType }) => !isDrawn(mediaType)).length;
  return count === 0 ? [] : [notice(contentNotices, "not-shown/pictures-in-page", { count })];
}

/** What plain text cannot show: that descriptions stand for pictures, and that links in cells are without their addresses. */
export function notShownInText(content: Content): Notice[] {
  return [...picturesInText(content), ...addressesLeftOut(content)];
}

/** That the addresses of links are left out, where there are any: of those in cells, or in all lines. */
export function addressesLeftOut(content: Content, where: "cells" | "lines" = "cells"): Notice[] {
  const count = addressesNotShown(content, where);
  return count === 0 ? [] : [notice(contentNotices, "left-out/addresses", { count })];
}

/**
 * That lists which are numbered otherwise get plain numbers, where there are any.
 * @param isSaid whether the format has a way to say how a list is numbered; it has none when it is left out
 */
export function plainNumbers(content: Content, isSaid: (marker: Marker) => boolean = () => false): Notice[] {
  let count = 0;
  eachFlow(content, (flow) => {
    if (flow.type === "list" && flow.ordered && flow.marker && !isSaid(flow.marker)) count++;
  });
  return count === 0 ? [] : [notice(contentNotices, "not-shown/numbers", { count })];
}
