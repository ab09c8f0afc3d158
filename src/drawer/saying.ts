import { grouped } from "../content/number.js";
import { originText } from "../content/origin.js";
import {
  reversed,
  reversedValues,
  type Change,
  type Edit,
  type ValueEdit,
  type OperationName,
} from "./change.js";
import type { Entry } from "./entry.js";
import { RULES, type Rules } from "./rules.js";
import { MASK } from "./secret.js";
import { VALUES } from "./values.js";

/** How many characters of a snippet stand in a message. */
const SAID_LENGTH = 40;

type Named = Pick<Entry, "text" | "label" | "private" | "kind">;

/** A snippet as messages name it: its label, or the beginning of its text, in quotation marks. */
export function said(entry: Named): string {
  if (entry.private && entry.label === undefined) return "a private snippet";
  const text = (entry.label ?? entry.text) || `a blank ${entry.kind}`;
  if (text.length <= SAID_LENGTH) return `“${text}”`;
  const cut = text.slice(0, SAID_LENGTH);
  return `“${(/^(.{20,})\s/su.exec(cut)?.[1] ?? cut).replace(/[\s,;|—-]+$/u, "").replace(/[\uD800-\uDBFF]$/, "")}…”`;
}

/** The same with where it came from: `“First wheatear on the seawall…” (diary.docx, p3)`. */
export function naming(entry: Named & Pick<Entry, "origin">): string {
  const place = originText(entry.origin);
  return place === "" ? said(entry) : `${said(entry)} (${place})`;
}

/** Several snippets as messages name them: the first two or three, and how many more. */
export function namesOf(entries: readonly Named[], total = entries.length): string {
  const shown = entries.slice(0, total > 3 ? 2 : 3).map(said);
  const more = total - shown.length;
  return shown.join(", ") + (more > 0 ? ` and ${grouped(more)} more` : "");
}

/** A number of snippets in words. */
export function many(count: number): string {
  return count === 1 ? "one snippet" : `${grouped(count)} snippets`;
}

/** How a snippet is shown in lists: its label and text, or, when it is private, nothing of what it says. */
export function shown({ label, text, private: isPrivate }: Named): string {
  const says = isPrivate ? MASK : text;
  return label === undefined ? says : `${label}: ${says}`;
}

const DEEDS: Readonly<Record<OperationName, string>> = {
  collect: "collecting",
  import: "importing",
  append: "appending to",
  merge: "merging",
  split: "splitting",
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
  rule: "changing the rule",
  recipe: "changing the recipe",
  undo: "undoing",
  redo: "doing again",
};

/**
 * What a change did, in words: `discarding “Check rings”`.
 * @param total how many snippets the whole act is about, when the change is only a part of it
 */
export function deedOf(change: Change, total?: number): string {
  const what = change.undoneOperation ?? change.operation;
  const edits = change.operation === "undo" ? reversed(change.edits) : change.edits;
  if (edits.length === 0 || change.values?.length)
    return valuesDeed(
      what,
      change.operation === "undo" ? reversedValues(change.values ?? []) : (change.values ?? []),
    );
  const named = edits.filter((edit) => isNamed(what, edit));
  const entries = named.map(({ before, after }) => (what === "split" ? before : (after ?? before))!);
  return `${DEEDS[what]} ${namesOf(entries, total)}`;
}

/** A merge is called by what came of it, a split by what it was made of, collecting by what came in. */
function isNamed(what: OperationName, { before, after }: Edit): boolean {
  if (what === "merge" || what === "collect" || what === "import") return after !== null;
  return what === "split" ? before !== null : true;
}

/** What a change of values did: `changing the rule “snippets”`, `pausing`, `changing the recipe “roundup”`. */
function valuesDeed(what: OperationName, [value]: readonly ValueEdit[]): string {
  if (!value) return DEEDS[what];
  if (value.name.startsWith(VALUES.recipe))
    return `${DEEDS[what]} “${value.name.slice(VALUES.recipe.length)}”`;
  const [before, after] = [value.before, value.after].map(
    (text) => JSON.parse(text ?? "{}") as Partial<Rules>,
  );
  const all = Object.keys({ ...before, ...after }) as (keyof Rules)[];
  const changed = all.filter((key) => before![key] !== after![key]);
  if (changed.join() === "collecting") return after!.collecting === false ? "pausing" : "resuming";
  return `${DEEDS[what]} ${changed.map((key) => `“${RULES[key].name}”`).join(", ")}`;
}
