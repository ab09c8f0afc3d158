import type { NamedSnippet } from "../core/names.js";
import type { ErrorReason } from "../core/sentence.js";
import type { operations } from "./operations.js";
import { didYouMean, grouped, many, namedAll } from "./phrases.js";

/** Refusals of what was typed, which only the command line has. Their codes are told by as those of errors are. */
export const usage = {
  /** What was copied is no file. */
  "bad-option/each-clipboard": () => "--each takes files apart; what was copied last is collected whole.",
  /** The first invitation does not say where the hub is. */
  "bad-option/no-hub": () =>
    "Say at which hub your devices meet: drawer devices invite --hub URL. “drawer hub” serves one.",
  /** A group that is there has its hub, and its devices their names. */
  "bad-option/named": () =>
    "--hub and --name are for the first invitation: this device is in a group already.",
  /** A port is none. */
  "bad-option/port": ({ value }: { value: string }) =>
    `“${value}” is no port: give a number from 0 to 65535.`,
  /** A hub has one database. */
  "bad-option/two-databases": () => "A hub has one database: give one of --data and --postgres.",
  /** What is looked into by its spot is attached to a mail. */
  "bad-option/look-at": ({ at }: { at: string }) =>
    `--at of “look” is for what is attached to a mail (a1), and ${at} is not. “drawer look FILE” lists all spots, “drawer collect FILE --at ${at}” takes one.`,
  /** Nothing was said of what is to be lifted. */
  "bad-option/lift": () =>
    "Say what is to be lifted: drawer lift FILE --at SPOT. “drawer look FILE” lists the spots.",
  /** A file is to be put into, and not said where. */
  "bad-option/into": () => "With --into say where: --at SPOT. “drawer look FILE” lists the spots.",
  /** What belongs to a file that is put into, without one. */
  "bad-option/into-only": () => "--at, --put and --track belong to --into FILE.",
  /** It is not said where the filled file goes. */
  "bad-option/fill": () => "Say where the filled file goes: drawer fill FILE --to NEW.",
  /** Each row is to have a file, and all would have the same name. */
  "bad-option/each-name": ({ names }: { names: readonly string[] }) =>
    `With --each names in braces in the new name are what the files differ by: --to "letter-{{${names[0] ?? "Name"}}}.docx". The table has: ${names.join(", ")}.`,
  /** There is no table whose rows would each have a file. */
  "bad-option/each-table": () =>
    "--each needs one table among the snippets whose first row has names of the file's places: name it with --from, and see them with “drawer look --places FILE”.",
  /** Where a block goes is said otherwise. */
  "bad-option/put": ({ put }: { put: string }) => `“${put}” is not one of: after, before, instead.`,
  /** Spots were given for several files. */
  "bad-option/spots": () => "Spots belong to one file: name one file with --at, or several files without it.",
  /** Private, and not private. */
  "bad-option/private": () => "It is private or it is not: give one of --private and --not-private.",
  /** The clipboard, and something else. */
  "bad-option/clipboard": () =>
    "What was copied last is collected whole: --clipboard goes without files, --at and --type.",
  /** The clipboard has no format of its own. */
  "bad-option/clipboard-out": () =>
    "The clipboard gets the block in every form that helps: --to clipboard goes without --out.",
  /** Deals go to standard output by “next”, or onto the clipboard. */
  "bad-option/deal-to": () => "A deal goes onto the clipboard with a pick: drawer deal PICK --to clipboard.",
  /** Nothing that a key can do. */
  "bad-option/act": ({ act, acts, why }: { act: string; acts: readonly string[]; why?: string }) =>
    `“${act}” is nothing that a key does${why === undefined ? "" : ` (${why})`}. Keys do: ${acts.join(", ")}.`,
  /** What was typed sets no key. */
  "bad-option/key": ({ typed }: { typed: string }) =>
    `“${typed}” sets no key. Write drawer keys 'Super+F9=place last', or 'Super+F9=' to take it back.`,
  /** No such type of what is read. */
  "bad-option/type": ({ type, types }: { type: string; types: readonly string[] }) =>
    `There is no type “${type}”.${didYouMean(type, types)} The types are: ${types.join(", ")}.`,
  /** No such sign between columns. */
  "bad-option/separator-sign": ({ typed, names }: { typed: string; names: readonly string[] }) =>
    `“${typed}” parts no columns. It may be ${names.join(", ")}, or the sign itself.`,
  /** A byte order mark is wanted where there is no place for one. */
  "bad-option/bom": ({ format }: { format: string }) =>
    `A byte order mark can only stand before CSV and TSV, not before ${format}. Leave --bom out, or write --out csv.`,
  /** No such format of what is written. */
  "bad-option/out": ({ out, outputs }: { out: string; outputs: readonly string[] }) =>
    `There is no output “${out}”.${didYouMean(out, outputs)} The outputs are: ${outputs.join(", ")}.`,
  /** No such kind of snippet. */
  "bad-option/kind": ({ kind, kinds }: { kind: string; kinds: readonly string[] }) =>
    `There is no kind “${kind}”.${didYouMean(kind, kinds)} The kinds are: ${kinds.join(", ")}.`,
  /** A renamed column is not two names. */
  "bad-option/rename": ({ typed }: { typed: string }) =>
    `“${typed}” does not say what a column is called. Write --columns 'E-Mail=Email'.`,
  /** Taking the privacy off takes no time. */
  "bad-option/hide": () => "Taking the privacy off takes no time: --not goes without --for.",
  /** What was typed is no time. */
  "bad-option/for": ({ typed }: { typed: string }) => `“${typed}” is no time. Write it as 30s, 2m, 3h or 7d.`,
  /** No label was given. */
  "bad-option/no-label": () =>
    "Say which label (drawer label 3 'Storm damage'), or take it off with --remove.",
  /** What left cannot be searched. */
  "bad-option/gone": () => "What has left is listed whole: --gone goes without --find, --kind and --from.",
  /** Nothing to find. */
  "bad-option/find": () => "Say which words to find: --find and some words.",
  /** Passing over takes no pick. */
  "bad-option/skip": () => "Passing over goes without a pick: drawer deal --skip.",
  /** How many are left is asked without a pick. */
  "bad-option/left": () => "How many are left is asked without a pick: drawer deal --left.",
  /** Copies go into another drawer. */
  "bad-option/as-copy": () => "Copies go into another drawer: say --into and its name.",
  /** Nowhere to move to. */
  "bad-option/move": () => "Say where to: --before and a position, --to-end, or --into and a drawer.",
  /** Bytes are nothing for a terminal. */
  "bad-option/terminal": ({ format }: { format: string }) =>
    `A ${format} file is nothing to read on a terminal. Name a file with --to, or lead the answer into one.`,
  /** Nothing was named or piped in. */
  "nothing/input": () =>
    "Nothing to collect: name a file, or pipe something in (cat notes.txt | drawer collect).",
  /** Somebody was asked, and said no. */
  many: () => "Nothing was changed.",
  /** More than a few snippets would go, and nobody could be asked. */
  "many/unasked": (leaving: Leaving) =>
    `Nothing was changed. ${takesOut(leaving)} Add --yes if that is meant.`,
  /** A step of the tour was refused. */
  "tour-stopped": ({ command, status, answer }: { command: string; status: number | null; answer: string }) =>
    `The tour stopped, because “${command}” ended with ${status}: ${answer}`,
};

/** What would go by a change of rules. */
export interface Leaving {
  readonly snippets: readonly NamedSnippet[];
  readonly drawer: string;
}

/** What would go by a change of rules, as a sentence. */
export function takesOut({ snippets, drawer }: Leaving): string {
  return `This takes ${many(snippets.length)} out of the drawer “${drawer}”: ${namedAll(snippets)}.`;
}

/** What a command can do about a refusal, beside what the refusal says itself. */
export const hints: Partial<Readonly<Record<ErrorReason, string>>> = {
  "no-file/device": "Lead it into standard input (drawer collect < …), which ends at a limit.",
  "no-spot": "“drawer look” lists the spots.",
  "no-spot/lines": "“drawer look” lists the spots.",
  "unknown-format/read": "--type says what a file is.",
  "unknown-format/write": "Or say which with --out.",
  "nothing/deal": "“drawer deal” and a pick begin one.",
  "nothing/recipe": "“drawer recipe save” keeps one.",
  paused: "“drawer resume” does that.",
  exists: "Or add --overwrite.",
  "not-written/hand-out": "“drawer next” does it again.",
};

/** What the answers of commands say beside notices. */
export const answers = {
  /** What pieces ask for, and how one says so. */
  hint: ({ does, say }: { does: string; say: string }) => `Hint: ${does}: ${say}`,
  /** Something failed that is no fault of the user's. */
  fault: (why: string) =>
    `That failed, by a fault of Drawer's own: ${why}. DRAWER_TRACE=1 before the command shows where.`,
  /** A package that was left out when Drawer was installed. */
  missingPackage: (name: string) =>
    `This needs the package “${name}”, which was left out when Drawer was installed. Install it: npm install ${name}.`,
  watching: (drawer: string) => `What you copy is collected into the drawer “${drawer}”. Ctrl-C ends it.`,
  watched: (count: number) =>
    count === 0
      ? "Nothing was collected."
      : count === 1
        ? "1 copy was collected."
        : `${count} copies were collected.`,
  keysWork: (keys: readonly string[]) => `Keys that work in every program: ${keys.join(", ")}.`,
  noKeys: "No keys are set. Set one: drawer keys 'Super+F9=place last'.",
  key: ({ key, act }: { key: string; act: string }) => `${key}: ${act}`,
  displayGone: "The desktop's display is gone, and with it the clipboard.",
  nextDealt: ({ number, of }: { number: number; of: number }) =>
    `“drawer next” hands out ${number} of ${of}.`,
  isPaused: () => "Collecting is paused; “drawer resume” turns it on.",
  recipeKept: ({ name, recipe, isReplaced }: { name: string; recipe: string; isReplaced: boolean }) =>
    `Kept the recipe “${name}”${isReplaced ? ", in place of the one before" : ""}: ${recipe}.`,
  recipe: ({ name, recipe }: { name: string; recipe: string }) => `The recipe “${name}”: ${recipe}.`,
  recipeRemoved: ({ name, recipe }: { name: string; recipe: string }) =>
    `Removed the recipe “${name}”: ${recipe}.`,
  noRecipes: ({ drawer }: { drawer: string }) => `No recipes are kept in the drawer “${drawer}”.`,
  rules: ({ drawer }: { drawer: string }) =>
    `Rules of the drawer “${drawer}”. Change one with “drawer rules NAME=VALUE”.`,
  goOn: (leaving: Leaving) => `${takesOut(leaving)} Go on? (yes or no) `,
  isEmpty: ({ drawer }: { drawer: string }) => `The drawer “${drawer}” is empty.`,
  noneFound: ({ drawer, words }: { drawer: string; words: string }) =>
    `Nothing in the drawer “${drawer}” holds “${words}”.`,
  onPage: ({ page }: { page: number }) => `page ${page}`,
  timesThere: ({ count }: { count: number }) => `${count} times`,
  noPlaces: ({ file }: { file: string }) =>
    `“${file}” has no named places. Write some as {{Name}}, or set bookmarks, content controls or fields.`,
  putInto: ({ file, spots }: { file: string; spots: readonly string[] }) =>
    `putting into “${file}” (${spots.join(", ")})`,
  nothingDone: ({ drawer }: { drawer: string }) =>
    `Nothing was done in the drawer “${drawer}” that is still known.`,
  fileIsEmpty: ({ file }: { file: string }) => `“${file}” is empty.`,
  notRevealed: () => "What is private is not shown; “--reveal” shows it.",
  listed: ({
    shown,
    count,
    drawer,
    isCut,
  }: {
    shown: number;
    count: number;
    drawer: string;
    isCut: boolean;
  }) => {
    const some = shown < count ? `${shown} of ` : "";
    return `${some}${countOf(count)} in the drawer “${drawer}”.${isCut ? " “--limit all” lists all." : ""}`;
  },
  found: ({
    count,
    drawer,
    words,
    isCut,
  }: {
    count: number;
    drawer: string;
    words: string;
    isCut: boolean;
  }) => {
    const many = isCut && count > 1 ? `${count} or more snippets` : countOf(count);
    return `${many} in the drawer “${drawer}” with “${words}”, the newest first.`;
  },
  gone: ({ count, drawer }: { count: number; drawer: string }) =>
    count === 0
      ? `Nothing has left the drawer “${drawer}” that could be brought back.`
      : `${countOf(count)} ${count === 1 ? "has" : "have"} left the drawer “${drawer}”. “drawer restore” and its number brings one back.`,
  noDrawers: () => "There are no drawers yet. Collect something, and there is one.",
  notWritten: ({ why }: { why: string }) => `The answer could not be written: ${why}.`,
};

/** A number of snippets in figures, as it stands in tables: `1 snippet`, `12,345 snippets`. */
export function countOf(snippets: number): string {
  return snippets === 1 ? "1 snippet" : `${grouped(snippets)} snippets`;
}

/** What stands beside a snippet or a drawer in a table of them. */
export const facts = {
  kept: "kept",
  private: "private",
  privateFor: (time: string) => `private, ${time} left`,
  blank: "(blank)",
  collected: (time: string) => `collected ${time}`,
  pictures: (count: number) => (count === 1 ? "one picture" : `${count} pictures`),
  /** A picture, as a terminal shows it: `[picture, 240 × 160: “wheatear”]`. */
  picture: (alt: string, width?: number, height?: number) =>
    `[picture${width && height ? `, ${width} × ${height}` : ""}${alt === "" ? "" : `: “${alt}”`}]`,
  paused: "paused",
  asItIs: "as it is",
};

/** How snippets leave, by the operation: by `rule` is by a limit that was lowered, by `collect` by one that was met. */
export const waysOut: Partial<Readonly<Record<keyof typeof operations, string>>> = {
  discard: "discarded",
  empty: "emptied",
  age: "by age",
  sync: "on another device",
  collect: "made room",
  rule: "made room",
  import: "import undone",
  undo: "undone",
  move: "made room",
  append: "made room",
};

/** What pieces ask for. */
export const asked = {
  once: "the same piece is there twice; place it once",
  link: "a text and an address make a link",
  table: "these are rows of the same columns; make them one table",
  tables: "some of these are rows of the same columns; put those that follow each other into one table",
  cells: "these are single values; one goes below the other",
  rejoined: "lines are broken as on a page of print; rejoin them",
};

/** What named places of files are called. */
export const placeKinds = {
  control: "content control",
  field: "field",
  bookmark: "bookmark",
  name: "named cells",
  braces: "{{ }}",
};

/** What has become of snippets in the files that they came from. */
export const standings = {
  same: "the same",
  changed: "changed",
  gone: "gone",
  unknown: "not known where its file is",
  moved: ({ spot }: { spot: string }) => `moved to ${spot}`,
  missing: ({ why }: { why: string }) => `its file is not to be had: ${why}`,
  both: ({ position, was, now }: { position: number; was: string; now: string }) =>
    `\n${position} says:       ${was}\nits file says: ${now}`,
};

/** What is said of devices. */
export const devices = {
  alone: "These drawers are on this device alone. “drawer devices invite --hub URL” lets another one in.",
  isThis: "this device",
  there: (time: string) => `heard ${time}`,
  never: "not heard yet",
  compare: "The four words of a device are the same on all your devices; one whose words differ is another.",
  invited: ({ invitation, link, time }: { invitation: string; link: string; time: string }) =>
    `Another device is let in by this invitation, once, until ${time}. Type “drawer devices join” there, and give it this:\n\n  ${invitation}\n\nOn a telephone, open this in the browser (“drawer open” shows it as a code, under This computer):\n\n  ${link}\n\nWhoever has it before that can join: say it, or send it, only where nobody else hears.`,
  ask: "The invitation (the hub's address and ten words): ",
  joined: ({ name, words }: { name: string; words: string }) =>
    `This device is “${name}” (${words}). “drawer devices” on the other one shows the same four words beside its name.`,
  removed: ({ name }: { name: string }) =>
    `“${name}” is out: it hears nothing new, and the key was changed. What it has heard it has; it keeps that.`,
  left: "This device is out of its group. All that was here stays here.",
  moreThere: ({ drawer, count, most }: { drawer: string; count: number; most: number }) =>
    `“${drawer}” has ${countOf(count)} more on your other devices than its limit of ${grouped(most)} lets in here. Raise the limit here, so that all come? [y/N] `,
  coming: "Bringing what your devices have",
  following: "Following your other devices. Ctrl+C ends it.",
  away: (why: string) => `${why} It is tried again.`,
  hubListens: (address: string) =>
    `The hub listens at ${address}. “drawer devices invite --hub ${address}” on a device begins. Ctrl+C ends it.`,
  hubEnded: "The hub has ended.",
};
