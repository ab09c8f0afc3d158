import { basename } from "node:path";
import type { Command } from "commander";
import type { Block } from "../../compose/block.js";
import { compose } from "../../compose/compose.js";
import { recipeFor } from "../../compose/recipe.js";
import { DrawerError } from "../../content/error.js";
import type { Notice } from "../../content/notice.js";
import { Recipes } from "../../drawer/recipes.js";
import { writeFile, WRITTEN_FORMATS } from "../../files/write.js";
import { type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { addRecipeOptions, recipeOf, type RecipeOptions } from "../recipe-options.js";
import { writeNewFile } from "../output.js";
import { page } from "../page.js";
import { print, printJson } from "../terminal.js";

interface PlaceOptions extends CommonOptions, RecipeOptions {
  readonly recipe?: string;
  readonly out?: string;
  readonly to?: string;
  readonly overwrite?: boolean;
}

/** What a block can be written as, and the endings of files that are written so. */
const OUTPUTS: Readonly<Record<string, { endings: readonly string[]; write(block: Block): string }>> = {
  text: { endings: ["txt", "text"], write: (block) => line(block.text) },
  markdown: { endings: ["md", "markdown"], write: (block) => line(block.markdown) },
  html: { endings: ["html", "htm"], write: (block) => line(block.html) },
  csv: { endings: ["csv"], write: (block) => block.csv },
  tsv: { endings: ["tsv", "tab"], write: (block) => block.tsv },
  json: { endings: ["json"], write: (block) => line(JSON.stringify(block.content)) },
};

/** `drawer place PICK`: makes a block of snippets and puts it on standard output or into a new file. */
export function add(program: Command): void {
  addRecipeOptions(
    begin(
      program,
      "place <pick...>",
      "make one block of snippets and put it on standard output or into a file",
    ),
  )
    .option("--recipe <name>", "a recipe kept with the drawer; other options change it")
    .option(
      "--out <format>",
      `what it is written as: ${Object.keys(OUTPUTS).join(", ")} (default: text, or by the file's ending)`,
    )
    .option("--to <file>", "a file to put it into; its ending tells the format")
    .option("--overwrite", "replace the file when it is there already")
    .action(async (pick: readonly string[], options: PlaceOptions) => {
      const typed = recipeOf(options);
      const output = outputOf(options);
      const [snippets, kept] = await withDrawer(options.drawer, async (drawer) => [
        await drawer.snippets(pick.join(" ")),
        options.recipe === undefined ? {} : await new Recipes(drawer).get(options.recipe),
      ]);
      const fitting = typed.as === undefined ? kept : recipeFor(kept, typed.as);
      const block = compose(snippets, { ...fitting, ...typed });
      const notices = [...block.notices];
      if (options.to !== undefined) {
        const { data, told } = await fileOf(block, output, options.to);
        await writeNewFile(options.to, data, options.overwrite ?? false);
        const many = snippets.length === 1 ? "1 snippet" : `${snippets.length} snippets`;
        notices.unshift({ code: "placed", message: `Placed ${many} in “${options.to}”.` });
        notices.push(...told);
      }
      if (options.json) printJson({ text: block.text, html: block.html, markdown: block.markdown, notices });
      else {
        if (options.to === undefined) print(OUTPUTS[output]!.write(block));
        const said = options.to === undefined ? process.stderr : process.stdout;
        for (const notice of notices) said.write(notice.message + "\n");
      }
    });
}

/** What goes into a file: a document or workbook, a whole page, or text. */
async function fileOf(
  block: Block,
  output: string,
  path: string,
): Promise<{ data: string | Uint8Array; told: readonly Notice[] }> {
  const format = WRITTEN_FORMATS.find((known) => known === output);
  if (format) {
    const { bytes, notices } = await writeFile(
      { content: block.content, picture: block.picture, title: titleOf(path) },
      format,
    );
    return { data: bytes, told: notices };
  }
  return {
    data: output === "html" ? page(block.html, titleOf(path)) : OUTPUTS[output]!.write(block),
    told: [],
  };
}

function titleOf(path: string): string {
  return basename(path).replace(/\.[^.]+$/, "");
}

/** Text for a terminal or a file ends with a line end; an empty text stays empty. */
function line(text: string): string {
  return text === "" ? "" : text + "\n";
}

/** The output that is wanted: as it was said, as the file's ending says, or text. */
function outputOf({ out, to }: PlaceOptions): string {
  const names = Object.keys(OUTPUTS);
  if (out !== undefined) {
    if (names.includes(out)) return out;
    throw new DrawerError("bad-option", `There is no output “${out}”. The outputs are: ${names.join(", ")}.`);
  }
  if (to === undefined) return "text";
  const ending = /\.([^./\\]+)$/.exec(to)?.[1]?.toLowerCase() ?? "";
  const found =
    names.find((name) => OUTPUTS[name]!.endings.includes(ending)) ??
    WRITTEN_FORMATS.find((format) => format === ending);
  if (found) return found;
  const endings = [...names.map((name) => OUTPUTS[name]!.endings[0]!), ...WRITTEN_FORMATS].map(
    (each) => `.${each}`,
  );
  throw new DrawerError(
    "unknown-format",
    `“${to}” does not end in a format that Drawer writes (${endings.join(" ")}). Change its ending, or say which with --out.`,
  );
}
