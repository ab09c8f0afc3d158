import { createReadStream } from "node:fs";
import { access, constants } from "node:fs/promises";
import { basename } from "node:path";
import type { Command } from "commander";
import { DrawerError } from "../../content/error.js";
import { cliErrors } from "../../messages/en/cli.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { notRead, regularFile } from "../input.js";
import { progressBar } from "../progress.js";

/** `drawer import FILE`: brings the snippets of a drawer file into the drawer. */
export function add(program: Command): void {
  begin(program, "import", "<file>").action(async (file: string, options: CommonOptions) => {
    await readable(file);
    const bar = progressBar("Importing");
    try {
      const notices = await withDrawer(options.drawer, (drawer) =>
        drawer.importFile(() => linesOf(file), {
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

/** The most bytes of a drawer file, and of one line of it. */
const LARGEST = { file: 2 * 1024 * 1024 * 1024, line: 256 * 1024 * 1024 };

/** The lines of a file, read in pieces. No line may be so long that it fills the memory. */
async function* linesOf(file: string): AsyncGenerator<string> {
  let rest: Buffer[] = [];
  let length = 0;
  for await (const chunk of createReadStream(file) as AsyncIterable<Buffer>) {
    let from = 0;
    for (let end = chunk.indexOf(LINE_END); end >= 0; end = chunk.indexOf(LINE_END, from)) {
      yield Buffer.concat([...rest, chunk.subarray(from, end)])
        .toString("utf8")
        .replace(/\r$/, "");
      [rest, length, from] = [[], 0, end + 1];
    }
    rest.push(chunk.subarray(from));
    length += chunk.length - from;
    if (length > LARGEST.line)
      throw new DrawerError(cliErrors, "too-large/line", { file: basename(file), most: LARGEST.line });
  }
  if (length > 0) yield Buffer.concat(rest).toString("utf8");
}

const LINE_END = 0x0a;

/** A stream tells of a missing file only while it is read, in the middle of things. */
async function readable(file: string): Promise<void> {
  try {
    await access(file, constants.R_OK);
    const there = await regularFile(file);
    if (there.isDirectory()) throw Object.assign(new Error("folder"), { code: "EISDIR" });
    if (there.size > LARGEST.file)
      throw new DrawerError(cliErrors, "too-large/import", { file: basename(file), most: LARGEST.file });
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw notRead(file, error);
  }
}
