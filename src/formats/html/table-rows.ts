import { defaultTreeAdapter as tree, parse, type DefaultTreeAdapterTypes as Tree } from "parse5";
import type { Content } from "../../content/model.js";
import { mergedRow } from "../office/row-like.js";
import type { TextEdit } from "../office/xml-text.js";
import { lineBefore, rangeOf } from "./blocks.js";

/** A row of a table, and where it stands in the text of the page. */
interface Row {
  readonly element: Tree.Element;
  readonly from: number;
  readonly to: number;
  readonly cells: readonly Tree.Element[];
  readonly isHead: boolean;
}

/** What a row that is made does not take from the one that it is like: what there is once only, and what another value says. */
const OWN = /^(?:id|headers|rowspan|colspan|sdval|sdnum|x:num|scope|abbr)$/i;

/**
 * Puts rows below one of a table, in the looks of that one; below the head of a table, in those of the row that follows it.
 * @param from where the table begins in the text of the page
 * @param at below which row, from 0
 * @param rows what their cells hold; nothing for one that stays empty
 * @param written what a cell holds, as HTML
 * @throws DrawerError `cannot-edit` where cells are merged there
 */
export function appendRows(
  html: string,
  from: number,
  at: number,
  rows: readonly (readonly (Content | undefined)[])[],
  written: (content: Content) => string,
  where: { readonly file: string; readonly spot: string },
): TextEdit {
  const table = rowsOf(html, from);
  const above = table[at]!;
  const width = Math.max(...table.map(({ cells }) => cells.length));
  const reaches = table
    .slice(0, at + 1)
    .some(({ cells }, index) => cells.some((cell) => index + spanOf(cell, "rowspan") > at + 1));
  const isMerged = above.cells.length < width || above.cells.some((cell) => spanOf(cell, "colspan") > 1);
  if (reaches || isMerged) throw mergedRow(where, at, width);
  const next = table[at + 1];
  const like = above.isHead && next?.cells.length === width ? next : above;
  const { startTag, endTag } = like.element.sourceCodeLocation!;
  const inner = html.slice(startTag!.endOffset, endTag?.startOffset ?? like.to);
  const betweenCells = lineBefore(html, like.cells[0]!.sourceCodeLocation!.startOffset);
  const beforeEnd = endTag ? lineBefore(html, endTag.startOffset) : "";
  const made = rows.map((row) => {
    const cells = like.cells.map((cell, column) => {
      const content = row[column];
      const name = like === above && above.isHead ? "td" : cell.tagName;
      return `${betweenCells}${tagLike(cell, name)}${content ? written(content) : ""}</${name}>`;
    });
    return `${tagLike(like.element, "tr")}${inner.trim() === "" ? "" : cells.join("")}${beforeEnd}</tr>`;
  });
  const apart = lineBefore(html, like.from);
  // Rows that follow a head stand in what follows it.
  if (like === next) return { from: next.from, to: next.from, text: made.map((row) => row + apart).join("") };
  const head = above.isHead ? above.element.parentNode : undefined;
  const end =
    head && tree.isElementNode(head) && head.tagName === "thead" ? rangeOf(html, head).to : above.to;
  return { from: end, to: end, text: made.map((row) => apart + row).join("") };
}

/** The rows of a table that begins at a place, without those of tables in it. */
function rowsOf(html: string, from: number): Row[] {
  const found = find(parse(html, { sourceCodeLocationInfo: true }), from)!;
  const rows: Row[] = [];
  const walk = (parent: Tree.Element, isInHead: boolean) => {
    for (const child of parent.childNodes) {
      if (!tree.isElementNode(child)) continue;
      if (/^(thead|tbody|tfoot)$/.test(child.tagName)) walk(child, child.tagName === "thead");
      if (child.tagName !== "tr") continue;
      const cells = child.childNodes.filter(
        (cell): cell is Tree.Element => tree.isElementNode(cell) && /^t[dh]$/.test(cell.tagName),
      );
      if (cells.length === 0) continue;
      const isHead = isInHead || cells.every(({ tagName }) => tagName === "th");
      rows.push({ element: child, ...rangeOf(html, child), cells, isHead });
    }
  };
  walk(found, false);
  return rows;
}

/** The table that begins at a place. */
function find(parent: Tree.ParentNode, from: number): Tree.Element | undefined {
  for (const child of parent.childNodes) {
    if (!tree.isElementNode(child)) continue;
    if (child.tagName === "table" && child.sourceCodeLocation?.startOffset === from) return child;
    const inside = find(child, from);
    if (inside) return inside;
  }
  return undefined;
}

function spanOf({ attrs }: Tree.Element, name: string): number {
  return Number(attrs.find((attribute) => attribute.name === name)?.value ?? 1) || 1;
}

/** The tag of an element, by another name. */
function tagLike({ attrs }: Tree.Element, name: string): string {
  const kept = attrs.filter((attribute) => !OWN.test(attribute.name));
  const escaped = (value: string) => value.replaceAll("&", "&amp;").replaceAll('"', "&quot;");
  return `<${name}${kept.map(({ name: of, value }) => ` ${of}="${escaped(value)}"`).join("")}>`;
}
