import type { NamedSnippet } from "../core/names.js";
import { action, type ActionSummary } from "./operations.js";
import { duration, grouped, many, namedAll, size } from "./phrases.js";

/** What stands over every panel. */
export const aside = { back: "Back to the list" };

/** The panel that shows one snippet whole. */
export const snippetPanel = {
  /** Its name. */
  name: (position: number) => `Snippet ${position}`,
  /** When it was collected. */
  came: (time: string) => `collected ${time}`,
  kept: "kept",
  more: "… and more.",
  /** What changes its words, takes the change, and leaves them as they were. */
  edit: "Change the words",
  /** What takes it anew from its file, and what looks into that. */
  refresh: "Take it anew",
  lookInto: "Look into its file",
  save: "Save",
  leave: "Leave it",
  /** The field in which they are changed. */
  words: (position: number) => `Words of snippet ${position}`,
  askLeave: "Leave the words as they were? What you have typed is lost.",
  editNote: "Undo brings back what it said.",
};

/** The panel of what has left. */
export const gone = {
  /** What is asked before all of it is forgotten. */
  askForget: "Forget for good all that is not kept, and all that has left? Nothing brings it back.",
  name: "What has left",
  nothing: "Nothing has left that could be brought back.",
  left: (time: string) => `left ${time}`,
  restore: "Bring back",
  /** The buttons of the sentence below, and what stands after each. */
  empty: ["Empty the drawer", "of all that is not kept, or"] as readonly [string, string],
  forget: ["forget it for good", ", with all that has left."] as readonly [string, string],
};

/** The panel of what was done. */
export const done = {
  name: "What was done",
  nothing: "Nothing was done that could be undone.",
  act: (summary: ActionSummary) => {
    const words = action(summary);
    return words.charAt(0).toUpperCase() + words.slice(1);
  },
  /** Undoes one act and all that came after it. */
  undo: (count: number) => (count === 1 ? "Undo" : `Undo these ${count}`),
  undoFrom: ({ act, count }: { act: string; count: number }) =>
    count === 1 ? `Undo: ${act}` : `Undo the latest ${count}, from: ${act}`,
};

/** The panel of files that are looked into, of whose parts some are collected. */
export const partsPanel = {
  name: "Parts of the files",
  collect: (count: number) => (count === 0 ? "Collect what is marked" : `Collect ${many(count)}`),
  whole: (files: number) => (files === 1 ? "Collect all of it as one" : "Collect each file as one"),
  leave: "Leave it",
  every: (count: number) => (count === 1 ? "its one part" : `all ${grouped(count)} parts`),
  /** The button for more of a long document's parts: how many are here, and of how many. */
  more: ({ shown, of }: { shown: number; of: number }) =>
    `Show more: ${grouped(shown)} of ${grouped(of)} are here`,
  /** What takes what is marked out of the file. */
  takeOut: (count: number) =>
    count < 2 ? "Take it out of the file" : `Take the ${grouped(count)} out of the file`,
  /** What puts snippets into the file, and where. */
  put: (count: number) => (count === 0 ? "Put here…" : `Put ${many(count)} here…`),
  puts: {
    after: "after it",
    before: "before it",
    instead: "instead of it",
    cells: "into these cells, which are empty",
    over: "over what these cells say",
    below: "as rows below them",
    end: "as rows at the end of the sheet",
  },
  /** Why nothing can be put. */
  putNothing: "Pick snippets first.",
  putWhere: "Mark the one place where they go.",
  /** That it is not known yet what becomes of the file. */
  sought: "It is being looked for where this file is…",
  /** What becomes of the file. */
  inPlace: (path: string) => `Changes ${path}; Undo puts it back as it was.`,
  inCopy: "It is not known where this file is: you get a changed copy of it, and it stays as it is.",
  sheet: "Sheet",
  grid: (sheet: string) => `Cells of the sheet “${sheet}”`,
  draw: "Draw a range over the cells; with the keyboard by Shift and the arrows, then Enter.",
  empty: "This sheet is empty.",
  mark: "Mark this range",
  marked: (spot: string) => `Marked ${spot}.`,
  unmarked: (spot: string) => `${spot} is not marked any more.`,
  unmark: "Take off",
  unmarkOf: (spot: string) => `Take off: ${spot}`,
  /** Where a page of the file begins. */
  page: (number: number) => `Page ${number}`,
  /** What a part is. */
  types: {
    heading: "heading",
    paragraph: "paragraph",
    item: "item of a list",
    numberedItem: "numbered item",
    quote: "quote",
    code: "code",
    table: "table",
    picture: "picture",
    sheet: "sheet",
    attachment: "attachment",
  },
};

/** A rule as a sentence of which the end is a choice. */
const stays = (before: string) => ({
  before,
  say: (age: number | null) => (age === null ? "until they are discarded" : duration(age)),
});

/** The rules as sentences: what stands before the choice, and what each choice says. */
export const ruleSentences = {
  collecting: {
    before: "What is copied",
    say: (on: boolean) => (on ? "is collected" : "is not collected"),
  },
  blanks: {
    before: "What holds nothing",
    say: (what: "skip" | "allow") => (what === "skip" ? "is skipped" : "is collected too"),
  },
  repeats: {
    before: "When the same piece comes again,",
    say: (what: "skip" | "allow" | "move") =>
      ({
        skip: "it is skipped",
        allow: "it is collected again",
        move: "the one that is here becomes the latest",
      })[what],
  },
  snippets: {
    before: "The drawer holds",
    say: (count: number | null) =>
      count === null ? "any number of snippets" : `at most ${grouped(count)} snippets`,
  },
  size: {
    before: "They take",
    say: (bytes: number | null) => (bytes === null ? "any room" : `at most ${size(bytes)}`),
  },
  textAge: stays("Text, tables and links stay"),
  pictureAge: stays("Pictures stay"),
  detect: {
    before: "What looks like a secret",
    say: (on: boolean) => (on ? "is made private" : "is kept like the rest"),
  },
  privateAge: stays("Secrets stay"),
  goneAge: {
    before: "What left can be brought back",
    say: (age: number | null) => (age === null ? "always" : `for ${duration(age)}`),
  },
  neverFrom: {
    before: "On a desktop what is copied is collected",
    say: (names: string) => (names === "" ? "from every program" : `from every program but ${names}`),
  },
};

/** The panel of rules. */
export const rulesPanel = {
  /** What is asked where many would leave by a change. */
  askChange: (leaving: readonly NamedSnippet[]) =>
    `This takes ${many(leaving.length)} out: ${namedAll(leaving)}. Go on?`,
  name: "Rules",
  note: "What is kept stays whatever the rules say. The oldest that is not kept goes first.",
};

/** The panel of recipes. */
export const recipesPanel = {
  name: "Recipes",
  nothing: "No recipe is kept yet. Choose words in the sentence, and keep them under a name.",
  use: "Use",
  remove: "Remove",
  keep: "Keep the sentence as",
  keepName: "Name of the recipe",
};

/** The panel in which a form is filled. */
export const fillPanel = {
  name: "Fill the form",
  closed: "which cannot be written in",
  form: "which it does not take",
  unmatched: (labels: readonly string[]) =>
    `No field is called ${labels.map((label) => `“${label}”`).join(", ")}.`,
  nothing:
    "No field of the form is called like a label. Give snippets labels, or choose a table of labels and values.",
  fill: (count: number) => (count === 1 ? "Fill one field" : `Fill ${count} fields`),
  leave: "Leave it",
};

/** The panel of what can be set on this computer. */
export const computerPanel = {
  name: "This computer",
  /** From where the window is started. */
  starts: {
    menu: "Drawer stands in the system’s menu",
    login: "It starts when you log in, and collects quietly",
  },
  devices: "Your devices",
  thisDevice: "this one",
  /** When a device was heard last. */
  heard: (time: string) => `heard ${time}`,
  notHeard: "not heard yet",
  /** There is no other device yet. */
  alone: "These drawers are on this computer alone.",
  hub: "Where your devices meet (the hub’s address):",
  invite: "Invite a device",
  joinBy: "Or join another, by its invitation:",
  join: "Join",
  /** An invitation, and until when it is good. */
  invited: (time: string) =>
    `Good once, until ${time}. Point a telephone’s camera at the code; or write this on the other device, under “This computer”:`,
  code: "The invitation as a code for a camera",
  keys: "Keys of your own, in every program",
  noKeys: "No key is set yet.",
  remove: "Take back",
  key: "Press a key:",
  does: "It",
  which: "which, and how:",
  set: "Set it",
  /** What a key can do. */
  acts: {
    open: "brings this window to the front",
    collect: "collects what is selected",
    append: "adds what is selected to the latest",
    place: "places snippets",
    next: "hands out the next one",
    back: "hands out the one before again",
    send: "sends what is selected to where the last went",
    undo: "undoes",
    redo: "does again",
  },
  note: "They work while this window is open, or “drawer watch” runs.",
};

/** Keys, each with what it does. */
type Key = readonly [key: string, does: string];

/** The panel that tells the keys. */
export const keysPanel = {
  name: "Keys",
  hotkey: "from anywhere on the page, goes to the list",
  sendKey: "sends what is selected to where the last block went",
  inRun: "In the list",
  /** On a page with places, and where blocks go onto the clipboard. */
  placeKey: ["Enter", "places it"] as Key,
  copyKey: ["Enter", "copies it to the clipboard"] as Key,
  desktopKey: ["Enter", "places it in the window that you came from"] as Key,
  leaveKey: ["Escape", "goes back to where you wrote"] as Key,
  keys: [
    ["↓ ↑", "the next and the previous snippet"],
    ["← →", "its number, what it says, and what can be done with it"],
    ["Home End", "the first and the last snippet"],
    ["P", "picks it, or takes it out of the pick"],
    ["Shift P", "picks all from the one picked last to it"],
    ["Ctrl A, Escape", "picks all, and none"],
    ["S", "shows it whole"],
    ["E", "changes its words"],
    ["K", "keeps it, or releases it"],
    ["C", "copies it to the clipboard"],
    ["L", "gives it a label"],
    ["A", "lays the pieces out as they ask for"],
    ["Alt ↓, Alt ↑", "moves it later and earlier"],
    ["Delete", "discards it"],
    ["Ctrl Z, Ctrl Shift Z", "undoes, and does again"],
  ] as readonly Key[],
};
