import { type NamedSnippet } from "../core/names.js";
import { named, didYouMean } from "./phrases.js";

/** Whose positions a pick counts: a drawer's snippets, or what has left it. */
export interface PickedFrom {
  readonly drawer: string;
  readonly isGone: boolean;
}

const whereOf = ({ drawer, isGone }: PickedFrom): string =>
  isGone ? `what has left the drawer “${drawer}”` : `the drawer “${drawer}”`;

const isEmpty = (drawer: string): string => `The drawer “${drawer}” is empty. Collect something first.`;

const noneGone = (drawer: string): string =>
  `Nothing has left the drawer “${drawer}” that could be brought back.`;

const PICK_FORMS =
  "3, 2..5, 5..2, 3.., ..3, first, last, last-1, all, kept, text, table, picture, link, from:diary.docx, /words/, today, yesterday, since:2031-04-08 or not:3";

/** What a drawer refuses: what is wrong, where, and the way out. */
export const drawerErrors = {
  /** There is no snippet at this position. */
  "no-position": ({ place, from, count }: { place: string; from: PickedFrom; count: number }) =>
    count === 0
      ? `There is no snippet ${place}: ${whereOf(from)} is empty.`
      : `There is no snippet ${place}: ${whereOf(from)} holds ${count === 1 ? "one snippet, 1" : `${count} snippets, 1 to ${count}`}.`,
  /** A position was given, and the drawer holds nothing. */
  "no-position/empty": ({ drawer }: { drawer: string }) => isEmpty(drawer),
  /** A position was given, and nothing has left the drawer. */
  "no-position/none-gone": ({ drawer }: { drawer: string }) => noneGone(drawer),
  /** A snippet was spoken of that is not there now. */
  "no-position/left": ({ from }: { from: PickedFrom }) => `That snippet is not in ${whereOf(from)} any more.`,
  /** The pick holds nothing. */
  "bad-pick/empty": () => `The pick is empty. Say which snippets: ${PICK_FORMS}.`,
  /** A word of the pick is none. */
  "bad-pick/word": ({ word, words }: { word: string; words: readonly string[] }) =>
    `“${word}” is not a pick.${didYouMean(word, words)} Write a pick like ${PICK_FORMS}.`,
  /** A word is no position. */
  "bad-pick/place": ({ word }: { word: string }) =>
    `“${word}” is not a position. Write a number, first, last, or last-1.`,
  /** A drawer's name is blank, too long, or has control characters. */
  "bad-option/drawer-name": () =>
    "A drawer needs a name of at most 200 characters, on one line and without control characters.",
  /** A position or a count of a list is no whole number in its range. */
  "bad-option/number": ({ name, value, least }: { name: string; value: unknown; least: number }) =>
    `“${String(value)}” cannot be “${name}”: it is a whole number from ${least} on.`,
  /** The drawer holds nothing. */
  "nothing/empty": ({ drawer }: { drawer: string }) => isEmpty(drawer),
  /** Nothing has left the drawer that could be brought back. */
  "nothing/none-gone": ({ drawer }: { drawer: string }) => noneGone(drawer),
  /** The pick matches no snippet. */
  "nothing/no-match": ({ pick, from }: { pick: string; from: PickedFrom }) =>
    `Nothing in ${whereOf(from)} matches “${pick}”.`,
  /** All that was picked is private, and not named by its own number. */
  "private/not-named": ({ positions }: { positions: readonly number[] }) =>
    positions.length === 1
      ? `Nothing was taken: snippet ${positions[0]} is private. Name it by its number, ${positions[0]}, if it is to go out.`
      : `Nothing was taken: snippets ${positions.join(", ")} are private. Name them by their numbers if they are to go out.`,
  /** The content of a snippet is missing from the store. */
  "store/missing": ({ position, snippet }: { position: number; snippet: NamedSnippet }) =>
    `The content of snippet ${position} is not in the store any more. It was ${named(snippet)}.`,
};

/** What a drawer tells after something was done, or rightly not done. */
export const drawerNotices = {
  /** Private snippets are given out only when they are named. */
  "private/left-out": ({ positions }: { positions: readonly number[] }) =>
    positions.length === 1
      ? `Left out, since it is private: snippet ${positions[0]}. Name it by its number to take it along.`
      : `Left out, since they are private: snippets ${positions.join(", ")}. Name them by their numbers to take them along.`,
  /** What is due could not be done now, and is tried again. */
  waits: ({ why }: { why: string }) =>
    `What is due by age or privacy could not be done now, and will be tried next time: ${why}`,
  /** Something private was put on a clipboard where nothing can be declared a secret. */
  "placed/not-secret": () =>
    "On this desktop it cannot be declared a secret: a history of the clipboard may keep it.",
};
