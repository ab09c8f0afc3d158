import type { NamedPlace, NamedSnippet } from "../core/names.js";
import { action, type ActionSummary } from "./operations.js";
import { duration, grouped, many, namedAll, namedPlace, size } from "./phrases.js";
/** What the elements of a page say: names of controls, states, and the sentence whose words are choices. */
export const page = {
  title: "Drawer",
  /** What becomes of what is copied: what it is called, its states, and what each does. */
  collecting: {
    name: "What you copy",
    states: { on: "Collecting", latest: "Onto the latest", off: "Paused" },
    does: {
      on: "What you copy is collected, each piece by itself.",
      latest: "What you copy is added to the latest snippet.",
      off: "What you copy is not collected.",
    },
  },
  /** What opens all else, and what leads back from it. */
  menu: "More",
  back: "Back to the list",
  /** What is moved to give the list more room, or what stands beside it. */
  divider: "Width of the list",
  /** Where it will go, what hangs over the drawer: files, which are looked into, or a piece. */
  receives: {
    /** Files, which are looked into. */
    files: (_: number) => "Drop it here to look into it, and choose what to collect.",
    /** A piece, which is collected. */
    piece: (position: number) => `Drop it here: it is collected as ${grouped(position)}.`,
  },
  /** How many have come while one looked elsewhere. */
  unseen: (count: number) => `${grouped(count)} new`,
  find: { name: "Find in the drawer", short: "Find" },
  panels: {
    gone: "Taken out",
    done: "What was done",
    recipes: "Recipes",
    rules: "Rules",
    computer: "This computer",
    keys: "Keys",
  },
  /** The choice of a drawer: what it is called, and what makes another one. */
  drawers: { name: "Drawer", another: "another…", ask: "What shall the other drawer be called?" },
  /** That nothing is kept when the page is closed. */
  notKept: "This browser keeps nothing for this page: what is here is gone when it is closed.",
  nothingYet:
    "Nothing here yet. Select something and copy it; it will stand here, numbered, in the order of gathering.",
  run: "Snippets, in order",
  foundRun: "Snippets found, the newest first",
  found: ({ count, words, most }: { count: number; words: string; most: number }) => {
    const holding = count === 1 ? "One snippet holds" : `${many(count)} hold`;
    const which = count === 0 ? "Nothing holds" : count === most ? `The newest ${most} that hold` : holding;
    return `${which} “${words}”.`;
  },
  undo: "Undo",
  redo: "Do again",
  putDown: "Place snippets",
  preview: "As it will land",
  more: (count: number) => `… and ${grouped(count)} more, which are placed too.`,
  /** How many private snippets are left out of what is placed. */
  leftOut: (count: number) =>
    count === 1
      ? "One private snippet is left out. Pick it by its number to place it."
      : `${grouped(count)} private snippets are left out. Pick them by their numbers to place them.`,
  moreOfIt: "… and the rest, which is placed too.",
  notShown: "What would land cannot be shown.",
  /** The button that places so many. */
  place: (count: number) => (count === 0 ? "Place" : `Place ${grouped(count)}`),
  /** What else is done with what is chosen. */
  acts: {
    copy: "Copy",
    deal: "One at a time",
    down: "Down the cells",
    across: "Across the cells",
    fill: "Fill the form",
    send: "Send the selection",
    merge: "Merge into one",
    file: "Save as…",
    export: "Export",
  },
  /** A deal that is under way on this page. */
  dealing: ({ left, of, next }: { left: number; of: number; next: string | undefined }) =>
    next === undefined ? `All ${of} are handed out.` : `${of - left + 1} of ${of} is next: ${next}`,
  /** Where blocks go onto the clipboard of the desktop, and are pasted anywhere. */
  desktop: {
    /** The button that copies so many. */
    place: (count: number) => (count === 0 ? "Copy" : `Copy ${grouped(count)}`),
    paste: "Then paste it where it should be.",
    /** Where a block goes, in the window of another program; a choice of what follows stands after it. */
    into: (name: string) => `Into “${name}”,`,
    /** Nothing is known yet that it could go into. */
    nowhere: "Go where it should land, and come back: it goes there then. Until then it is copied.",
    then: { name: "Then", there: "then stay there", here: "then come back here" },
    /** Each by itself at once, and the key between one and the next. */
    each: {
      name: "Each by itself…",
      keys: {
        Tab: "with Tab between: to the next field",
        Enter: "with Enter between: to the next line",
        Down: "with ↓ between: down the cells",
        Right: "with → between: across the cells",
      },
    },
    deal: "One at a time",
  },
  dealActs: { next: "Put it here", back: "Back", skip: "Skip", end: "End" },
  /** Where a block lands. */
  landsIn: (place: NamedPlace) => `Lands in ${namedPlace(place)}.`,
  landsNowhere: "Click where it should land.",
  /** What was placed: a snippet of a deal, fields of a form. */
  dealt: (number: number, of: number) => `${number} of ${of}`,
  fields: (count: number) => (count === 1 ? "into one field" : `into ${grouped(count)} fields`),
  snippet: (position: number) => `snippet ${position}`,
  askChange: (leaving: readonly NamedSnippet[]) =>
    `This takes ${many(leaving.length)} out: ${namedAll(leaving)}. Go on?`,
  askForget: "Forget for good all that is not kept, and all that has left? Nothing brings it back.",
};

/** What a row of the run says. */
export const row = {
  pick: ({ position, turn }: { position: number; turn: number }) =>
    turn > 0 ? `Picked as number ${turn}; take out of the pick` : `Pick snippet ${position}`,
  /** What a click on a row does where there is a desktop. */
  copies: (position: number) => `Copy snippet ${position}`,
  /** What a click on a row does in a page, with the place that it goes to. */
  places: ({ position, place }: { position: number; place: NamedPlace | undefined }) =>
    place === undefined
      ? `Click first where snippet ${position} should land`
      : `Place snippet ${position} in ${namedPlace(place)}`,
  /** What a click on a row does where it goes into another program's window. */
  placesIn: ({ position, name }: { position: number; name: string }) =>
    `Place snippet ${position} in “${name}”`,
  /** Several were picked at once. */
  pickedSeveral: (count: number) => `${grouped(count)} are picked.`,
  show: "Show",
  /** A button of a row, with the snippet that it is about. */
  actionOn: ({ action, position }: { action: string; position: number }) => `${action}: snippet ${position}`,
  /** What a snippet is, when it is not text. */
  kinds: { text: "text", table: "table", picture: "picture", link: "link" },
  /** That a snippet was picked, or taken out of the pick. */
  picked: ({ position, turn }: { position: number; turn: number }) =>
    turn > 0
      ? `Picked snippet ${position} as number ${turn}.`
      : `Snippet ${position} is not picked any more.`,
  open: "Open",
  copy: "Copy",
  label: "Label",
  labelOf: (position: number) => `Label of snippet ${position}`,
  split: "Split",
  kept: "kept",
  /** What has become of it in the file that it came from. */
  standings: {
    changed: "changed in its file",
    moved: "elsewhere in its file",
    gone: "not in its file any more",
    missing: "its file is gone",
  },
  private: "private",
  privateUntil: (time: string) => `private, goes at ${time}`,
  keep: "Keep",
  release: "Release",
  reveal: "Reveal",
  mask: "Mask",
  hide: "Hide",
  unhide: "Unhide",
  earlier: "Earlier",
  later: "Later",
  discard: "Discard",
  /** What else can be done with it. */
  otherActs: "More…",
};

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
  open: "Look into a file…",
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
  importing: (percent: number) => `Importing: ${percent} %.`,
  exporting: (percent: number) => `Exporting: ${percent} %.`,
  /** That what is being copied is not on the clipboard yet. */
  copying: (_: number) => "It is not on the clipboard yet…",
  /** That what is being placed is not in the other window yet. */
  placing: (_: number) => "It is being put there…",
};

/** The sentence that says what is placed and how: `Place … as …, in …, …, ….` */
export const sentence = {
  place: "Place",
  as: "as",
  in: "in",
  names: {
    which: "Which snippets",
    as: "Laid out as",
    style: "Look",
    tidy: "Tidying",
    cite: "Sources",
  },
  which: {
    picked: (count: number) => (count === 1 ? "the one picked" : `the ${count} picked`),
    /** Those that were found. */
    found: (count: number) => (count === 1 ? "the one found" : `the ${count} found`),
    all: (count: number) =>
      count === 0 ? "no snippets yet" : count === 1 ? "the one snippet" : `all ${count} snippets`,
    last: "the latest snippet",
    /** What picks those of today. */
    today: "pick those of today",
    /** What picks those of one document. */
    from: (document: string) => `pick those from ${document}`,
  },
  /** Layouts, by their names in a recipe. */
  layouts: {
    sequence: "they are, one after another",
    lines: "lines",
    joined: "one paragraph",
    sentence: "a sentence",
    bullets: "bullets",
    numbers: "a numbered list",
    rows: "one table",
    columns: "columns side by side",
    pairs: "labels and values",
    link: "links",
    quotes: "quotes with their origins",
  },
  styles: { own: "their own look", host: "the look of where it lands", bare: "plain words" },
  tidying: {
    edges: "without blank edges",
    lines: "without blank lines",
    repeats: "without repeats",
    rejoin: "with broken lines rejoined",
    none: "untouched",
  },
  citations: {
    none: "without sources",
    inline: "with sources in brackets",
    notes: "with numbered notes",
    list: "with a list of sources",
  },
};

/** What the pieces ask for: in short, and what it does. */
type Suggested = readonly [short: string, does: string];

/** What a recipe can say beside what the sentence says. */
export const details = {
  name: "More about it",
  between: "Between the pieces",
  before: "Before each",
  after: "After each",
  header: "First rows of tables",
  columns: "Columns are called",
  fit: "It goes into",
  locale: "Language of signs",
  /** What holds while nothing is said. */
  usual: {
    between: "as it is laid out",
    before: "nothing",
    after: "nothing",
    columns: "Tel=Telephone, …",
    locale: "as here",
  },
  headers: { usual: "as they look", yes: "name the columns", no: "name nothing" },
  fits: {
    usual: "where you go",
    page: "a page",
    plain: "lines of text",
    line: "one line",
    cell: "one cell",
    cells: "cells",
    address: "an address",
  },
};

/** What the pieces may ask for. */
export const suggestions = {
  once: ["Each once", "The same piece is there twice: place it once."] as Suggested,
  link: ["As a link", "A text and an address: place them as a link."] as Suggested,
  table: ["As one table", "These are rows of the same columns: place them as one table."] as Suggested,
  cells: [
    "Down the cells",
    "These are single values: place each in a cell of its own, one below the other.",
  ] as Suggested,
  rejoined: [
    "Rejoin the lines",
    "Lines are broken as on a page of print: put them back into paragraphs.",
  ] as Suggested,
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
