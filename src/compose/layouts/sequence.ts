import { type Content, type Flow, type Item, type List, paragraph, type Run } from "../../content/model.js";
import { notice } from "../../content/notice.js";
import { mergeRuns } from "../../content/runs.js";
import { isBlank, isLine } from "../../content/traverse.js";
import { contentNotices } from "../../messages/en/content.js";
import type { LaidOut, Layout, LayoutOptions, Piece } from "../layout.js";
import { betweenText, runsOn } from "../options.js";

/**
 * Each piece as it is, one after another. What stands between is a blank line, or a line of the text that was asked for;
 * with a space, a comma or the like between them the pieces run on, as far as they are lines of text. A lone cell gives
 * its text, for nobody wants a table of one cell on a page; in a grid it stays the cell it is. Items of a list that were taken one
 * by one are one list again, where their numbers go on.
 */
export const sequence: Layout = {
  lay: laySequence,
  isTable: false,
  between: "any",
  renamesColumns: false,
};

function laySequence(pieces: readonly Piece[], { between = "newline", fit }: LayoutOptions): LaidOut {
  const isOneLine = runsOn(between);
  const staysCell = fit === "cells" || (fit === "cell" && pieces.length === 1);
  const separator = isOneLine ? [] : separatorOf(betweenText(between));
  const content: Flow[] = [];
  let apart = 0;
  // The items of the last list, where it is one of several that were put together here.
  let items: Item[] | undefined;
  for (const piece of pieces) {
    const flows = staysCell ? piece.content : loneCell(piece.content);
    if (content.length > 0 && isOneLine) {
      const joined = joinedOn(content, flows, betweenText(between));
      if (joined) {
        content.splice(content.length - 1, 1, ...joined);
        continue;
      }
      apart++;
    }
    if (content.length > 0) for (const flow of separator) content.push(flow);
    const [first] = flows;
    const last = content.at(-1);
    const isMore = first?.type === "list" && goesOn(first, last);
    if (isMore) {
      if (!items) content[content.length - 1] = { ...last, items: (items = [...last.items]) };
      for (const item of first.items) items.push(item);
    }
    const others = isMore ? flows.slice(1) : flows;
    if (others.length > 0) items = undefined;
    for (const flow of others) content.push(flow);
  }
  return {
    content,
    notices: apart === 0 ? [] : [notice(contentNotices, "not-shown/same-line", { count: apart })],
  };
}

/** The last line of some content and what follows it on the same line; nothing when either is no line of text. */
export function joinedOn(content: Content, more: Content, between: string): Content | undefined {
  const last = content.at(-1);
  const [first, ...rest] = more;
  if (!isLine(last) || first?.type !== "paragraph") return undefined;
  const runs: Run[] = mergeRuns([...last.runs, ...paragraph(between).runs, ...first.runs]);
  return [{ ...last, runs }, ...rest];
}

/** Whether a list goes on with what stands before it, by its marks and its numbers. */
function goesOn(next: List, last: Flow | undefined): last is List {
  if (last?.type !== "list" || last.ordered !== next.ordered) return false;
  if (JSON.stringify(last.marker) !== JSON.stringify(next.marker)) return false;
  return !last.ordered || (next.start ?? 1) === (last.start ?? 1) + last.items.length;
}

/** Line ends part flows anyway; the second and further ones are blank lines. */
function separatorOf(text: string): Content {
  if (text.trim() !== "") return [paragraph(text.replace(/^\n|\n$/g, ""))];
  return Array.from({ length: Math.max(0, text.split("\n").length - 2) }, () => paragraph(""));
}

/** What a cell that stands alone holds; other content as it is. */
export function loneCell(content: Content): Content {
  const only = content[0];
  if (content.length > 1 || only?.type !== "table" || only.rows.length !== 1 || only.caption) return content;
  const [cell, ...others] = only.rows[0]!;
  return cell && others.length === 0 && !isBlank(cell.flows) ? cell.flows : content;
}
