import type { Command } from "commander";
import { commands } from "../../messages/en/cli-help.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { STANDARD } from "../input.js";
import { writeNewFile } from "../output.js";
import { progressBar, type Progress } from "../progress.js";
import { printWhole, remark } from "../terminal.js";

/** `drawer export FILE [PICK]`: writes snippets into a drawer file. */
export function add(program: Command): void {
  const says = commands.export;
  begin(program, "export")
    .option("--overwrite", says.overwrite)
    .action(
      async (file: string, pick: readonly string[], options: CommonOptions & { overwrite?: boolean }) => {
        const notices = await withDrawer(options.drawer, async (drawer) => {
          const exported = drawer.exportFile(pick.length > 0 ? pick.join(" ") : "all");
          const bar = progressBar("Exporting");
          try {
            const lines = written(exported.lines, bar.show);
            if (file === STANDARD) for await (const line of lines) await printWhole(line);
            else await writeNewFile(file, lines, { overwrite: options.overwrite ?? false });
          } finally {
            bar.end();
          }
          return exported.notices;
        });
        if (file === STANDARD) for (const { message } of notices) remark(`${message}\n`);
        else answer(options, notices, { file });
      },
    );
}

/** The lines as a file has them; each that is written is shown. */
async function* written(lines: AsyncIterable<string>, show: Progress["show"]): AsyncGenerator<string> {
  let count = 0;
  let of = 0;
  for await (const line of lines) {
    if (count === 0) of = (JSON.parse(line) as { snippets: number }).snippets;
    show(count++, of);
    yield `${line}\n`;
  }
}
