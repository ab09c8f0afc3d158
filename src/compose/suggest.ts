import { safeLink } from "../content/address.js";
import { kindOf } from "../content/kind.js";
import type { Content } from "../content/model.js";
import { isBlank, isLine } from "../content/traverse.js";
import { writeText } from "../formats/text/write.js";
import { belongTogether, loneTable, tableGroups } from "./join-tables.js";
import type { Piece } from "./layout.js";
import type { Recipe } from "./recipe.js";
import { rejoined } from "./rejoin.js";
import { sameAs } from "./repeats.js";

/**
 * What pieces can ask for: to be there `once`, where one comes again; one `table`, of rows of the same columns, or `tables` put
 * together where such rows follow each other among other pieces; a `link`, of texts and addresses; to go down the `cells`, where they
 * are single values and land in a sheet; and broken lines to be `rejoined`.
 */
export const SUGGESTIONS = ["once", "link", "table", "tables", "cells", "rejoined"] as const;
/** What pieces can ask for. */
export type SuggestionName = (typeof SUGGESTIONS)[number];

/** A recipe that pieces ask for. It is offered, and taken by a person alone. */
export interface Suggestion {
  readonly name: SuggestionName;
  /** The whole recipe, as it is once the suggestion is taken. */
  readonly recipe: Recipe;
}

/** Texts that are shorter come again without being the same piece: figures, dates, names. */
const SHORT = 24;
/** The longest single value, in characters. */
const VALUE = 60;
/** The longest text that an address may be put behind, in characters. */
const LINK_TEXT = 120;

/**
 * What pieces ask for that the recipe does not do yet: the first of {@link SUGGESTIONS} that they tell. Nothing when they tell
 * nothing.
 *
 * @param pieces what is laid out, in this order
 * @param recipe how, so far
 *
 * @example
 * ```js
 * import { readText, suggest } from "drawer";
 *
 * const pieces = [readText("Tides at the spit"), readText("https://merrow-spit.example/tides")];
 * console.log(suggest(pieces)); // { name: 'link', recipe: { as: 'link' } }
 * ```
 */
export function suggest(pieces: readonly Piece[], recipe: Recipe = {}): Suggestion | undefined {
  const contents = pieces.map(({ content }) => content).filter((content) => !isBlank(content));
  for (const name of SUGGESTIONS) {
    const change = ASKED[name](contents, recipe);
    if (change) return { name, recipe: { ...recipe, ...change } };
  }
  return undefined;
}

/** What of a recipe each suggestion changes; nothing when the pieces do not ask for it, or it is so already. */
const ASKED: Readonly<
  Record<SuggestionName, (contents: readonly Content[], recipe: Recipe) => Recipe | undefined>
> = {
  once(contents, { tidy = ["edges"] }) {
    if (tidy.includes("repeats")) return undefined;
    const long = contents.filter((content) => kindOf(content) === "picture" || isLong(content));
    return new Set(long.map(sameAs)).size < long.length ? { tidy: [...tidy, "repeats"] } : undefined;
  },
  link(contents, recipe) {
    // A cell or a line has no place for an address behind words.
    const { fit = "page" } = recipe;
    if (!isPlain(recipe) || (fit !== "page" && fit !== "plain") || contents.length < 2) return undefined;
    const lines = contents.map(lineOf);
    const addresses = lines.filter((line) => line !== undefined && isAddress(line));
    const texts = lines.filter((line) => line !== undefined && !isAddress(line) && line.length <= LINK_TEXT);
    const isPaired = texts.length === addresses.length && 2 * texts.length === contents.length;
    return isPaired ? { as: "link" } : undefined;
  },
  table(contents, recipe) {
    if (!isPlain(recipe) || contents.length < 2) return undefined;
    const tables = contents.map(loneTable);
    return tables.every((table) => table !== undefined) && belongTogether(tables)
      ? { as: "rows" }
      : undefined;
  },
  tables(contents, recipe) {
    const { tidy = ["edges"], cite = "none" } = recipe;
    // A source that is named after each piece stands between them.
    const isCited = cite === "inline" || cite === "notes";
    if (!isPlain(recipe) || isCited || tidy.includes("tables")) return undefined;
    const groups = tableGroups(contents.map((content) => ({ content })));
    return groups.length < contents.length ? { tidy: [...tidy, "tables"] } : undefined;
  },
  cells(contents, recipe) {
    if (!isPlain(recipe) || recipe.fit !== "cells" || contents.length < 2) return undefined;
    const lines = contents.map(lineOf);
    return lines.every((line) => line !== undefined && line.length <= VALUE) ? { as: "rows" } : undefined;
  },
  rejoined(contents, { tidy = ["edges"] }) {
    if (tidy.includes("rejoin")) return undefined;
    return contents.some((content) => rejoined(content).length < linesIn(content))
      ? { tidy: [...tidy, "rejoin"] }
      : undefined;
  },
};

/** Whether nobody has chosen a layout yet. */
function isPlain({ as = "sequence" }: Recipe): boolean {
  return as === "sequence";
}

function isLong(content: Content): boolean {
  return writeText(content).length >= SHORT;
}

/** What a piece says that is one line; nothing when it is more. */
function lineOf(content: Content): string | undefined {
  const flows = content.filter((flow) => !isBlank([flow]));
  const text = flows.length === 1 && isLine(flows[0]) ? writeText(flows) : "";
  return text === "" || text.includes("\n") ? undefined : text.trim();
}

function isAddress(line: string): boolean {
  return /^\S+$/.test(line) && safeLink(line) !== undefined;
}

/** How many lines of text there are, those of paragraphs with breaks one by one. */
function linesIn(content: Content): number {
  let lines = 0;
  for (const flow of content)
    lines += flow.type === "paragraph" ? 1 + flow.runs.filter((run) => run.type === "break").length : 1;
  return lines;
}
