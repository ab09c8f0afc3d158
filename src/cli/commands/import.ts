import { createReadStream } from "node:fs";
import { access, constants, stat } from "node:fs/promises";
import { createInterface } from "node:readline";
import { basename } from "node:path";
import type { Command } from "commander";
import { DrawerError } from "../../content/error.js";
import { importDrawer } from "../../drawer/import-file.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { WHY_NOT_READ } from "../input.js";
import { progressBar } from "../progress.js";

/** `drawer import FILE`: brings the snippets of a drawer file into the drawer. */
export function add(program: Command): void {
  begin(
    program,
    "import <file>",
    "bring the snippets of a drawer file into the drawer: all of them, or none",
  ).action(async (file: string, options: CommonOptions) => {
    await readable(file);
    const bar = progressBar("Importing");
    try {
      const notices = await withDrawer(options.drawer, (drawer) =>
        importDrawer(drawer, () => linesOf(file), {
          name: basename(file),
          progress: bar.show,
        }),
      );
      bar.end();
      answer(options, notices);
    } finally {
      bar.end();
    }
  });
}

/** The lines of a file. It is opened when the first is asked for: a reader that nobody listens to yet loses lines. */
async function* linesOf(file: string): AsyncGenerator<string> {
  yield* createInterface({ input: createReadStream(file), crlfDelay: Infinity });
}

/** A stream tells of a missing file only while it is read, in the middle of things. */
async function readable(file: string): Promise<void> {
  try {
    await access(file, constants.R_OK);
    if ((await stat(file)).isDirectory()) throw Object.assign(new Error("folder"), { code: "EISDIR" });
  } catch (error) {
    const why = WHY_NOT_READ[(error as NodeJS.ErrnoException).code ?? ""] ?? String(error);
    throw new DrawerError("no-file", `“${file}” cannot be read: ${why}.`, { cause: error });
  }
}
