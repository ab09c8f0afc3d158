import { checkValue } from "../content/check.js";
import { withHeader } from "../content/make-table.js";
import { around } from "./around.js";
import { Block } from "./block.js";
import { checkRecipe } from "./check-recipe.js";
import { cited } from "./cite.js";
import { fitted } from "./fit.js";
import { withTablesJoined } from "./join-tables.js";
import type { Piece } from "./layout.js";
import { layouts } from "./layouts/index.js";
import type { Recipe } from "./recipe.js";
import { withoutRepeatedPieces } from "./repeats.js";
import { styled } from "./style.js";
import { tidier } from "./tidy.js";

/**
 * Makes one block of snippets, in the order given: each is tidied, styled, cited and given what stands around it; the
 * layout makes one content of them; and that is made to fit the place it lands in. Nothing of them is lost without a
 * notice in the block, and they are not changed.
 *
 * @param snippets what is laid out, in this order: snippets, or anything with content
 * @param recipe how; each as it is, one after another, when it is left out
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
  checkValue("snippets", snippets, Array.isArray(snippets) && snippets.every(isPiece), "a list of snippets");
  const { as, style, tidy: ways, cite, fit, header, before, after } = checkRecipe(recipe);
  const { lay, isTable } = layouts[as];
  const joins = ways.includes("tables") && !isTable;
  const tidied = tidier(ways, isTable || joins || fit === "cells");
  const prepared: Piece[] = [];
  for (const snippet of snippets) {
    const { content } = snippet;
    const tidy = styled(tidied(content), style);
    if (tidy.length === 0) continue;
    const headed = header === undefined ? tidy : withHeader(tidy, header === "yes", prepared.length === 0);
    prepared.push(headed === content ? snippet : { ...snippet, content: headed });
  }
  const { once, notices: repeated } = ways.includes("repeats")
    ? withoutRepeatedPieces(prepared)
    : { once: prepared, notices: [] };
  const { pieces: named, below } = cited(once, cite, isTable);
  const isAlone = before === "" && after === "";
  const surrounded = isAlone
    ? named
    : named.map((piece) => ({ ...piece, content: around(piece.content, before, after, isTable) }));
  const { pieces, notices: joined } = joins
    ? withTablesJoined(surrounded, recipe)
    : { pieces: surrounded, notices: [] };
  const laidOut = lay(pieces, recipe);
  const { content, notices } = fitted(
    below.length === 0 ? laidOut.content : [...laidOut.content, ...below],
    fit,
  );
  const pictures = new Map<string, Uint8Array>();
  for (const snippet of snippets) snippet.pictures?.forEach((bytes, hash) => pictures.set(hash, bytes));
  return new Block(
    content,
    [...repeated, ...joined, ...laidOut.notices, ...notices],
    (hash) => pictures.get(hash),
    fit,
  );
}

function isPiece(piece: unknown): boolean {
  return Array.isArray((piece as Partial<Piece> | null)?.content);
}
