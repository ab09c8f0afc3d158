import { checkText, checkValue } from "../../content/check.js";
import { DrawerError } from "../../content/error.js";
import { type Kind, KINDS } from "../../content/kind.js";
import { type PickedFrom, drawerErrors } from "../../messages/en/drawer.js";
import { spanOf, type Span } from "../days.js";

/** A place among snippets: a position, or so many before the last. */
export type Position = { readonly position: number } | { readonly beforeLast: number };

/** Where one snippet is: a position; or wherever the one with this id stands now, for those who speak of what they have seen. */
export type SnippetRef = Position | { readonly id: string };

/** What stands before an id in a pick. */
const BY_ID = "id:";

/** Words of a pick that stand for themselves. */
const WORDS = ["first", "last", "all", "kept", ...KINDS, "today", "yesterday"];

/** One word of a pick. */
export type Term =
  | { readonly type: "place"; readonly place: SnippetRef }
  | { readonly type: "range"; readonly from: Position; readonly to: Position }
  | { readonly type: "all" }
  | { readonly type: "kept" }
  | { readonly type: "words"; readonly words: string }
  | { readonly type: "kind"; readonly kind: Kind }
  | { readonly type: "document"; readonly document: string }
  | { readonly type: "collected"; readonly span: Span }
  | { readonly type: "not"; readonly term: Term };

/**
 * Reads a pick: which snippets, in which order. Words are separated by spaces or commas: `3`, `2..5`, `5..2`
 * (backwards), `3..` (to the last), `..3` (from the first), `first`, `last`, `last-1`, `all`, `kept`, a kind (`text table picture link`), `from:diary.docx` (quoted where the
 * name has spaces), `/words/` for those that hold all of these words, `today`, `yesterday` or a date for those collected then,
 * `since:2031-04-08`, `id:…` for the one with this id, wherever it stands now, and `not:` or `!` before any of them to leave those out.
 * Words may be written in any case, and a range as `2-5`.
 *
 * @param pick words parted by spaces or commas
 * @throws DrawerError `bad-pick` for a word that is none of these
 *
 * @example
 * ```js
 * import { parsePick } from "drawer";
 *
 * console.log(parsePick("3..5 !4").map(({ type }) => type)); // [ 'range', 'not' ]
 * ```
 */
export function parsePick(pick: string): Term[] {
  checkText("pick", pick);
  const words = pick.match(/(?:!|not:)*\/[^/]+\/(?=[\s,]|$)|(?:[^\s,"]|"[^"]*"?)+/gi) ?? [];
  if (words.length === 0) throw new DrawerError(drawerErrors, "bad-pick/empty", {});
  return words.map((word) => parseTerm(word));
}

/**
 * Checks what a caller in JavaScript may give as the place of a snippet.
 * @throws DrawerError `bad-option`
 */
export function checkSnippetRef(place: SnippetRef): void {
  const { id, position, beforeLast }: { id?: unknown; position?: unknown; beforeLast?: unknown } =
    place ?? {};
  const isPlace = typeof id === "string" || Number.isInteger(position ?? beforeLast);
  checkValue("place", place, isPlace, "a place of a snippet, such as { position: 3 }");
}

/**
 * Reads one place: `3`, `first`, `last`, `last-1`, `id:…`.
 * @throws DrawerError `bad-pick`
 */
export function parseSnippetRef(word: string): SnippetRef {
  const place = placeOf(word.trim().toLowerCase()) ?? snippetOf(word.trim());
  if (!place) throw new DrawerError(drawerErrors, "bad-pick/place", { word });
  return place;
}

function parseTerm(word: string): Term {
  const excluded = /^(?:!|not:)(.+)$/is.exec(word)?.[1];
  if (excluded !== undefined) return { type: "not", term: parseTerm(excluded) };
  if (/^\/[^/]+\/$/.test(word)) return { type: "words", words: word.slice(1, -1) };
  const document = /^from:"?([^"]+)"?$/i.exec(word)?.[1];
  if (document) return { type: "document", document };
  const plain = word.toLowerCase();
  if (plain === "all" || plain === "kept") return { type: plain };
  const kind = KINDS.find((known) => known === plain);
  if (kind) return { type: "kind", kind };
  const span = collectedIn(plain);
  if (span) return { type: "collected", span };
  const place = placeOf(plain) ?? snippetOf(word);
  if (place) return { type: "place", place };
  const ends = plain.replace(/^(\d+)[-–](\d+)$/, "$1..$2").split("..");
  const isOpen = ends.length === 2 && word !== "..";
  const from = isOpen && ends[0] === "" ? placeOf("first") : placeOf(ends[0]!);
  const to = ends.length !== 2 ? undefined : placeOf(isOpen && ends[1] === "" ? "last" : ends[1]!);
  if (from && to) return { type: "range", from, to };
  throw new DrawerError(drawerErrors, "bad-pick/word", { word, words: WORDS });
}

/** When those were collected that a word names: on a day, or since one. */
function collectedIn(word: string): Span | undefined {
  const since = /^since:(.+)$/.exec(word)?.[1];
  const span = since === undefined ? spanOf(word) : spanOf(since);
  return since === undefined || !span ? span : { from: span.from, until: Infinity };
}

/** The place of a snippet that is spoken of by its id. */
function snippetOf(word: string): SnippetRef | undefined {
  return word.startsWith(BY_ID) && word.length > BY_ID.length ? { id: word.slice(BY_ID.length) } : undefined;
}

/**
 * The pick of these snippets, in this order, whatever comes and goes before it is carried out.
 * @param snippets as a list or a search gave them
 */
export function pickOf(snippets: readonly { readonly entry: { readonly id: string } }[]): string {
  return snippets.map(({ entry }) => BY_ID + entry.id).join(" ");
}

function placeOf(word: string): Position | undefined {
  if (word === "first") return { position: 1 };
  const back = /^last(?:-(\d{1,9}))?$/.exec(word);
  if (back) return { beforeLast: Number(back[1] ?? 0) };
  return /^\d{1,9}$/.test(word) ? { position: Number(word) } : undefined;
}

/**
 * The position of a place among `count` snippets.
 *
 * @param from whose positions they are, for the refusal
 * @throws DrawerError `no-position` when there is no such place
 */
export function positionOf(place: Position, count: number, from: PickedFrom): number {
  const position = "position" in place ? place.position : count - place.beforeLast;
  if (position < 1 || position > count) throw noPosition(place, count, from);
  return position;
}

/** That there is no snippet at a place. */
export function noPosition(place: Position, count: number, from: PickedFrom): DrawerError {
  const back = "beforeLast" in place ? place.beforeLast : undefined;
  const written = "position" in place ? String(place.position) : back === 0 ? "last" : `last-${back}`;
  return new DrawerError(drawerErrors, "no-position", { place: written, from, count });
}
