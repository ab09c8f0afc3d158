import { typedName, type NamedSnippet } from "../core/names.js";
import { namedAll } from "./phrases.js";

/** What each operation is called where it is undone or listed: `discarding “Check rings”`. */
export const operations = {
  collect: "collecting",
  import: "importing",
  append: "appending to",
  merge: "merging",
  split: "splitting",
  rewrite: "changing the words of",
  refresh: "refreshing",
  move: "moving",
  copy: "copying",
  label: "labelling",
  keep: "keeping",
  release: "releasing",
  hide: "making private",
  unhide: "taking the privacy off",
  discard: "discarding",
  empty: "emptying the drawer of",
  age: "letting go, by age,",
  restore: "bringing back",
  sync: "on another device,",
  rule: "changing the rule",
  recipe: "changing the recipe",
  undo: "undoing",
  redo: "doing again",
};

/** What an operation did, as far as it is told. */
export interface ActionSummary {
  readonly operation: keyof typeof operations;
  /** The snippets it is about. */
  readonly snippets: readonly NamedSnippet[];
  /** How many there are, when not all are given. */
  readonly total?: number;
  /** For a change of rules or recipes: which. */
  readonly settings?:
    { readonly recipe: string } | { readonly rules: readonly string[] } | { readonly collecting: boolean };
}

/** An action in words: `discarding “Check rings”`, `changing the rule “snippets”`, `pausing`. */
export function action({ operation, snippets, total, settings }: ActionSummary): string {
  const verb = operations[operation];
  if (!settings) return `${verb} ${namedAll(snippets, total)}`.trim();
  if ("recipe" in settings) return `${verb} “${settings.recipe}”`;
  if ("collecting" in settings) return settings.collecting ? "resuming" : "pausing";
  return `${verb} ${settings.rules.map((rule) => `“${typedName(rule)}”`).join(", ")}`;
}
