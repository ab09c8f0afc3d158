import { DrawerError } from "../../content/error.js";
import { editErrors } from "../../messages/en/edit.js";
import { childPlaces, outermostPlaces, type TextEdit, type XmlPlace } from "../office/xml-text.js";
import { asDeleted, type Author } from "./tracked.js";

/** Marks that stand in pairs around text (ECMA-376 part 1, 17.13): the beginning or the end of one, with its id. */
const PAIRED =
  /<w:((?:bookmark|commentRange|perm|moveFromRange|moveToRange|customXml\w*Range)(?:Start|End))\b[^>]*?\bw:id="([^"]*)"[^>]*\/>/g;

/**
 * How elements are taken out of the text of a document. What stands in pairs is not broken: a mark whose other end stays, stays; the
 * end of a section stays; where a part of a field would stay behind it is refused.
 *
 * @param spot what is taken out as it is written, for messages
 * @param author with whom it is marked as deleted, where it is not taken out but marked
 * @param isReplaced whether something else comes in its place
 * @throws DrawerError `cannot-edit`
 */
export function removal(
  text: string,
  elements: readonly XmlPlace[],
  file: string,
  spot: string,
  author: Author | undefined,
  isReplaced = false,
): TextEdit[] {
  const outer = outermostPlaces(elements).sort((one, other) => one.start - other.start);
  const all = outer.map(({ start, end }) => text.slice(start, end));
  const together = all.join("");
  const count = (pattern: RegExp) => together.match(pattern)?.length ?? 0;
  if (count(/<w:fldChar\b[^>]*"begin"/g) !== count(/<w:fldChar\b[^>]*"end"/g))
    throw new DrawerError(editErrors, "cannot-edit/field", { file, spot });
  if (author)
    return outer.map(({ start, end }, at) => ({ from: start, to: end, text: asDeleted(all[at]!, author) }));
  const sides = new Map<string, number>();
  for (const [, kind, id] of together.matchAll(PAIRED)) {
    const key = `${kind!.replace(/(Start|End)$/, "")} ${id}`;
    sides.set(key, (sides.get(key) ?? 0) + 1);
  }
  const edits = outer.map(({ start, end }, at) => {
    const marks = [...all[at]!.matchAll(PAIRED)]
      .filter(([, kind, id]) => sides.get(`${kind!.replace(/(Start|End)$/, "")} ${id}`) === 1)
      .map(([mark]) => mark)
      .join("");
    const section = /<w:pPr>(?:(?!<\/w:pPr>)[\s\S])*?(<w:sectPr\b[\s\S]*?<\/w:sectPr>)/.exec(all[at]!)?.[1];
    const kept = section === undefined ? "" : `<w:p><w:pPr>${section}</w:pPr></w:p>`;
    return { from: start, to: end, text: marks + kept };
  });
  if (isReplaced) return edits;
  return edits.concat(emptiedAround(text, outer, edits));
}

/** Where what is taken out leaves a cell, a box or a control without a paragraph, or two tables that touch, an empty one stays. */
function emptiedAround(text: string, removed: readonly XmlPlace[], edits: readonly TextEdit[]): TextEdit[] {
  const found: TextEdit[] = [];
  const parents = new Set(removed.map(({ parent }) => parent));
  for (const parent of parents) {
    if (!parent || !/^(tc|txbxContent|sdtContent|footnote|endnote)$/.test(parent.name)) continue;
    const blocks = childPlaces(text, parent).filter(({ name }) =>
      /^(p|tbl|sdt|customXml|altChunk)$/.test(name),
    );
    const left = blocks.filter(({ start }) => !removed.some((each) => each.start === start));
    const isBare = left.length === 0 || (parent.name === "tc" && left.at(-1)!.name === "tbl");
    if (isBare) found.push({ from: parent.innerEnd, to: parent.innerEnd, text: "<w:p/>" });
  }
  const marks = /(?:\s|<w:\w+(?:Start|End)\b[^>]*\/>)*/.source;
  removed.forEach(({ start, end }, at) => {
    const isFirst = removed[at - 1]?.end !== start;
    if (!isFirst || edits[at]!.text.includes("<w:p>")) return;
    let last = end;
    for (let next = at + 1; removed[next]?.start === last; next++) last = removed[next]!.end;
    const before = new RegExp(`</w:tbl>${marks}$`).test(text.slice(Math.max(0, start - 4000), start));
    const after = new RegExp(`^${marks}<w:tbl[\\s>]`).test(text.slice(last, last + 4000));
    if (before && after) found.push({ from: start, to: start, text: "<w:p/>" });
  });
  return found;
}
