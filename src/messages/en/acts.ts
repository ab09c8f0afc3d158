import { type NamedSnippet, originText, type NamedOrigin, type PlacedSnippet } from "../core/names.js";
import { action, type ActionSummary } from "./operations.js";
import {
  grouped,
  many,
  named,
  limits,
  SECRETS,
  quotedAll,
  blank,
  pronoun,
  namedWithOrigin,
  namedWithPosition,
  namedAll,
  namedWithPositions,
  oneOrMany,
  duration,
  size,
  didYouMean,
} from "./phrases.js";
import { rules } from "./rules.js";

/** What a rule can be: where it is typed, and where a program gives it. */
const FORM_WORDS = {
  "on-off": { typed: "on, off", given: "true or false" },
  blanks: { typed: "skip, allow", given: '"skip", "allow"' },
  repeats: { typed: "skip, allow, move", given: '"skip", "allow", "move"' },
  time: {
    typed: "a time such as “2 minutes”, “12 hours” or “30 days”, or never",
    given: "a whole number above 0, or null for no limit",
  },
  bytes: {
    typed: "a size such as “256 MB” or “2 GB”, or any",
    given: "a whole number above 0, or null for no limit",
  },
  count: { typed: "a number such as 1000, or any", given: "a whole number above 0, or null for no limit" },
  names: { typed: "names parted by commas, or none", given: "a text of at most 1,000 characters" },
};

/** What the acts of a drawer refuse: what is wrong, where, and the way out. */
export const actErrors = {
  /** A recipe's name is not one short word. */
  "bad-option/recipe-name": () => "A recipe needs a name of one word, of at most 60 characters.",
  /** A label is too long. */
  "bad-option/label": ({ most }: { most: number }) => `A label has at most ${most} characters.`,
  /** Snippets are to be put into the drawer in which they are. */
  "bad-option/same-drawer": ({ drawer }: { drawer: string }) =>
    `They are in the drawer “${drawer}” already. Name another one.`,
  /** A number can be read in two ways. */
  "bad-option/ambiguous": ({
    digits,
    readings: [one, other],
  }: {
    digits: string;
    readings: readonly [string, string];
  }) => `“${digits}” can be read as ${one} or as ${other}. Write ${one} or ${other}.`,
  /** There is no such rule. */
  "bad-option/rule": ({ name, names }: { name: string; names: readonly string[] }) =>
    `There is no rule “${name}”.${didYouMean(name, names)} The rules are: ${names.join(", ")}.`,
  /** A rule cannot have this value. */
  "bad-option/rule-value": ({
    name,
    value,
    form,
    isTyped,
  }: {
    name: string;
    value: string;
    form: keyof typeof FORM_WORDS;
    isTyped: boolean;
  }) =>
    isTyped
      ? `“${value}” is nothing that ${name} can be. Write ${name}= and ${FORM_WORDS[form].typed}.`
      : `“${value}” is nothing that the rule “${name}” can be. It can be ${FORM_WORDS[form].given}.`,

  /** A rule was named without a value. */
  "bad-option/rule-without-value": ({ name, form }: { name: string; form: keyof typeof FORM_WORDS }) =>
    `Say what ${name} shall be. Write ${name}= and ${FORM_WORDS[form].typed}.`,
  /** There was nothing to append, or it is blank. */
  "nothing/append": ({ place }: { place?: string }) =>
    `Nothing appended: ${place === undefined ? "nothing was given" : blank(place)}.`,
  /** Merging takes two snippets or more. */
  "nothing/merge": ({ pick, count }: { pick: string; count: 0 | 1 }) =>
    `“${pick}” is ${count === 0 ? "no snippet" : "one snippet"}: merging takes two or more.`,
  /** The snippet was never merged or appended to. */
  "nothing/split": ({ position, snippet }: { position: number; snippet: NamedSnippet }) =>
    `Snippet ${position} is of one piece: ${named(snippet)} was never merged or appended to.`,
  /** Nothing is left of a snippet whose words were changed. */
  "nothing/rewrite": ({ position }: { position: number }) =>
    `Snippet ${position} stays as it is: nothing was left of it. Discard it, if it is to go.`,
  /** No operation stands that could be undone. */
  "nothing/undo": () => "There is nothing to undo.",
  /** Nothing was undone since the last operation. */
  "nothing/redo": () => "There is nothing to do again.",
  /** No deal has been begun. */
  "nothing/deal": () => "Nothing is being dealt. Begin a deal with a pick first.",
  /** No recipe has this name. */
  "nothing/recipe": ({ name, drawer, names }: { name: string; drawer: string; names: readonly string[] }) =>
    `There is no recipe “${name}” in the drawer “${drawer}”.${didYouMean(name, names)} ${names.length === 0 ? "None is kept yet." : `Kept are: ${names.join(", ")}.`}`,

  /** Collecting is paused. Resume it. */
  paused: ({ drawer }: { drawer: string }) =>
    `Nothing was collected: collecting is paused in the drawer “${drawer}”. Resume it first.`,
  /** Even without all that may go there is no room by the drawer's rules. */
  full: ({ drawer, snippets, bytes, arriving }: Limits & { drawer: string; arriving?: number }) =>
    `Nothing was put in: the drawer “${drawer}” takes at most ${limits({ snippets, bytes })}, and ${arriving === undefined ? "there is no room, even without all that is not kept" : `${grouped(arriving)} pieces at once are more than it takes`}. Raise its rules “snippets” or “size”, or release or discard some.`,
  /** With what was to be appended the snippet would be too large for the drawer's rules. */
  "full/append": ({ snippet }: { snippet: NamedSnippet }) =>
    `Nothing appended: ${named(snippet)} would be too large for the drawer's rules.`,
  /** With its new words the snippet would be too large for the drawer's rules. */
  "full/rewrite": ({ position }: { position: number }) =>
    `Snippet ${position} stays as it is: it would be too large for the drawer's rules.`,
  /** The drawer's rules do not let a whole drawer file in. */
  "full/import": ({
    file,
    count,
    drawer,
    snippets,
    bytes,
  }: Limits & { file: string; count: number; drawer: string }) =>
    `Nothing was imported: “${file}” holds ${many(count)}, and the drawer “${drawer}” takes at most ${limits({ snippets, bytes })}. Raise its rules “snippets” or “size”, or import into another drawer.`,

  /** What is private is not appended to another snippet. */
  "private/append": ({ looks }: { looks?: keyof typeof SECRETS }) =>
    `Nothing appended: ${looks === undefined ? "it is private" : `it looks like ${SECRETS[looks]}`}, and what is private stays by itself. Collect it, or say that it is not private.`,
  /** The new words of a snippet look like a secret. */
  "private/rewrite": ({ position, looks }: { position: number; looks: keyof typeof SECRETS }) =>
    `Snippet ${position} stays as it is: the new words look like ${SECRETS[looks]}. Hide the snippet first, or collect them by themselves.`,
  /** A private snippet is not joined with others. */
  "private/join": ({ position, operation }: { position: number; operation: "append" | "merge" }) =>
    `Nothing ${operation === "append" ? "appended" : "merged"}: snippet ${position} is private, and what is private stays by itself. Take the privacy off first, if that is wrong.`,
  /** A private snippet is not copied into another drawer. */
  "private/copy": ({ position }: { position: number }) =>
    `Nothing copied: snippet ${position} is private, and stays by itself.`,

  /** Others changed the drawer without a pause. */
  conflict: ({ drawer }: { drawer: string }) =>
    `The drawer “${drawer}” is being changed by others without a pause. Try again.`,
  /** What was done has been changed since, in this drawer or in another. */
  "conflict/undo": ({
    operation,
    done,
    drawers,
  }: {
    operation: "undo" | "redo";
    done: ActionSummary;
    drawers: readonly string[];
  }) =>
    `This cannot be ${operation === "undo" ? "undone" : "done again"}: ${action(done)}. It has been changed since${drawers.length > 0 ? ` in the drawer ${quotedAll(drawers)}` : ""}; undo that first.`,
  /** A snippet says something else than when its words were read to be changed. */
  "conflict/rewrite": ({ position }: { position: number }) =>
    `Snippet ${position} stays as it is: its words were changed elsewhere meanwhile. Look at it, and change them again.`,
  /** Another process has gone on with the same deal. */
  "conflict/deal": () =>
    "Another program has gone on with this deal at the same moment, and may have handed out the same snippet.",
  /** Another import into the drawer is under way. */
  "conflict/import": ({ drawer }: { drawer: string }) =>
    `Nothing was imported: another import into the drawer “${drawer}” is under way. Try again when it has ended.`,

  /** The file is empty. */
  "bad-file/empty": ({ file }: { file: string }) => `“${file}” is empty, and so no drawer file.`,
  /** The file holds fewer or more snippets than it says. */
  "bad-file/count": ({ file, expected, found }: { file: string; expected: number; found: number }) =>
    `Nothing was imported: “${file}” should hold ${many(expected)} and holds ${grouped(found)}; it was cut short or changed. Export it again.`,
  /** The file is no drawer file. */
  "bad-file/other": ({ file }: { file: string }) =>
    `“${file}” is no drawer file. To take it in as a document, use “collect”.`,
  /** The file was written by a newer Drawer. */
  "bad-file/newer": ({ file, version, known }: { file: string; version: number; known: number }) =>
    `“${file}” was written by a newer Drawer (version ${version} of the form; this one reads ${known}). Nothing was imported. Update Drawer first.`,
  /** A line of the file is not what it should be. */
  "bad-file/line": ({ file, line, fault }: { file: string; line: number; fault: LineFault }) =>
    `Nothing was imported: “${file}”, line ${line}, ${faultOf(fault)}.`,

  /** What left cannot come back, because its content is missing from the store. */
  "store/missing-gone": ({ snippet }: { snippet: NamedSnippet }) =>
    `${named(snippet)} cannot be brought back: its content is not in the store any more.`,
  /** A snippet cannot be exported, because its content is missing from the store. */
  "store/missing-export": ({ snippet }: { snippet: NamedSnippet }) =>
    `Nothing was exported: the content of a snippet that began ${named(snippet)} is not in the store any more.`,
};
interface Limits {
  readonly snippets: number | null;
  readonly bytes: number | null;
}

/** What is wrong with a line of a drawer file. */
export type LineFault =
  | { readonly is: "no-json" | "no-drawer-file" }
  | { readonly is: "no-header" | "no-snippet"; readonly why: string }
  | { readonly is: "bad-picture"; readonly hash: string };

function faultOf(fault: LineFault): string {
  switch (fault.is) {
    case "no-json":
      return "is not JSON";
    case "no-drawer-file":
      return "is no drawer file: its first line is not JSON";
    case "no-header":
      return `is no header: ${fault.why}`;
    case "no-snippet":
      return `is no snippet: ${fault.why}`;
    case "bad-picture":
      return `has a picture that is damaged or of no known type (${fault.hash.slice(0, 8)}…)`;
  }
}

/** What the acts of a drawer tell after something was done, or rightly not done. */
export const actNotices = {
  /** A snippet was collected, at this position. */
  collected: ({ position, entry }: PlacedSnippet) =>
    `Collected as ${position}: ${namedWithOrigin(entry as Origined)}.`,
  /** A snippet was collected and made private, or the source had said that it is. */
  "private/collected": ({
    position,
    looks,
    age,
  }: {
    position: number;
    looks?: keyof typeof SECRETS | "known";
    age: number | null;
  }) => {
    const why =
      looks === undefined
        ? ""
        : looks === "known"
          ? "it is what a private snippet says, so "
          : `it looks like ${SECRETS[looks]}, so `;
    const goes =
      age === null ? ", and stays until you say" : `, and goes after ${duration(age)} unless it is kept`;
    return `Collected as ${position}, private: ${why}it is shown nowhere${goes}. If that is wrong, take the privacy off (hide --not in a command).`;
  },
  /** A piece holds nothing, and was not collected. */
  blank: ({ origin }: { origin: NamedOrigin }) => `Nothing collected: ${blank(originText(origin))}.`,
  /** A piece is the same as the one before it, and was not collected. */
  "repeat/skipped": ({ snippet }: { snippet: NamedSnippet }) =>
    `Not collected again: ${named(snippet)} is the same as the snippet before it.`,
  /** A piece was there already, and has become the latest. */
  "repeat/moved": ({ position, snippet }: { position: number; snippet: NamedSnippet }) =>
    `${named(snippet)} was here already, and is the latest now, as ${position}.`,
  /** Snippets of an imported file were there already. */
  "repeat/imported": ({ count }: { count: number }) =>
    count === 1
      ? "One was there already and was left out."
      : `${grouped(count)} were there already and were left out.`,
  /** The drawer is nearly full by its rules. */
  "nearly-full": ({
    count,
    snippets,
    bytes,
    most,
  }: {
    count?: number;
    snippets: number | null;
    bytes?: number;
    most: number | null;
  }) => {
    const parts = [
      ...(count === undefined
        ? []
        : [`${grouped(count)} of at most ${grouped(snippets!)} ${snippets === 1 ? "snippet" : "snippets"}`]),
      ...(bytes === undefined ? [] : [`${Math.floor((100 * bytes) / most!)} % of ${size(most)}`]),
    ];
    return `Nearly full: ${parts.join(", ")}. When it is full, the oldest that is not kept goes.`;
  },
  /** The oldest left, because the drawer was full. */
  "made-room": ({ snippets }: { snippets: readonly NamedSnippet[] }) =>
    snippets.length === 1
      ? `Made room: ${namedAll(snippets)} left, the oldest here that was not kept. Undo brings it back.`
      : `Made room: ${namedAll(snippets)} left, the oldest here that were not kept. Undo brings them back.`,
  /** Snippets went by age. */
  aged: ({
    snippets,
    textAge,
    pictureAge,
    goneAge,
  }: {
    snippets: readonly NamedSnippet[];
    textAge?: number;
    pictureAge?: number;
    goneAge: number | null;
  }) => {
    const ages = [
      ...(textAge === undefined ? [] : [`text after ${duration(textAge)}`]),
      ...(pictureAge === undefined ? [] : [`pictures after ${duration(pictureAge)}`]),
    ];
    const howLong = goneAge === null ? "" : ` for ${duration(goneAge)}`;
    return `Let go by age (${ages.join(", ")}): ${namedAll(snippets)}. Undo brings ${pronoun(snippets.length)} back${howLong}.`;
  },
  /** What was copied in a program from which nothing is collected. */
  "not-from": ({ name }: { name: string }) =>
    `Nothing is collected from “${name}”, as the rule never-from says. That is told once.`,
  /** The rules of a drawer cannot be read. */
  "rules/unread": ({ drawer }: { drawer: string }) =>
    `The rules of the drawer “${drawer}” cannot be read, so the usual ones hold. Set those that you want otherwise again.`,
  /** Private snippets were forgotten, because their time was over. */
  "private/forgotten": ({ count, drawer }: { count: number; drawer?: string }) =>
    `${count === 1 ? "A private snippet is" : `${count} private snippets are`} gone for good${drawer === undefined ? "" : ` in the drawer “${drawer}”`}, as ${count === 1 ? "its" : "their"} time is over.`,
  /** Private snippets were left out of a drawer file. */
  "private/not-exported": ({ count }: { count: number }) =>
    count === 1 ? "One private snippet was left out." : `${count} private snippets were left out.`,

  /** Something was added to the end of a snippet. */
  appended: ({
    position,
    added,
    snippet,
    pieces,
  }: {
    position: number;
    added: readonly Origined[];
    snippet: NamedSnippet;
    pieces: number;
  }) =>
    `Appended to ${position}: ${added.map(namedWithOrigin).join(", ")}. It reads now ${named(snippet)}, ${pieces} pieces; split parts them again.`,
  /** Several snippets became one. */
  merged: ({
    positions,
    position,
    snippet,
  }: {
    positions: readonly number[];
    position: number;
    snippet: NamedSnippet;
  }) =>
    `Merged ${positions.join(", ")} into ${position}: ${named(snippet)}. Split makes them ${positions.length} again.`,
  /** What a snippet says stands elsewhere in its document by now. */
  "refreshed/moved": ({ position, at }: { position: number; at: string }) =>
    `Snippet ${position} stands at ${at} now.`,
  /** A snippet has other words. */
  rewritten: ({
    position,
    snippet,
    isOfPieces,
  }: {
    position: number;
    snippet: NamedSnippet;
    isOfPieces: boolean;
  }) =>
    `Snippet ${position} says now: ${named(snippet)}.${isOfPieces ? " Split gives its pieces back as they were." : ""}`,
  /** A snippet says what it said. */
  "rewritten/same": ({ position }: { position: number }) =>
    `Nothing to change: snippet ${position} says that already.`,
  /** What was changed had looks, values or pictures that the form in which it was changed does not hold. */
  "rewritten/poorer": ({ count }: { count: number }) =>
    `${count === 1 ? "One part that was changed has" : `${grouped(count)} parts that were changed have`} lost looks, pictures or the values of cells, which the text had no place for. Undo brings them back.`,
  /** A snippet became the several it was made of. */
  split: ({ snippets }: { snippets: readonly PlacedSnippet[] }) =>
    `Split into ${snippets.length}: ${snippets.map(namedWithPosition).join("; ")}.`,
  /** Snippets have other positions. */
  moved: ({ snippets }: { snippets: readonly PlacedSnippet[] }) =>
    `Moved: ${snippets.map(({ position, entry }) => `${named(entry)} is now ${position}`).join("; ")}.`,
  /** Snippets are in another drawer. */
  "moved/into": (data: Put) => `Moved into ${put(data)}`,
  /** Copies of snippets are in another drawer. */
  copied: (data: Put) => `Copied into ${put(data)}`,
  /** Snippets have a label, or have none any more. */
  labelled: ({ snippets, label, isChanged }: Altered & { label: string }) =>
    !isChanged
      ? `Nothing to change: ${oneOrMany(snippets)} ${snippets.length === 1 ? "has" : "have"} ${label === "" ? "no label" : `the label “${label}”`} already.`
      : label === ""
        ? `Took the label off ${oneOrMany(snippets)}.`
        : `Labelled ${oneOrMany(snippets)} as “${label}”.`,
  /** Snippets are kept. */
  kept: ({ snippets, isChanged }: Altered) =>
    isChanged
      ? `Kept ${oneOrMany(snippets)}: neither limits nor age nor emptying takes it out.`
      : `${oneOrMany(snippets)} ${snippets.length === 1 ? "was" : "were"} kept already.`,
  /** Snippets are not kept any more. */
  released: ({ snippets, isChanged }: Altered) =>
    isChanged
      ? `Released ${oneOrMany(snippets)}: limits, age and emptying take it out again.`
      : `${oneOrMany(snippets)} ${snippets.length === 1 ? "was" : "were"} not kept.`,
  /** Snippets are private. */
  hidden: ({ positions, age }: { positions: readonly number[]; age: number | null }) =>
    positions.length === 0
      ? "All of them were private already."
      : `Made private: ${positions.join(", ")}. ${positions.length === 1 ? "It is" : "They are"} shown nowhere, and ${age === null ? (positions.length === 1 ? "stays" : "stay") : positions.length === 1 ? "goes" : "go"} ${age === null ? "until you take the privacy off (hide --not in a command)" : `after ${duration(age)} unless kept`}.`,
  /** Snippets are not private any more. */
  unhidden: ({ positions }: { positions: readonly number[] }) =>
    positions.length === 0
      ? "None of them was private."
      : `Not private any more: ${positions.join(", ")}. It is shown, found and exported like any other.`,

  /** Snippets were taken out. */
  discarded: ({ snippets, left }: { snippets: readonly PlacedSnippet[]; left: number }) => {
    const rest =
      left === 0 ? "The drawer is empty now" : left === 1 ? "One snippet is left" : `${many(left)} are left`;
    return `Discarded ${namedWithPositions(snippets)}. ${rest}; undo brings ${pronoun(snippets.length)} back.`;
  },
  /** All that was not kept was taken out. */
  emptied: ({ drawer, count, left }: { drawer: string; count: number; left: number }) =>
    count > 0
      ? `Emptied the drawer “${drawer}” of ${many(count)}.${whatStays(left)} Undo brings ${pronoun(count)} back.`
      : left === 0
        ? `The drawer “${drawer}” is empty already.`
        : `Nothing to take out of the drawer “${drawer}”.${whatStays(left)}`,
  /** All that was not kept is gone, and the log with it. */
  "forgotten/all": ({ drawer, count, left }: { drawer: string; count: number; left: number }) =>
    `Forgot for good: ${count === 0 ? "the log" : `${many(count)}, with what had left and the log`} of the drawer “${drawer}”.${whatStays(left)} Nothing brings it back.`,
  /** What had left long ago is gone. */
  "forgotten/gone": ({ count, age }: { count: number; age: number }) =>
    `Forgot for good ${many(count)} that had left more than ${duration(age)} ago.`,
  /** What had left is back. */
  restored: ({ snippets, first }: { snippets: readonly NamedSnippet[]; first: number }) =>
    `Brought back, as ${snippets.length === 1 ? first : `${first} to ${first + snippets.length - 1}`}: ${namedAll(snippets)}.`,
  /** An operation was undone. */
  undone: ({ done }: { done: ActionSummary }) => `Undone: ${action(done)}.`,
  /** Several operations were undone, to come back to before the first of them. */
  "undone/several": ({ count }: { count: number }) => `Undone: the latest ${grouped(count)} acts.`,
  /** An operation was done again. */
  redone: ({ done }: { done: ActionSummary }) => `Done again: ${action(done)}.`,

  /** A rule has a value, and had another one. */
  rule: ({ rule, value, was }: RuleChange) => {
    const means = (rules[rule].means as (value: unknown) => string)(value);
    const note =
      was === value ? " (as it was)" : rule === "collecting" ? "" : ` (it was ${ruleValue(rule, was)})`;
    return `${means}${note}.`;
  },
  /** Collecting is off. */
  paused: () => `${rules.collecting.means(false)}.`,
  /** Collecting is on. */
  resumed: () => `${rules.collecting.means(true)}.`,
  /** A snippet of a deal is gone, and was passed over. */
  "forgotten/dealt": ({ number, of }: { number: number; of: number }) =>
    `Passed over ${number} of ${of}: it is gone for good, or was made private with what it was merged into.`,

  /** Snippets were written into a drawer file. */
  exported: ({ count, drawer }: { count: number; drawer: string }) =>
    `Exported ${many(count)} of the drawer “${drawer}”.`,
  /** The snippets of a drawer file were brought in. */
  imported: ({ count, file, drawer }: { count: number; file: string; drawer: string }) =>
    `Imported ${many(count)} from “${file}” into the drawer “${drawer}”.`,
  /** Of what was brought in, some says the same as a private snippet. */
  "imported/private": ({ count }: { count: number }) =>
    `${count === 1 ? "One of them says" : `${grouped(count)} of them say`} what a private snippet says, and ${count === 1 ? "is" : "are"} private too. If that is wrong, take the privacy off (hide --not in a command).`,
  /** An import had been cut off, and was taken back. */
  "imported/taken-back": ({ file, count }: { file: string; count: number }) =>
    `The import of “${file}” was cut off. What it had brought, ${many(count)}, was taken back; import it again.`,
  /** An import had been cut off; what it had brought has been changed since, and stays. */
  "imported/left": ({ file, count, of }: { file: string; count: number; of: number }) =>
    `The import of “${file}” was cut off after ${grouped(count)} of ${many(of)}. They have been changed since, so they stay; import it again for the rest.`,
  /** A snippet was handed out. */
  dealt: ({ number, of }: { number: number; of: number }) =>
    `${number} of ${of}${number === of ? ", the last" : ""}.`,
  /** A deal has begun on the clipboard of the desktop. */
  "dealing/clipboard": ({ of }: { of: number }) =>
    `Dealing ${of === 1 ? "1 snippet" : many(of)} on the clipboard. The first is there; each paste brings the next.`,
  /** A snippet of the deal is on the clipboard. */
  "dealing/offered": ({ number, of, snippet }: { number: number; of: number; snippet: NamedSnippet }) =>
    `On the clipboard: ${number} of ${of}, ${named(snippet)}.`,
  /** All snippets of a deal have been handed out. */
  done: () => "All have been handed out.",
  /** A snippet of a deal was passed over. */
  "dealing/skipped": ({ number, of }: { number: number; of: number }) => `Passed over ${number} of ${of}.`,
};

type Origined = NamedSnippet & { readonly origin: NamedOrigin };

interface Altered {
  readonly snippets: readonly PlacedSnippet[];
  /** Whether anything was changed. */
  readonly isChanged: boolean;
}

/** A change of a rule. */
export interface RuleChange {
  readonly rule: keyof typeof rules;
  readonly value: unknown;
  readonly was: unknown;
}

/** The value of a rule in words, as it can be typed. */
export function ruleValue(rule: keyof typeof rules, value: unknown): string {
  if (typeof value === "boolean") return value ? "on" : "off";
  if (value === "") return "none";
  if (typeof value === "string") return value;
  if (rule === "snippets") return value === null ? "any" : String(value);
  return rule === "size" ? size(value as number | null) : duration(value as number | null);
}

interface Put {
  /** The drawer they were in, and the one they were put into. */
  readonly from: string;
  readonly into: string;
  readonly snippets: readonly PlacedSnippet[];
  /** The position that the first has there. */
  readonly first: number;
}

function put({ from, into, snippets, first }: Put): string {
  const names = snippets.map((one, index) => `${namedWithPosition(one)}, is ${first + index} there`);
  return `the drawer “${into}”: ${names.join("; ")}. Undo in “${from}” takes it back.`;
}

/** That what is kept stays, after all else went. */
function whatStays(count: number): string {
  if (count === 0) return "";
  return ` ${count === 1 ? "The one that is kept stays" : `The ${count} that are kept stay`}.`;
}
