import { withHeader } from "../content/make-table.js";
import { around } from "./around.js";
import { Block } from "./block.js";
import { cited } from "./cite.js";
import { fitted } from "./fit.js";
import type { Layout, Piece } from "./layout.js";
import { columns } from "./layouts/columns.js";
import { joined } from "./layouts/joined.js";
import { lines } from "./layouts/lines.js";
import { link } from "./layouts/link.js";
import { bullets, numbers } from "./layouts/list.js";
import { pairs } from "./layouts/pairs.js";
import { quotes } from "./layouts/quotes.js";
import { rows } from "./layouts/rows.js";
import { sentence } from "./layouts/sentence.js";
import { sequence } from "./layouts/sequence.js";
import {
  checkApplies,
  CITATIONS,
  FITS,
  HEADERS,
  layoutName,
  oneOf,
  STYLES,
  TABULAR,
  TIDYINGS,
  type LayoutName,
  type Recipe,
} from "./recipe.js";
import { styled } from "./style.js";
import { tidied } from "./tidy.js";

/** One file a layout, and this map that names them all. */
const layouts: Readonly<Record<LayoutName, Layout>> = {
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
};

/**
 * Makes one block of snippets, in the order given: each is tidied, styled, cited and given what stands around it; the
 * layout makes one content of them; and that is made to fit the place it lands in. Nothing of them is lost without a
 * notice in the block, and they are not changed.
 *
 * @throws DrawerError `bad-option` for a recipe that says something unknown
 *
 * @example
 * ```js
 * import { compose, readText } from "drawer";
 *
 * const block = compose([readText("Check rings"), readText("Close the nets")], { as: "bullets" });
 * console.log(JSON.stringify(block.markdown)); // "- Check rings\n- Close the nets"
 * ```
 */
export function compose(snippets: readonly Piece[], recipe: Recipe = {}): Block {
  const as = layoutName(recipe.as ?? "sequence");
  const fit = oneOf("fit", FITS, recipe.fit ?? "page");
  const style = oneOf("style", STYLES, recipe.style ?? "own");
  const cite = oneOf("way to cite", CITATIONS, recipe.cite ?? "none");
  const ways = (recipe.tidy ?? ["edges"]).map((way) => oneOf("way to tidy", TIDYINGS, way));
  const header = recipe.header === undefined ? undefined : oneOf("header", HEADERS, recipe.header);
  checkApplies(recipe, as);
  const isTabular = TABULAR.includes(as);
  const keepColumns = isTabular || fit === "cells";
  const pieces: Piece[] = [];
  for (const { content, label, origin, collectedAt } of snippets) {
    const tidy = styled(tidied(content, ways, keepColumns), style);
    if (tidy.length === 0) continue;
    const headed = header === undefined ? tidy : withHeader(tidy, header === "yes", pieces.length === 0);
    pieces.push({ content: headed, label, origin, collectedAt });
  }
  const { pieces: named, below } = cited(pieces, cite, isTabular);
  const { before = "", after = "" } = recipe;
  const isAlone = before === "" && after === "";
  const surrounded = isAlone
    ? named
    : named.map((piece) => ({ ...piece, content: around(piece.content, before, after, isTabular) }));
  const laidOut = layouts[as](surrounded, recipe);
  const { content, notices } = fitted(
    below.length === 0 ? laidOut.content : [...laidOut.content, ...below],
    fit,
  );
  const pictures = new Map<string, Uint8Array>();
  for (const snippet of snippets) snippet.pictures?.forEach((bytes, hash) => pictures.set(hash, bytes));
  return new Block(content, [...laidOut.notices, ...notices], (hash) => pictures.get(hash), fit);
}
