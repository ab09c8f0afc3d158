import { originText, type NamedOrigin, type NamedSnippet, type PlacedSnippet } from "../names.js";
import { action, type ActionSummary } from "./actions.js";
import { blank } from "./errors.js";
import {
  duration,
  grouped,
  many,
  named,
  namedAll,
  namedWithOrigin,
  namedWithPosition,
  namedWithPositions,
  oneOrMany,
  pronoun,
  quotedAll,
  SECRETS,
  size,
} from "./phrases.js";
import { rules } from "./rules.js";

/** What is told after something was done, or rightly not done. The part before the slash is the code that programs tell by. */
export const notices = {
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
  /** What is due could not be done now, and is tried again. */
  waits: ({ why }: { why: string }) =>
    `What is due by age or privacy could not be done now, and will be tried next time: ${why}`,
  /** Another program is writing, and a write waits for it. */
  "waits/writer": ({
    writer,
  }: {
    writer: { readonly process: number; readonly work: keyof typeof work } | undefined;
  }) =>
    `Waiting: ${writer === undefined ? "another program" : `process ${writer.process} (${work[writer.work]})`} is writing to the drawers.`,
  /** The folder of the drawers was open to others, and was closed. */
  closed: ({ folder }: { folder: string }) => `Others could look into “${folder}”. It was closed to them.`,
  /** The drawers can only be read now. */
  "read-only": ({ folder }: { folder: string }) =>
    `The drawers in “${folder}” can be read but not written. Nothing can be changed in them now.`,
  /** The tables were brought up to date, after a copy was made. */
  "recovered/updated": ({ copy }: { copy: string }) =>
    `The drawers were brought up to date. As they were before, they are in “${copy}”.`,
  /** A damaged file was set aside, and what could be read was brought into a new one. */
  recovered: ({
    aside,
    whole,
    cut,
    loose,
    drawer,
  }: {
    aside: string;
    whole: number;
    cut: number;
    loose: number;
    drawer: string;
  }) => {
    const parts = [
      `${whole === 1 ? "1 snippet is" : `${whole} snippets are`} back`,
      ...(cut > 0 ? [`of ${cut} more only the beginning`] : []),
      ...(loose > 0 ? [`${loose} more that had lost their place are in the drawer “${drawer}”`] : []),
    ];
    return `The file of the drawers was damaged. It was set aside as “${aside}”, and what could be read was recovered: ${parts.join("; ")}. The log and what had left could not be brought along.`;
  },

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
  /** The write-ahead log of the database may hold a trace. */
  "trace/log": ({ file }: { file: string }) =>
    `Another program has these drawers open, so a trace of it stays in “${file}” until that program closes them.`,
  /** Files that were set aside as damaged may hold a trace. */
  "trace/damaged": ({ files }: { files: readonly string[] }) =>
    `What was set aside as damaged still holds what it held: ${files.map((file) => `“${file}”`).join(", ")}. Delete it when you need it no more.`,
  /** The browser's own files may hold a trace. */
  "trace/browser": () =>
    "No page can read it any more; the browser's own files may hold traces of it until the browser puts them in order, or the site's data are cleared.",
  /** What had left is back. */
  restored: ({ snippets, first }: { snippets: readonly NamedSnippet[]; first: number }) =>
    `Brought back, as ${snippets.length === 1 ? first : `${first} to ${first + snippets.length - 1}`}: ${namedAll(snippets)}.`,
  /** An operation was undone. */
  undone: ({ done }: { done: ActionSummary }) => `Undone: ${action(done)}.`,
  /** Several operations were undone, to come back to before the first of them. */
  "undone/several": ({ count }: { count: number }) => `Undone: the latest ${grouped(count)} acts.`,
  /** In a page, a placing was taken back. */
  "undone/placing": ({ what }: { what: string }) => `Undone: placing ${what}.`,
  /** An operation was done again. */
  redone: ({ done }: { done: ActionSummary }) => `Done again: ${action(done)}.`,

  /** A rule has a value, and had another one. */
  rule: ({ rule, value, was }: RuleChange) => {
    const means = (rules[rule].means as (value: unknown) => string)(value);
    const note =
      was === value ? " (as it was)" : rule === "collecting" ? "" : ` (it was ${ruleValue(rule, was)})`;
    return `${means}${note}.`;
  },
  /** Rules were to be changed, and were not. */
  "rule/unchanged": () => "Nothing was changed.",
  /** Collecting is off. */
  paused: () => `${rules.collecting.means(false)}.`,
  /** Collecting is on. */
  resumed: () => `${rules.collecting.means(true)}.`,

  /** A deal has begun. */
  dealing: ({ of }: { left: number; of: number }) => `Dealing ${of === 1 ? "1 snippet" : many(of)}.`,
  /** A deal has begun on the clipboard of the desktop. */
  "dealing/clipboard": ({ of }: { of: number }) =>
    `Dealing ${of === 1 ? "1 snippet" : many(of)} on the clipboard. The first is there; each paste brings the next.`,
  /** A deal has begun on the clipboard of a desktop that does not tell of pastes. */
  "dealing/by-hand": ({ of }: { of: number }) =>
    `Dealing ${of === 1 ? "1 snippet" : many(of)} on the clipboard. The first is there; “drawer next” brings the next.`,
  /** A snippet of the deal is on the clipboard. */
  "dealing/offered": ({ number, of, snippet }: { number: number; of: number; snippet: NamedSnippet }) =>
    `On the clipboard: ${number} of ${of}, ${named(snippet)}.`,
  /** So many snippets of a deal are left. */
  "dealing/left": ({ left, of }: { left: number; of: number }) =>
    `${left === 1 ? "One is" : `${left} are`} left of ${of}.`,
  /** Of a deal nothing is left. */
  "done/none-left": ({ of }: { of: number }) => `None is left of ${of}.`,
  /** A snippet was handed out. */
  dealt: ({ number, of }: { number: number; of: number }) =>
    `${number} of ${of}${number === of ? ", the last" : ""}.`,
  /** All snippets of a deal have been handed out. */
  done: () => "All have been handed out.",
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

  /** Facts that stand before a Markdown text were left out. */
  "left-out/front-matter": () =>
    "Left out: the facts about the document that stand before its text (front matter).",
  /** Markdown would take too long to be read as such. */
  "left-out/markdown": ({ beyond, most }: { beyond: "markers" | "signs"; most: number }) =>
    `This Markdown has ${
      beyond === "markers"
        ? `quotes and lists nested more than ${most} deep`
        : `more than ${grouped(most)} signs of emphasis, links or quotes in one paragraph`
    }. It was taken in as plain text.`,
  /** A picture is only known by its address. */
  "left-out/picture": ({ name }: { name: string }) =>
    `The picture “${name}” is not in what was copied, only its address. Its name stands in its place.`,
  /** Comments on a document were left out. */
  "left-out/comments": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one comment" : `${count} comments`} beside the text.`,
  /** Charts and diagrams of a document are there only by their words. */
  "as-text/diagrams": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One chart or diagram" : `${count} charts and diagrams`} of “${file}” ${count === 1 ? "is" : "are"} there only by the words in ${count === 1 ? "it" : "them"}.`,
  /** Equations of a document are there as plain text. */
  "as-text/equations": ({ file, count }: { file?: string; count: number }) =>
    `${count === 1 ? "One equation" : `${count} equations`}${file === undefined ? "" : ` of “${file}”`} ${count === 1 ? "is" : "are"} there as plain text on one line.`,
  /** Pictures of a document are in a form that Drawer does not read. */
  "left-out/pictures": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one picture" : `${count} pictures`} in a form that Drawer does not read.`,

  /** A format has no place for a picture. */
  "not-shown/picture": ({ alt }: { alt: string }) =>
    `${alt === "" ? "A picture" : `The picture “${alt}”`} cannot stand in this format; its description stands in its place.`,
  /** A sheet that is hidden in its workbook was read. */
  "hidden-parts/sheet": ({ sheet }: { sheet: string }) =>
    `The sheet “${sheet}” is hidden in its file; it was read all the same.`,
  /** Rows and columns that are hidden in a sheet were read. */
  "hidden-parts/cells": ({ sheet, rows, columns }: { sheet: string; rows: number; columns: number }) => {
    const parts = [
      ...(rows > 0 ? [rows === 1 ? "1 row" : `${grouped(rows)} rows`] : []),
      ...(columns > 0 ? [columns === 1 ? "1 column" : `${grouped(columns)} columns`] : []),
    ];
    const isOne = rows + columns === 1;
    return `${parts.join(" and ")} of the sheet “${sheet}” ${isOne ? "is" : "are"} hidden in its file; ${isOne ? "it was" : "they were"} read all the same.`;
  },
  /** Formulas have no result in the file, so their cells are blank. */
  "no-result": ({ sheet, count }: { sheet: string; count: number }) =>
    `${count === 1 ? "1 formula" : `${grouped(count)} formulas`} on the sheet “${sheet}” ${count === 1 ? "has" : "have"} no result in the file: ${count === 1 ? "its cell is" : "their cells are"} blank. Opening and saving it in a sheet program fills them.`,
  /** A sheet's cells have no place for pictures. */
  "not-shown/pictures-in-cells": () =>
    "Pictures cannot stand in a sheet's cells; their descriptions stand in their places.",
  /** Cells hold more text than a cell of a workbook can. */
  "not-shown/long-cells": ({ count, most }: { count: number; most: number }) =>
    `${count === 1 ? "One cell holds" : `${grouped(count)} cells hold`} more than the ${grouped(most)} characters that a cell of this format can; what is beyond them is not in the file.`,
  /** Text has no place for pictures. */
  "not-shown/pictures-in-text": ({ count }: { count: number }) =>
    `Text has no place for pictures: ${count === 1 ? "the description of one stands" : `the descriptions of ${count} stand`} for them.`,
  /** A format has only plain numbers for lists. */
  "not-shown/numbers": ({ count }: { count: number }) =>
    `${count === 1 ? "One list is" : `${count} lists are`} numbered by letters, by Roman numbers or in brackets, which this format cannot say: ${count === 1 ? "it has" : "they have"} plain numbers.`,
  /** A text or an address has no partner to make a link with. */
  "not-shown/partner": ({ count, what }: { count: number; what: "text" | "address" }) =>
    `${count === 1 ? `One ${what} has` : `${count} ${what === "text" ? "texts" : "addresses"} have`} no partner to make a link with.`,
  /** A layout cannot show lines across the page. */
  "not-shown/dividers": ({ count }: { count: number }) =>
    `Left out: ${count === 1 ? "a line" : `${count} lines`} across the page, which this layout cannot show.`,
  /** Pieces could not go on on the same line. */
  "not-shown/same-line": ({ count }: { count: number }) =>
    `${count === 1 ? "One piece stands" : `${count} pieces stand`} below the one before: only lines of text go on on the same line.`,
  /** No header has a column that was to be called otherwise. */
  "not-shown/columns": ({ names }: { names: readonly string[] }) =>
    `No column is called ${quotedAll(names)}.`,
  /** Tables have more than two columns, where pairs were wanted. */
  "not-shown/pairs": ({ count }: { count: number }) =>
    `${count === 1 ? "One table has" : `${count} tables have`} more than two columns: what follows the label stays in columns of its own.`,
  /** Only addresses are placed, or there is none. */
  "not-shown/address": ({ isNone }: { isNone: boolean }) =>
    isNone
      ? "There is no address in what was picked."
      : "Only addresses are placed; the words beside them are not.",

  /** A block was placed, in a page. */
  "placed/page": ({ what }: { what: string }) => `Placed ${what}.`,
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
  /** A snippet of a deal was passed over. */
  "dealing/skipped": ({ number, of }: { number: number; of: number }) => `Passed over ${number} of ${of}.`,
  /** All of a deal has been handed out. */
  "dealing/done": () => "All are handed out.",
  /** Something private was put on a clipboard where nothing can be declared a secret. */
  "placed/not-secret": () =>
    "On this desktop it cannot be declared a secret: a history of the clipboard may keep it.",
  /** A block was pasted into a window. */
  "placed/window": ({ count, title }: { count: number; title: string }) =>
    title === "" ? `Pasted ${many(count)}.` : `Pasted ${many(count)} into “${title}”.`,
  /** A key does something from now on. */
  "key/set": ({ key, act }: { key: string; act: string }) => `${key}: ${act}.`,
  /** A key does nothing more. */
  "key/removed": ({ key }: { key: string }) => `${key} does nothing any more.`,
  /** A block was put on the desktop's clipboard. */
  "placed/clipboard": ({ count }: { count: number }) =>
    `Placed ${many(count)} on the clipboard. Paste ${count === 1 ? "it" : "them"} where you like; the next copy takes its place.`,
  /** A block was placed into a file. */
  placed: ({ count, path }: { count: number; path: string }) =>
    `Placed ${count === 1 ? "1 snippet" : many(count)} in “${path}”.`,
};

/** What others are told that wait for a write. */
export const work = {
  reverting: "taking back or doing again a large act",
  forgetting: "forgetting for good",
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
