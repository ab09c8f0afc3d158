import type { Command } from "commander";
import { placesIn } from "../../files/fill.js";
import { readEndings } from "../../formats/registry.js";
import { answers, placeKinds } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { type CommonOptions } from "../answer.js";
import { printColumns } from "../columns.js";
import { begin } from "../command.js";
import { openFile, readBytes, type SaidOfInput } from "../input.js";
import { endReading } from "../reading-bar.js";
import { UsageError } from "../refusal.js";
import { print, printJson } from "../terminal.js";

/** `drawer look FILE`: the parts of a document or workbook, each with its spot. */
export function add(program: Command): void {
  const says = commands.look;
  begin(program, "look")
    .option("--type <type>", says.type)
    .option("--separator <sign>", says.separator)
    .option("--password-file <file>", says.passwordFile)
    .option("--places", says.places)
    .option("--at <spot>", says.at)
    .addHelpText("after", `\n${folded(says.reads({ endings: readEndings() }))}`)
    .action(
      async (file: string, options: CommonOptions & SaidOfInput & { places?: boolean; at?: string }) => {
        if (options.places) return lookAtPlaces(file, options);
        if (options.at !== undefined && !/^a[1-9]/i.test(options.at))
          throw new UsageError("bad-option/look-at", { at: options.at });
        const source = await openFile(file, options);
        const { at } = options;
        if (at !== undefined) await source.open(at);
        const parts = source.parts().filter(({ spot }) => at === undefined || spot.startsWith(`${at}!`));
        const { notices } = source;
        endReading();
        if (options.json) {
          printJson({
            document: source.name,
            format: source.format,
            title: source.title ?? null,
            parts,
            notices,
          });
          return;
        }
        const hasPages = parts.some(({ page }) => page !== undefined);
        printColumns(
          parts.map(({ spot, what, text, page }) => [
            ...[spot, what],
            ...(hasPages ? [page === undefined ? "" : answers.onPage({ page })] : []),
            text,
          ]),
          hasPages ? 3 : 2,
        );
        if (parts.length === 0) print(`${answers.fileIsEmpty({ file: source.name })}\n`);
        for (const notice of notices) print(notice.message + "\n");
      },
    );
}

/** Text in lines that fit a terminal, as the rest of the help is. */
function folded(text: string): string {
  return text
    .split("\n")
    .map((line) => line.replace(/(.{1,76})(?:\s+|$)/g, "$1\n  ").trimEnd())
    .join("\n");
}

/** The named places of a file, each name once. */
async function lookAtPlaces(path: string, options: CommonOptions): Promise<void> {
  const { bytes, name } = await readBytes(path);
  const places = await placesIn(bytes, name);
  if (options.json) return printJson({ document: name, places, notices: [] });
  const names = [...new Set(places.map((place) => place.name))];
  printColumns(
    names.map((each) => {
      const all = places.filter((place) => place.name === each);
      return [
        each,
        placeKinds[all[0]!.kind],
        all.length === 1 ? all[0]!.text : answers.timesThere({ count: all.length }),
      ];
    }),
    2,
  );
  if (places.length === 0) print(`${answers.noPlaces({ file: name })}\n`);
}
