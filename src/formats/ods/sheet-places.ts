import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";

/** Where a sheet stands in the part of its workbook. */
export interface SheetPlace {
  /** Where its element begins and ends, in bytes. */
  readonly from: number;
  readonly to: number;
  /** The tag that it begins with. */
  readonly tag: string;
}

/** The elements that sheets are found by, with the prefixes that they have in a part. */
interface Names {
  readonly table: string;
  readonly body: string;
  /** What links to other programs holds tables that are no sheets (14.6.3). */
  readonly links: string;
}

/**
 * Finds the sheets of a workbook (ODF 1.3 part 3, 9.1.2) without parsing them. A tag cannot stand in a text or in an attribute, so
 * counting where tables begin and end is enough to know which stand in the body, and which in others.
 *
 * @param pieces what the part consists of, in UTF-8
 * @param file the name of the workbook, for messages
 * @throws DrawerError `unreadable` when the body has no end
 */
export function findSheets(pieces: Iterable<Uint8Array>, file: string): SheetPlace[] {
  // Each byte as a sign, so that a place among the signs is one among the bytes.
  // eslint-disable-next-line no-restricted-syntax -- any signs will do; those of a function would take longer
  const decoder = new TextDecoder("latin1");
  const places: SheetPlace[] = [];
  let text = "";
  let offset = 0;
  let names: Names | undefined;
  const state: Search = { depth: 0, from: 0, tag: "", isInBody: false, isWhole: false };
  for (const piece of pieces) {
    text += decoder.decode(piece);
    names ??= namesOf(text);
    const used = names ? search(text, offset, names, state, places) : 0;
    text = text.slice(used);
    offset += used;
  }
  if (!state.isWhole) throw new DrawerError(formatErrors, "unreadable/part", { file });
  return places;
}

const NAMESPACE = "urn:oasis:names:tc:opendocument:xmlns:";

/** The names of elements in a part, by what its root says of prefixes; nothing before its root has been read. */
function namesOf(text: string): Names | undefined {
  const root = /<[^?!][^>]*>/.exec(text)?.[0];
  if (root === undefined) return undefined;
  const prefixOf = (namespace: string) => {
    const prefix = new RegExp(`xmlns(?::([^=\\s]+))?\\s*=\\s*["']${NAMESPACE}${namespace}:1\\.0["']`).exec(
      root,
    );
    return prefix?.[1] === undefined ? "" : `${prefix[1]}:`;
  };
  const table = prefixOf("table");
  return { table: `${table}table`, links: `${table}dde-links`, body: `${prefixOf("office")}spreadsheet` };
}

/** More than the names that are looked for are long, with what stands before and after them. */
const MARGIN = 64;
/** The longest tag that is looked at. */
const LONGEST_TAG = 1 << 20;

/** Where a search through a part stands. */
interface Search {
  /** In how many tables. */
  depth: number;
  /** Where the sheet began, and with which tag. */
  from: number;
  tag: string;
  isInBody: boolean;
  /** Whether the body has come to its end. */
  isWhole: boolean;
}

/** Goes through what has come of a part. Returns how much of it need not be seen again. */
function search(
  text: string,
  offset: number,
  { table, body, links }: Names,
  state: Search,
  places: SheetPlace[],
): number {
  const tag = new RegExp(`<(/?)(${table}|${body}|${links})(?=[\\s>/])(?:[^>"']|"[^"]*"|'[^']*')*?(/?)>`, "g");
  let used = 0;
  for (let match; (match = tag.exec(text));) {
    const [whole, isEnd, name, isAlone] = match;
    used = match.index + whole.length;
    if (name !== table) {
      // What is embedded in a sheet may have a body of its own.
      if (state.depth > 0) continue;
      state.isInBody = (name === body) === (isEnd === "");
      state.isWhole ||= name === body && (isEnd !== "" || isAlone !== "");
    } else if (state.isInBody) {
      if (isEnd === "" && state.depth === 0) [state.from, state.tag] = [offset + match.index, whole];
      if (isEnd === "") state.depth++;
      if (isEnd !== "" || isAlone !== "") state.depth--;
      if (state.depth === 0) places.push({ from: state.from, to: offset + used, tag: asUtf8(state.tag) });
    }
  }
  // A tag that has not come whole is seen again with what comes.
  const last = text.lastIndexOf("<", text.length - MARGIN);
  const isWhole = last < 0 || text.includes(">", last) || text.length - last > LONGEST_TAG;
  return Math.max(used, isWhole ? text.length - MARGIN : last);
}

/** The sign that stands for each byte. */
// eslint-disable-next-line no-restricted-syntax -- the same signs
const SIGNS = new TextDecoder("latin1").decode(Uint8Array.from({ length: 256 }, (_, byte) => byte));

/** A tag whose bytes stand as a sign each. */
function asUtf8(signs: string): string {
  return new TextDecoder().decode(Uint8Array.from(signs, (sign) => SIGNS.indexOf(sign)));
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
