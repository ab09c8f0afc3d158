import { originText } from "../content/origin.js";
import { reversed, type Change, type Edit } from "./change.js";
import type { Entry } from "./entry.js";

/** How many characters of a snippet stand in a message. */
const SAID_LENGTH = 40;

/** A snippet as messages name it: its label, or the beginning of its text, in quotation marks. */
export function said(entry: Pick<Entry, "text" | "label" | "private" | "kind">): string {
  if (entry.private) return "a private snippet";
  const text = entry.label ?? entry.text;
  if (text.length <= SAID_LENGTH) return `“${text}”`;
  const cut = text.slice(0, SAID_LENGTH);
  return `“${(/^(.{20,})\s/su.exec(cut)?.[1] ?? cut).replace(/[\s,;|—-]+$/u, "").replace(/[\uD800-\uDBFF]$/, "")}…”`;
}

/** The same with where it came from: `“First wheatear on the seawall…” (diary.docx, p3)`. */
export function naming(entry: Pick<Entry, "text" | "label" | "private" | "kind" | "origin">): string {
  const place = originText(entry.origin);
  return place === "" ? said(entry) : `${said(entry)} (${place})`;
}

const DEEDS: Readonly<Record<Change["what"], string>> = {
  collect: "collecting",
  append: "appending to",
  merge: "merging",
  split: "splitting",
  move: "moving",
  discard: "discarding",
  undo: "undoing",
  redo: "doing again",
};

/** What an undo or a redo did, as a sentence: `Undone: discarding “Check rings”.` */
export function describeChange(target: Change, by: "undo" | "redo"): string {
  const what = target.deed ?? target.what;
  const edits = target.what === "undo" ? reversed(target.edits) : target.edits;
  // A merge is called by what came of it, a split by what it was made of.
  const isNamed = ({ before, after }: Edit) =>
    what === "merge" ? after !== null : what === "split" ? before !== null : true;
  const names = edits
    .filter(isNamed)
    .map(({ before, after }) => said((what === "split" ? before : (after ?? before))!));
  const more = names.length > 2 ? ` and ${names.length - 2} more` : "";
  const deed = `${DEEDS[what]} ${names.slice(0, 2).join(", ")}${more}`;
  return by === "undo" ? `Undone: ${deed}.` : `Done again: ${deed}.`;
}
