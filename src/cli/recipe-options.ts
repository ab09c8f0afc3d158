import type { Command } from "commander";
import { layoutName } from "../compose/check-recipe.js";
import { LAYOUTS } from "../compose/layouts/index.js";
import {
  BETWEENS,
  CITATIONS,
  FITS,
  HEADERS,
  oneOf,
  STYLES,
  TIDYINGS,
  type Tidying,
} from "../compose/options.js";
import { type Recipe } from "../compose/recipe.js";
import { defined } from "../content/defined.js";
import { recipeOptions as says } from "../messages/en/cli-help.js";
import { several } from "./command.js";
import { UsageError } from "./refusal.js";

/** A recipe as it is typed. */
export interface RecipeOptions {
  readonly as?: string;
  readonly between?: string;
  readonly style?: string;
  readonly tidy?: readonly string[];
  readonly cite?: string;
  readonly fit?: string;
  readonly before?: string;
  readonly after?: string;
  readonly locale?: string;
  readonly header?: string;
  readonly columns?: readonly string[];
}

/** Gives a command the options of a recipe. */
export function addRecipeOptions(command: Command): Command {
  const names = (all: readonly string[]) => all.join(", ");
  return command
    .option("--as <layout>", says.as(names(LAYOUTS)))
    .option("--between <text>", says.between(names(Object.keys(BETWEENS))))
    .option("--style <style>", says.style(names(STYLES)))
    .option("--tidy <way>", says.tidy(names(TIDYINGS.slice(1))), several)
    .option("--cite <way>", says.cite(names(CITATIONS)))
    .option("--fit <place>", says.fit(names(FITS)))
    .option("--before <text>", says.before)
    .option("--after <text>", says.after)
    .option("--header <yes|no>", says.header)
    .option("--columns <name=other>", says.columns, several)
    .option("--locale <language>", says.locale);
}

/**
 * The recipe that was typed.
 * @throws DrawerError `bad-option`
 */
export function recipeOf(typed: RecipeOptions): Recipe {
  const named = <Name extends string>(what: string, names: readonly Name[], name: string | undefined) =>
    name === undefined ? undefined : oneOf(what, names, name);
  return defined({
    as: typed.as === undefined ? undefined : layoutName(typed.as),
    between: unescaped(typed.between),
    style: named("style", STYLES, typed.style),
    tidy: typed.tidy && tidyings(typed.tidy),
    cite: named("way to cite", CITATIONS, typed.cite),
    fit: named("fit", FITS, typed.fit),
    before: unescaped(typed.before),
    after: unescaped(typed.after),
    locale: typed.locale,
    header: named("header", HEADERS, typed.header),
    columns: typed.columns && columnNames(typed.columns),
  });
}

/** Ways to tidy beside the edges, several parted by commas; `none` is none at all. */
function tidyings(typed: readonly string[]): readonly Tidying[] {
  const ways = typed.flatMap((names) => names.split(","));
  return ways.includes("none") ? [] : ["edges", ...ways.map((way) => oneOf("way to tidy", TIDYINGS, way))];
}

/** Names of columns as they are typed: `E-Mail=Email`, several parted by commas. */
function columnNames(typed: readonly string[]): Record<string, string> {
  const pairs = typed.flatMap((names) => names.split(",")).map((pair) => pair.split("="));
  const wrong = pairs.find((pair) => pair.length !== 2 || pair.some((name) => name.trim() === ""));
  if (wrong) throw new UsageError("bad-option/rename", { typed: wrong.join("=") });
  return Object.fromEntries(pairs.map(([from, to]) => [from!.trim(), to!.trim()]));
}

/** `\n`, `\t` and `\\` as what they stand for. */
export function unescaped<Text extends string | undefined>(text: Text): Text {
  return text?.replace(/\\([nt\\])/g, (_, sign: string) =>
    sign === "n" ? "\n" : sign === "t" ? "\t" : "\\",
  ) as Text;
}
