import { grouped } from "../phrases.js";

/** What is refused of a page, and of a place in it. */
export const pageErrors = {
  /** In a page, no place has been chosen for a block. */
  "nothing/target": () => "Click first where it should go: in the text, or in a field.",
  /** On a page, nothing is selected that could be collected. */
  "nothing/selected-here": () => "Nothing is selected. Select something first.",
  /** On a page, no field of the form is called like a label of the snippets. */
  "nothing/fill": () =>
    "No field is filled: none is called like a label of the snippets. Give labels, or pick a table of labels and values.",
  /** The browser does not let the page copy. */
  "failed/clipboard": () =>
    "The browser does not let this page write to the clipboard. Allow it, or select the block and copy it.",
  /** A part of the program that is loaded when it is first needed did not come. */
  "failed/loading": () =>
    "Nothing was done: a part of the drawer could not be loaded. Do it again once this page can be reached.",
  /** Something failed that is no fault of the user's. */
  failed: ({ why }: { why: string }) => `That failed: ${why}`,
  /** The place where the user last was takes no block: a password, a frame of another site, a control. */
  "not-placed/kind": ({ place }: { place: string }) =>
    `Nothing was placed: ${place}, where you were last, takes no text from here. Click where it should go.`,
  /** The field lets nobody write. */
  "not-placed/closed": ({ place }: { place: string }) =>
    `Nothing was placed: ${place} cannot be written in now.`,
  /** A field takes only so many characters. */
  "not-placed/long": ({ place, length, most }: { place: string; length: number; most: number }) =>
    `Nothing was placed: ${place} takes ${grouped(most)} characters, and would have ${grouped(length)}.`,
  /** A field of dates, times or other values does not take what is no such value. */
  "not-placed/form": ({ place, type, text }: { place: string; type: string; text: string }) =>
    `Nothing was placed: “${text.slice(0, 40)}” is not what ${place} takes (${type}).`,
  /** The place did not take it. */
  "not-placed/refused": ({ place }: { place: string }) =>
    `Nothing was placed: ${place} did not take it. Click where it should go, and try again.`,
  /** In a page, the cells from the chosen one on are too few. */
  "not-placed/room": ({ place }: { place: string }) =>
    `Nothing was placed: from ${place} on there are not enough cells. Choose one further up or to the left.`,
  /** In a page, nothing was placed that could be taken back. */
  "nothing/placed": () => "Nothing was placed that could be taken back.",
  /** In a page, the text has changed since the block was placed. */
  "nothing/changed": () => "The text has changed since. Use the undo of the text itself.",
};
