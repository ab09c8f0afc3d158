import type { Command } from "commander";
import {
  BETWEENS,
  CITATIONS,
  FITS,
  HEADERS,
  layoutName,
  LAYOUTS,
  oneOf,
  STYLES,
  TIDYINGS,
  type Recipe,
} from "../compose/recipe.js";
import { UsageError } from "./refusal.js";
import { several } from "./command.js";

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
    .option("--as <layout>", `how it is laid out: ${names(LAYOUTS)}`)
    .option(
      "--between <text>",
      `what stands between the pieces: ${names(Object.keys(BETWEENS))}, or any text (\\n, \\t)`,
    )
    .option("--style <style>", `whose look: ${names(STYLES)}`)
    .option(
      "--tidy <way>",
      `what is tidied besides edges: ${names(TIDYINGS.slice(1))}; or none; may be repeated`,
      several,
    )
    .option("--cite <way>", `how sources are named: ${names(CITATIONS)}`)
    .option("--fit <place>", `what it lands in: ${names(FITS)}`)
    .option("--before <text>", "text before each piece (\\n, \\t)")
    .option("--after <text>", "text after each piece (\\n, \\t)")
    .option("--header <yes|no>", "whether the first rows of tables name their columns (told from the tables)")
    .option(
      "--columns <name=other>",
      "with rows: what a column is called (E-Mail=Email); may be repeated, or parted by commas",
      several,
    )
    .option("--locale <language>", "the language that joins a sentence: en, de, pt-BR…");
}

/**
 * The recipe that was typed.
 * @throws DrawerError `bad-option`
 */
export function recipeOf(options: RecipeOptions): Recipe {
  const { between, before, after, locale } = options;
  const tidy = options.tidy?.flatMap((ways) => ways.split(","));
  return {
    ...(options.as !== undefined && { as: layoutName(options.as) }),
    ...(between !== undefined && { between: unescaped(between) }),
    ...(options.style !== undefined && { style: oneOf("style", STYLES, options.style) }),
    ...(tidy && {
      tidy: tidy.includes("none")
        ? []
        : (["edges", ...tidy.map((way) => oneOf("way to tidy", TIDYINGS, way))] as const),
    }),
    ...(options.cite !== undefined && { cite: oneOf("way to cite", CITATIONS, options.cite) }),
    ...(options.fit !== undefined && { fit: oneOf("fit", FITS, options.fit) }),
    ...(before !== undefined && { before: unescaped(before) }),
    ...(after !== undefined && { after: unescaped(after) }),
    ...(locale !== undefined && { locale }),
    ...(options.header !== undefined && { header: oneOf("header", HEADERS, options.header) }),
    ...(options.columns && { columns: columnNames(options.columns) }),
  };
}

/** Names of columns as they are typed: `E-Mail=Email`, several parted by commas. */
function columnNames(typed: readonly string[]): Record<string, string> {
  const pairs = typed.flatMap((names) => names.split(",")).map((pair) => pair.split("="));
  const wrong = pairs.find((pair) => pair.length !== 2 || pair.some((name) => name.trim() === ""));
  if (wrong) throw new UsageError("bad-option/rename", { typed: wrong.join("=") });
  return Object.fromEntries(pairs.map(([from, to]) => [from!.trim(), to!.trim()]));
}

/** `\n`, `\t` and `\\` as what they stand for. */
export function unescaped(text: string): string {
  return text.replace(/\\([nt\\])/g, (_, sign: string) => (sign === "n" ? "\n" : sign === "t" ? "\t" : "\\"));
}
