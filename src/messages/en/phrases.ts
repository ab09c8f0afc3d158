import { closestOf } from "../core/closest.js";
import {
  originText,
  shortened,
  type NamedOrigin,
  type NamedPlace,
  type NamedSnippet,
  type PlacedSnippet,
} from "../core/names.js";
import { DAY, GIGABYTE, HOUR, KILOBYTE, MEGABYTE, MINUTE, SECOND } from "../core/units.js";

/** A whole number: `12,345`. */
export function grouped(number: number): string {
  return String(number).replace(/\B(?=(?:\d{3})+$)/g, ",");
}

/** `one snippet`, `12,345 snippets`. */
export function many(count: number): string {
  return count === 1 ? "one snippet" : `${grouped(count)} snippets`;
}

/** Things by their number: `1 row`, `12,345 rows`. */
export function counted(count: number, thing: string): string {
  return count === 1 ? `1 ${thing}` : `${grouped(count)} ${thing}s`;
}

/** `it` or `them`. */
export function pronoun(count: number): string {
  return count === 1 ? "it" : "them";
}

/** A snippet by its label, or by the beginning of its text, in quotation marks. */
export function named(snippet: NamedSnippet): string {
  if (snippet.private && snippet.label === undefined) return "a private snippet";
  return `“${innerMarks(shortened((snippet.label ?? snippet.text) || `a blank ${snippet.kind}`))}”`;
}

/** A text as it stands within quotation marks: its own are single ones there. */
function innerMarks(text: string): string {
  return text.replaceAll("“", "‘").replaceAll("”", "’");
}

/** The same with where it came from: `“First wheatear on the seawall…” (diary.docx, p3)`. */
export function namedWithOrigin(snippet: NamedSnippet & { readonly origin: NamedOrigin }): string {
  const place = originText(snippet.origin);
  return place === "" ? named(snippet) : `${named(snippet)} (${place})`;
}

/** The same with its position. */
export function namedWithPosition({ position, entry }: PlacedSnippet): string {
  return `${position}, ${namedWithOrigin(entry)}`;
}

/** Several snippets: the first two or three, and how many more. `total` is how many there are, when not all are given. */
export function namedAll(snippets: readonly NamedSnippet[], total = snippets.length): string {
  const shown = snippets.slice(0, total > 3 ? 2 : 3).map(named);
  const more = total - shown.length;
  return shown.join(", ") + (more > 0 ? ` and ${grouped(more)} more` : "");
}

/** Several snippets with their positions: the first three or four, and how many more. */
export function namedWithPositions(snippets: readonly PlacedSnippet[]): string {
  const shown = snippets.slice(0, snippets.length > 4 ? 3 : 4);
  const more = snippets.length > shown.length ? `; and ${snippets.length - shown.length} more` : "";
  return shown.map(namedWithPosition).join("; ") + more;
}

/** One snippet with its position, of several only their number. */
export function oneOrMany(snippets: readonly PlacedSnippet[]): string {
  return snippets.length === 1 ? namedWithPosition(snippets[0]!) : many(snippets.length);
}

type Unit = readonly [size: number, one: string, many: string];
const TIMES: readonly Unit[] = [
  [DAY, "day", "days"],
  [HOUR, "hour", "hours"],
  [MINUTE, "minute", "minutes"],
  [SECOND, "second", "seconds"],
];
const SIZES: readonly Unit[] = [
  [GIGABYTE, "GB", "GB"],
  [MEGABYTE, "MB", "MB"],
  [KILOBYTE, "KB", "KB"],
  [1, "byte", "bytes"],
];

function inUnits(value: number, units: readonly Unit[]): string {
  const [size, one, many] = units.find(([each]) => value >= each && value % each === 0) ?? units.at(-1)!;
  return `${value / size} ${value === size ? one : many}`;
}

/** A time in the largest unit that is whole: `2 minutes`; `never` for none. */
export function duration(milliseconds: number | null): string {
  return milliseconds === null ? "never" : inUnits(milliseconds, TIMES);
}

/** A size in the largest unit that is whole: `256 MB`; `any` for no limit. */
export function size(bytes: number | null): string {
  return bytes === null ? "any" : inUnits(bytes, SIZES);
}

/** A drawer's limits: `1,000 snippets and 256 MB`. */
export function limits({ snippets, bytes }: { snippets: number | null; bytes: number | null }): string {
  return [
    ...(snippets === null ? [] : [snippets === 1 ? "1 snippet" : `${grouped(snippets)} snippets`]),
    ...(bytes === null ? [] : [size(bytes)]),
  ].join(" and ");
}

/** What a secret looks like to be. */
export const SECRETS = {
  card: "a card number",
  key: "a key",
  password: "a password",
  code: "a one-time code",
  access: "a PIN or an access code",
} as const;

/** Names in quotation marks: `“a”, “b”`. */
export function quotedAll(names: readonly string[]): string {
  return names.map((name) => `“${name}”`).join(", ");
}

/** What is said of a place that holds nothing. */
export function blank(place: string): string {
  return place === "" ? "it is blank" : `${place} is blank`;
}

const ELEMENTS: Readonly<Record<string, string>> = {
  textarea: "the field",
  input: "the field",
  iframe: "the frame",
  cell: "the cell",
};

/** A place on a page, by its label or by what it is. */
export function namedPlace({ label, element, column }: NamedPlace): string {
  if (label !== undefined) return `“${label}”`;
  return column === undefined ? (ELEMENTS[element] ?? "the text") : `the cell of “${column}”`;
}

/** A question with the known word that may have been meant, to stand after a sentence; nothing when none is near. */
export function didYouMean(word: string, known: readonly string[]): string {
  const near = closestOf(word, known);
  return near === undefined ? "" : ` Did you mean “${near}”?`;
}
