import { originText, type NamedOrigin, type NamedSnippet, type PlacedSnippet } from "../../names.js";
import { action, type ActionSummary } from "../actions.js";
import {
  grouped,
  many,
  pronoun,
  named,
  namedWithOrigin,
  namedWithPosition,
  namedAll,
  namedWithPositions,
  oneOrMany,
  duration,
  size,
  SECRETS,
  blank,
} from "../phrases.js";
import { rules } from "../rules.js";

/** What a drawer tells after something was done, or rightly not done. */
export const drawerNotices = {
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
    const goes = age === null ? "" : `, and goes after ${duration(age)}`;
    return `Collected as ${position}, private: ${why}it is shown nowhere${goes}. Keep it, or take the privacy off, if that is wrong.`;
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
  /** Private snippets were forgotten, because their time was over. */
  "private/forgotten": ({ count, drawer, age }: { count: number; drawer?: string; age: number | null }) =>
    `${count === 1 ? "A private snippet is" : `${count} private snippets are`} gone for good${drawer === undefined ? "" : ` in the drawer “${drawer}”`}, after ${duration(age)}.`,
  /** Private snippets are not exported. */
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
      ? `${oneOrMany(snippets)}: the label was so already.`
      : label === ""
        ? `Took the label off ${oneOrMany(snippets)}.`
        : `Labelled ${oneOrMany(snippets)} as “${label}”.`,
  /** Snippets are kept. */
  kept: ({ snippets, isChanged }: Altered) =>
    isChanged
      ? `Kept ${oneOrMany(snippets)}: neither limits nor age nor emptying takes it out.`
      : `${oneOrMany(snippets)} was kept already.`,
  /** Snippets are not kept any more. */
  released: ({ snippets, isChanged }: Altered) =>
    isChanged
      ? `Released ${oneOrMany(snippets)}: limits, age and emptying take it out again.`
      : `${oneOrMany(snippets)} was not kept.`,
  /** Snippets are private. */
  hidden: ({ positions, age }: { positions: readonly number[]; age: number | null }) =>
    positions.length === 0
      ? "All of them were private already."
      : `Made private: ${positions.join(", ")}. It is shown nowhere${age === null ? "" : `, and goes after ${duration(age)} unless it is kept`}.`,
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
  /** An import had been cut off, and was taken back. */
  "imported/taken-back": ({ file, count }: { file: string; count: number }) =>
    `The import of “${file}” was cut off. What it had brought, ${many(count)}, was taken back; import it again.`,
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
