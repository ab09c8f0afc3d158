import type { NamedPlace } from "../core/names.js";
import { grouped, many, namedPlace } from "./phrases.js";

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
  /** What opens all else. */
  menu: "More",
  lookInto: "Look into a file…",
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
  /** The button that places so many. */
  place: (count: number) => (count === 0 ? "Place" : `Place ${grouped(count)}`),
  /** Where blocks go onto the clipboard of the desktop, and are pasted anywhere. */
  desktop: {
    /** The button that copies so many. */
    place: (count: number) => (count === 0 ? "Copy" : `Copy ${grouped(count)}`),
    paste: "Then paste it where it should be.",
    /** Where a block goes, in the window of another program; a choice of what follows stands after it. */
    into: (name: string) => `Into “${name}”,`,
    /** Nothing is known yet that it could go into. */
    nowhere: "Go where it should land, and come back: it goes there then. Until then it is copied.",
  },
  /** Where a block lands. */
  landsIn: (place: NamedPlace) => `Lands in ${namedPlace(place)}.`,
  landsNowhere: "Click where it should land.",
  /** What was placed: a snippet of a deal, fields of a form. */
  dealt: (number: number, of: number) => `${number} of ${of}`,
  fields: (count: number) => (count === 1 ? "into one field" : `into ${grouped(count)} fields`),
  snippet: (position: number) => `snippet ${position}`,
  /** How far something is that takes long. */
  progress: {
    importing: (percent: number) => `Importing: ${percent} %.`,
    exporting: (percent: number) => `Exporting: ${percent} %.`,
    /** That what is being copied is not on the clipboard yet. */
    copying: (_: number) => "It is not on the clipboard yet…",
    /** That what is being placed is not in the other window yet. */
    placing: (_: number) => "It is being put there…",
  },
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
