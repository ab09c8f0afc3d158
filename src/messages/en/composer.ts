import { grouped } from "./phrases.js";

/** What stands where snippets are put down: the sentence’s surroundings, and the acts. */
export const composer = {
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
  dealActs: { next: "Put it here", back: "Back", skip: "Skip", end: "End" },
  /** Where blocks go into another program. */
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
    tables: "with rows put into one table",
    none: "untouched",
  },
  citations: {
    none: "without sources",
    inline: "with sources in brackets",
    notes: "with numbered notes",
    list: "with a list of sources",
  },
};

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

/** What the pieces ask for: in short, and what it does. */
type Suggested = readonly [short: string, does: string];

/** What the pieces may ask for. */
export const suggestions = {
  once: ["Each once", "The same piece is there twice: place it once."] as Suggested,
  link: ["As a link", "A text and an address: place them as a link."] as Suggested,
  table: ["As one table", "These are rows of the same columns: place them as one table."] as Suggested,
  tables: [
    "Rows in one table",
    "Some of these are rows of the same columns: put those that follow each other into one table.",
  ] as Suggested,
  cells: [
    "Down the cells",
    "These are single values: place each in a cell of its own, one below the other.",
  ] as Suggested,
  rejoined: [
    "Rejoin the lines",
    "Lines are broken as on a page of print: put them back into paragraphs.",
  ] as Suggested,
};
