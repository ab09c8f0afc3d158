import { isBlank } from "../../content/measure.js";
import { paragraph, type Content, type Flow } from "../../content/model.js";
import { shown, type Layout } from "../layout.js";
import { betweenText } from "../recipe.js";

/**
 * Each piece as it is, one after another. What stands between is a blank line, or a line of the text that was asked for.
 * A lone cell gives its text, for nobody wants a table of one cell on a page; in a grid it stays the cell it is.
 */
export const sequence: Layout = (pieces, { between = "newline", fit }) => {
  const separator = separatorOf(betweenText(between));
  const inCells = fit === "cell" || fit === "cells";
  const content: Flow[] = [];
  for (const piece of pieces) {
    if (content.length > 0) for (const flow of separator) content.push(flow);
    for (const flow of inCells ? piece.content : loneCell(piece.content)) content.push(flow);
  }
  return shown(content);
};

/** Line ends part flows anyway; the second and further ones are blank lines. */
function separatorOf(text: string): Content {
  if (text.trim() !== "") return [paragraph(text.replace(/^\n|\n$/g, ""))];
  return Array.from({ length: Math.max(0, text.split("\n").length - 2) }, () => paragraph(""));
}

function loneCell(content: Content): Content {
  const [only, ...rest] = content;
  if (rest.length > 0 || only?.type !== "table" || only.rows.length !== 1 || only.caption) return content;
  const [cell, ...others] = only.rows[0]!;
  return cell && others.length === 0 && !isBlank(cell.flows) ? cell.flows : content;
}
