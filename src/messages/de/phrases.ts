import {
  originText,
  shortened,
  typedName,
  type NamedOrigin,
  type NamedSnippet,
  type PlacedSnippet,
} from "../names.js";
import { DAY, GIGABYTE, HOUR, KILOBYTE, MEGABYTE, MINUTE, SECOND } from "../units.js";
import type { ActionSummary } from "../en/actions.js";

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
  return `„${shortened((label ?? text) || `leer (${KINDS[kind] ?? kind})`)}“`;
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
  account: "eine Kontonummer",
  key: "ein Schlüssel",
  password: "ein Kennwort",
  code: "ein Einmalcode",
} as const;

export function quotedAll(names: readonly string[]): string {
  return names.map((name) => `„${name}“`).join(", ");
}

const OPERATIONS: Readonly<Record<ActionSummary["operation"], string>> = {
  collect: "Einsammeln von",
  import: "Einlesen von",
  append: "Anhängen an",
  merge: "Verbinden von",
  split: "Teilen von",
  move: "Verschieben von",
  copy: "Kopieren von",
  label: "Benennen von",
  keep: "Behalten von",
  release: "Freigeben von",
  hide: "Verbergen von",
  unhide: "Zeigen von",
  discard: "Weglegen von",
  empty: "Leeren der Lade um",
  age: "Weggehen, dem Alter nach, von",
  restore: "Zurückholen von",
  rule: "Ändern der Regel",
  recipe: "Ändern des Rezepts",
  undo: "Rückgängigmachen von",
  redo: "Wiederholen von",
};

export function action({ operation, snippets, total, settings }: ActionSummary): string {
  const act = OPERATIONS[operation];
  if (!settings) return `${act} ${namedAll(snippets, total)}`.trim();
  if ("recipe" in settings) return `${act} „${settings.recipe}“`;
  if ("collecting" in settings) return settings.collecting ? "Fortsetzen" : "Anhalten";
  return `${act} ${quotedAll(settings.rules.map(typedName))}`;
}
