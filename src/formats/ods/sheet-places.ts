import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import { findTags, type FoundTag } from "../office/tag-search.js";
import type { Element } from "../office/xml.js";

/** Where a sheet stands in the part of its workbook. */
export interface SheetPlace {
  /** Where its element begins and ends, in bytes. */
  readonly from: number;
  readonly to: number;
  /** The tag that it begins with. */
  readonly tag: string;
}

/**
 * Finds the sheets of a workbook (ODF 1.3 part 3, 9.1.2) without parsing them: counting where tables begin and end is enough to know
 * which stand in the body, and which in others.
 *
 * @param pieces what the part consists of, in UTF-8
 * @param root the outermost element of the part, which says the prefixes of names
 * @param file the name of the workbook, for messages
 * @throws DrawerError `unreadable` when the body has no end
 */
export function findSheets(pieces: Iterable<Uint8Array>, root: Element, file: string): SheetPlace[] {
  const table = `${prefixOf(root, "table")}table`;
  const body = `${prefixOf(root, "office")}spreadsheet`;
  // What links to other programs holds tables that are no sheets (14.6.3).
  const links = `${prefixOf(root, "table")}dde-links`;
  const places: SheetPlace[] = [];
  let [depth, isInBody, isWhole] = [0, false, false];
  let sheet: FoundTag | undefined;
  for (const tag of findTags(pieces, [table, body, links], file)) {
    const isEnd = tag.text.startsWith("</");
    const isAlone = tag.text.endsWith("/>");
    if (tag.name !== table) {
      // What is embedded in a sheet may have a body of its own.
      if (depth > 0) continue;
      if (!isAlone) isInBody = (tag.name === body) !== isEnd;
      isWhole ||= tag.name === body && (isEnd || isAlone);
    } else if (isInBody) {
      if (!isEnd && depth++ === 0) sheet = tag;
      if (isEnd || isAlone) depth--;
      if (depth === 0) places.push({ from: sheet!.from, to: tag.to, tag: sheet!.text });
    }
  }
  if (!isWhole) throw new DrawerError(formatErrors, "unreadable/part", { file });
  return places;
}

const NAMESPACE = "urn:oasis:names:tc:opendocument:xmlns:";

/** What stands before names of a namespace in a part, by what its outermost element says. */
function prefixOf({ attributes }: Element, namespace: string): string {
  const at = attributes.indexOf(`${NAMESPACE}${namespace}:1.0`);
  const prefix = attributes[at - 1];
  return prefix === undefined || prefix === "xmlns" ? "" : `${prefix}:`;
}

/** The bytes of a part between two places. */
export function* between(
  pieces: Iterable<Uint8Array>,
  { from, to }: SheetPlace,
): Generator<Uint8Array, void> {
  let at = 0;
  for (const piece of pieces) {
    const [begin, end] = [Math.max(0, from - at), Math.min(piece.length, to - at)];
    if (begin < end) yield piece.subarray(begin, end);
    at += piece.length;
    if (at >= to) return;
  }
}
