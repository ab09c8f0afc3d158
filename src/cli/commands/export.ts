import type { Command } from "commander";
import { exportDrawer } from "../../drawer/export-file.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { writeNewFile } from "../output.js";

/** `drawer export FILE [PICK]`: writes snippets into a drawer file. */
export function add(program: Command): void {
  begin(
    program,
    "export <file> [pick...]",
    "write all snippets, or some, into a drawer file; what is private is left out",
  )
    .option("--overwrite", "replace the file when it is there already")
    .action(
      async (file: string, pick: readonly string[], options: CommonOptions & { overwrite?: boolean }) => {
        const notices = await withDrawer(options.drawer, async (drawer) => {
          const exported = exportDrawer(drawer, pick.length > 0 ? pick.join(" ") : "all");
          await writeNewFile(file, ended(exported.lines), options.overwrite ?? false);
          return exported.notices;
        });
        answer(options, notices);
      },
    );
}

async function* ended(lines: AsyncIterable<string>): AsyncGenerator<string> {
  for await (const line of lines) yield `${line}\n`;
}
