import type { Command } from "commander";
import { answers } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { type CommonOptions } from "../answer.js";
import { printColumns } from "../columns.js";
import { begin } from "../command.js";
import { openFile, type SaidOfInput } from "../input.js";
import { endReading } from "../reading-bar.js";
import { print, printJson } from "../terminal.js";

/** `drawer look FILE`: the parts of a document or workbook, each with its spot. */
export function add(program: Command): void {
  const says = commands.look;
  begin(program, "look", "<file>")
    .option("--type <type>", says.type)
    .option("--separator <sign>", says.separator)
    .action(async (file: string, options: CommonOptions & SaidOfInput) => {
      const source = await openFile(file, options);
      const [parts, notices] = [source.parts(), source.notices];
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
      printColumns(
        parts.map(({ spot, what, text }) => [spot, what, text]),
        2,
      );
      if (parts.length === 0) print(`${answers.fileIsEmpty({ file: source.name })}\n`);
      for (const notice of notices) print(notice.message + "\n");
    });
}
