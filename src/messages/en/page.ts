import type { NamedPlace } from "../core/names.js";
import { grouped, many, namedPlace } from "./phrases.js";

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
  "not-placed/kind": ({ place }: { place: NamedPlace }) =>
    `Nothing was placed: ${namedPlace(place)}, where you were last, takes no text from here. Click where it should go.`,
  /** The field lets nobody write. */
  "not-placed/closed": ({ place }: { place: NamedPlace }) =>
    `Nothing was placed: ${namedPlace(place)} cannot be written in now.`,
  /** A field takes only so many characters. */
  "not-placed/long": ({ place, length, most }: { place: NamedPlace; length: number; most: number }) =>
    `Nothing was placed: ${namedPlace(place)} takes ${grouped(most)} characters, and would have ${grouped(length)}.`,
  /** A field of dates, times or other values does not take what is no such value. */
  "not-placed/form": ({ place, type, text }: { place: NamedPlace; type: string; text: string }) =>
    `Nothing was placed: “${text.slice(0, 40)}” is not what ${namedPlace(place)} takes (${type}).`,
  /** The place did not take it. */
  "not-placed/refused": ({ place }: { place: NamedPlace }) =>
    `Nothing was placed: ${namedPlace(place)} did not take it. Click where it should go, and try again.`,
  /** In a page, the cells from the chosen one on are too few. */
  "not-placed/room": ({ place }: { place: NamedPlace }) =>
    `Nothing was placed: from ${namedPlace(place)} on there are not enough cells. Choose one further up or to the left.`,
  /** A place of the page's own did not take it, and says why. */
  "not-placed/own": ({ message }: { message: string }) => message,
  /** The program that a block was to go into did not take it. */
  "not-placed/not-taken": ({ name }: { name: string }) =>
    `Nothing was placed: “${name}” did not take it. It is on the clipboard: put the caret where it should go, and paste.`,
  /** The user has come from another window than the one that was named. */
  "not-placed/elsewhere": () =>
    "Nothing was placed: you came from another window meanwhile. Look where it would go, and do it again.",
  /** The window that a block was to go into is closed, or does not come to the front. */
  "not-placed/window-gone": ({ name }: { name: string }) =>
    `Nothing was placed: “${name}” is closed, or does not come to the front. Click where it should go, and come back.`,
  /** What was placed in another program's window cannot be taken back from here. */
  "nothing/changed-there": ({ name }: { name: string }) =>
    `It stays: something else was done in “${name}” since, or it has no undo. Go there, and press Ctrl+Z.`,
  /** Several were placed in another program's window one by one, and cannot be taken back from here. */
  "nothing/one-by-one": ({ name }: { name: string }) =>
    `They stay: each went into “${name}” by itself. Go there, and press Ctrl+Z until they are gone.`,
  /** In a page, nothing was placed that could be taken back. */
  "nothing/placed": () => "Nothing was placed that could be taken back.",
  /** In a page, the text has changed since the block was placed. */
  "nothing/changed": () => "The text has changed since. Use the undo of the text itself.",
};

/** What is told in a page. */
export const pageNotices = {
  /** In a page, a placing was taken back. */
  "undone/placing": ({ what }: { what: string }) => `Undone: placing ${what}.`,
  /** A file was changed in a copy. */
  "file/copy": ({ file }: { file: string }) =>
    `You get “${file}” as a changed copy, where your browser saves files; the one that you have looked into stays as it is.`,
  /** Rules were to be changed, and were not. */
  "rule/unchanged": () => "Nothing was changed.",

  /** An editor has no tables, and got lines instead. */
  "placed/as-lines": ({ what, place }: { what: string; place: NamedPlace }) =>
    `Placed ${what} in ${namedPlace(place)}, as lines with tabs between the cells: it has no tables.`,
  /** An editor has changed what was put into it. */
  "placed/changed": ({ what, place }: { what: string; place: NamedPlace }) =>
    `Placed ${what} in ${namedPlace(place)}, which has changed it: words are missing or run together. Look at it, or take it back and place it as lines.`,
  /** A block was put at the caret of another program. */
  "placed/desktop": ({ what, name }: { what: string; name: string }) => `Placed ${what} in “${name}”.`,
  /** A block is for a terminal, and goes when it is asked for again. */
  "again/terminal": ({ what, name }: { what: string; name: string }) =>
    `“${name}” is a terminal, and would run each line of ${what}. Do the same again to put it there.`,
  /** A block has something private in it, and goes when it is asked for again. */
  "again/private": ({ what, name }: { what: string; name: string }) =>
    `This is private: ${what}. Do the same again to put it in “${name}”, where all can read it.`,
  /** Several were put into another program one after another, and the user has stopped it. */
  "stopped/key": ({ taken, of, name }: { taken: number; of: number; name: string }) =>
    `Stopped, as you pressed a key or clicked: ${taken} of ${of} stand in “${name}”.`,
  /** The same, and another window came to the front. */
  "stopped/window": ({ taken, of, name }: { taken: number; of: number; name: string }) =>
    `Stopped, as another window came to the front: ${taken} of ${of} stand in “${name}”.`,
  /** The same, and the next was not taken. */
  "stopped/not-taken": ({ taken, of, name }: { taken: number; of: number; name: string }) =>
    `Stopped, as “${name}” did not take the next: ${taken} of ${of} stand there. The next is on the clipboard.`,
  /** What was put into another program is believed to be there, as the system does not tell. */
  "placed/unsure": ({ what, name }: { what: string; name: string }) =>
    `Put ${what} into “${name}”. This system does not tell whether it is there: look, and copy it if not.`,
  /** A block was placed, in a page. */
  "placed/page": ({ what, place }: { what: string; place: NamedPlace }) =>
    `Placed ${what} in ${namedPlace(place)}.`,
  /** The page was left before a copy was collected, and it was a secret, or may have been one. */
  "collected/left": ({ count }: { count: number }) =>
    `The page was left before ${count === 1 ? "a copy was" : `${grouped(count)} copies were`} collected; what may be a password is not kept meanwhile. Copy it again.`,
  /** Another drawer is shown, in a page. */
  "opened/page": ({ drawer }: { drawer: string }) => `This is the drawer “${drawer}”.`,
  /** A recipe is kept, in a page. */
  "recipe/kept": ({ name }: { name: string }) => `Kept the recipe “${name}”.`,
  /** A block was copied to the clipboard, in a page. */
  "copied/page": ({ what }: { what: string }) => `Copied ${what} to the clipboard.`,
  /** Fields of a form were filled, in a page. */
  "filled/page": ({ count }: { count: number }) =>
    `Filled ${count === 1 ? "one field" : `${grouped(count)} fields`}.`,
  /** A deal has begun, in a page. */
  "dealing/page": ({ of }: { of: number }) =>
    `Dealing ${many(of)}: ${of === 1 ? "it goes" : "each goes"} to the next field that you go to.`,
  /** A deal has begun, in a page, on the clipboard of a desktop that does not tell of pastes. */
  "dealing/in-turn": ({ of }: { of: number }) =>
    `Dealing ${many(of)} on the clipboard. The first is there; once it is pasted, “Skip” brings the next.`,
};
