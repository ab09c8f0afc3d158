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

/** Eine ganze Zahl: `12.345`. */
export function grouped(number: number): string {
  return String(number).replace(/\B(?=(?:\d{3})+$)/g, ".");
}

export function many(count: number): string {
  return count === 1 ? "ein Stück" : `${grouped(count)} Stücke`;
}

const KINDS: Readonly<Record<string, string>> = {
  text: "Text",
  table: "Tabelle",
  picture: "Bild",
  link: "Verweis",
};

export function named({ label, text, kind, private: isPrivate }: NamedSnippet): string {
  if (isPrivate && label === undefined) return "ein privates Stück";
  return `„${innerMarks(shortened((label ?? text) || `leer (${KINDS[kind] ?? kind})`))}“`;
}

function innerMarks(text: string): string {
  return text.replaceAll("„", "‚").replace(/[“”]/g, "‘");
}

export function namedWithOrigin(snippet: NamedSnippet & { readonly origin: NamedOrigin }): string {
  const place = originText(snippet.origin);
  return place === "" ? named(snippet) : `${named(snippet)} (${place})`;
}

export function namedWithPosition({ position, entry }: PlacedSnippet): string {
  return `${position}, ${namedWithOrigin(entry)}`;
}

export function namedAll(snippets: readonly NamedSnippet[], total = snippets.length): string {
  const shown = snippets.slice(0, total > 3 ? 2 : 3).map(named);
  const more = total - shown.length;
  return shown.join(", ") + (more > 0 ? ` und ${grouped(more)} mehr` : "");
}

export function namedWithPositions(snippets: readonly PlacedSnippet[]): string {
  const shown = snippets.slice(0, snippets.length > 4 ? 3 : 4);
  const more = snippets.length > shown.length ? `; und ${snippets.length - shown.length} mehr` : "";
  return shown.map(namedWithPosition).join("; ") + more;
}

export function oneOrMany(snippets: readonly PlacedSnippet[]): string {
  return snippets.length === 1 ? namedWithPosition(snippets[0]!) : many(snippets.length);
}

type Unit = readonly [size: number, one: string, many: string];
/** Nach Verhältniswörtern mit dem dritten Fall: „nach zwei Tagen“. */
const TIMES: readonly Unit[] = [
  [DAY, "Tag", "Tagen"],
  [HOUR, "Stunde", "Stunden"],
  [MINUTE, "Minute", "Minuten"],
  [SECOND, "Sekunde", "Sekunden"],
];
const SIZES: readonly Unit[] = [
  [GIGABYTE, "GB", "GB"],
  [MEGABYTE, "MB", "MB"],
  [KILOBYTE, "KB", "KB"],
  [1, "Byte", "Byte"],
];

function inUnits(value: number, units: readonly Unit[]): string {
  const [size, one, several] = units.find(([each]) => value >= each && value % each === 0) ?? units.at(-1)!;
  return `${grouped(value / size)} ${value === size ? one : several}`;
}

export function duration(milliseconds: number | null): string {
  return milliseconds === null ? "nie" : inUnits(milliseconds, TIMES);
}

export function size(bytes: number | null): string {
  return bytes === null ? "beliebig viel" : inUnits(bytes, SIZES);
}

export function limits({ snippets, bytes }: { snippets: number | null; bytes: number | null }): string {
  return [...(snippets === null ? [] : [many(snippets)]), ...(bytes === null ? [] : [size(bytes)])].join(
    " und ",
  );
}

export const SECRETS = {
  card: "eine Kartennummer",
  key: "ein Schlüssel",
  password: "ein Kennwort",
  code: "ein Einmalcode",
  access: "eine PIN oder ein Zugangscode",
} as const;

export function quotedAll(names: readonly string[]): string {
  return names.map((name) => `„${name}“`).join(", ");
}

const ELEMENTS: Readonly<Record<string, string>> = {
  textarea: "das Feld",
  input: "das Feld",
  iframe: "der Rahmen",
  cell: "die Zelle",
};

/** Eine Stelle auf einer Seite: wie sie heißt, oder was sie ist. */
export function namedPlace({ label, element, column }: NamedPlace): string {
  if (label !== undefined) return `„${label}“`;
  return column === undefined ? (ELEMENTS[element] ?? "der Text") : `die Zelle von „${column}“`;
}

export function didYouMean(word: string, known: readonly string[]): string {
  const near = closestOf(word, known);
  return near === undefined ? "" : ` Meinten Sie „${near}“?`;
}
