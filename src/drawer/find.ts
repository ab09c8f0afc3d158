import { fold } from "../content/fold.js";
import { originText, type Origin } from "../content/origin.js";

/** The terms of what is searched: words, or several in quotation marks as one, as {@link fold} makes them. */
export function searchTerms(words: string): string[] {
  const found = words.matchAll(/["“”„]([^"“”„]+)["“”„]|[^\s"“”„]+/gu);
  const terms = Array.from(found, ([whole, phrase]) => fold((phrase ?? whole).replace(/\s+/g, " ").trim()));
  return [...new Set(terms)].filter((term) => term !== "");
}

/** All that is searched of a snippet: its text, its label, and where it came from. */
export function searchedText(text: string, label: string | undefined, origin: Origin): string {
  const { title, address } = origin;
  return fold(
    [text, label, originText(origin), title, address]
      .filter(Boolean)
      .join("\n")
      .replace(/[^\S\n]+/g, " "),
  );
}

/** A match as it is shown: the text around it, and which parts of that text match. */
export interface FoundContext {
  readonly text: string;
  /** Where in `text` the terms stand: from, to; in order, none in another. */
  readonly matches: readonly (readonly [from: number, to: number])[];
}

/** How much is shown before a match. */
const LEAD = 24;

/** The part of a text in which the terms first stand, on one line of at most `length` characters. */
export function contextOf(text: string, terms: readonly string[], length: number): FoundContext {
  const line = near(text.replace(/\s+/g, " ").trim(), terms);
  const { folded, places } = foldWithPlaces(line);
  const firsts = terms.map((term) => folded.indexOf(term)).filter((at) => at >= 0);
  const first = firsts.length === 0 ? 0 : places[Math.min(...firsts)]!;
  const end = first > length - LEAD ? first - LEAD : 0;
  const from = end === 0 ? 0 : Math.max(0, line.lastIndexOf(" ", end) + 1);
  const cut = line.slice(from, from + length).replace(/[\uD800-\uDBFF]$/, "");
  const lead = from > 0 ? "…" : "";
  const matches: [number, number][] = [];
  for (const term of terms) {
    for (let at = folded.indexOf(term); at >= 0; at = folded.indexOf(term, at + term.length)) {
      const [start, stop] = [places[at]! - from, endOf(at + term.length, places) - from];
      if (start >= 0 && stop <= cut.length) matches.push([start + lead.length, stop + lead.length]);
    }
  }
  matches.sort((a, b) => a[0] - b[0] || b[1] - a[1]);
  let past = 0;
  const apart = matches.filter(([start, stop]) => {
    const isApart = start >= past;
    if (isApart) past = stop;
    return isApart;
  });
  return { text: lead + cut + (from + cut.length < line.length ? "…" : ""), matches: apart };
}

/** Where the letter ends whose unit stands before `end`: one letter may have been spelled with two. */
function endOf(end: number, places: readonly number[]): number {
  let next = end;
  while (places[next] === places[end - 1]) next++;
  return places[next]!;
}

/** How much of a text is looked through letter by letter. */
const NEAR = 20_000;

/** A text, or of a long one the part where a term first stands. */
function near(line: string, terms: readonly string[]): string {
  if (line.length <= NEAR) return line;
  const folded = fold(line);
  const first = Math.min(...terms.map((term) => folded.indexOf(term)).filter((at) => at >= 0));
  return Number.isFinite(first) && first > NEAR / 2
    ? line.slice(first - NEAR / 4, first + NEAR / 4)
    : line.slice(0, NEAR);
}

/** A text folded, and for each of its units, and for its end, where it stood in the text before. */
function foldWithPlaces(text: string): { folded: string; places: number[] } {
  const plain = text.toLowerCase();
  if (fold(text) === plain && plain.length === text.length)
    return { folded: plain, places: Array.from({ length: text.length + 1 }, (_, at) => at) };
  let folded = "";
  const places: number[] = [];
  let at = 0;
  for (const letter of text) {
    const made = fold(letter);
    for (let unit = 0; unit < made.length; unit++) places.push(at);
    folded += made;
    at += letter.length;
  }
  places.push(text.length);
  return { folded, places };
}
