import { typedName } from "../core/names.js";
import type { ActionSummary } from "../en/operations.js";
import { namedAll, quotedAll } from "./phrases.js";

const OPERATIONS: Readonly<Record<ActionSummary["operation"], string>> = {
  collect: "Einsammeln von",
  import: "Einlesen von",
  append: "Anhängen an",
  merge: "Verbinden von",
  split: "Teilen von",
  rewrite: "Ändern der Worte von",
  refresh: "Auffrischen von",
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
  sync: "auf einem anderen Gerät Weggelegtes,",
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
