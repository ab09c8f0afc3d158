import { createReadStream, createWriteStream } from "node:fs";
import { access, constants, mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { pipeline } from "node:stream/promises";
import type { Command } from "commander";
import { DrawerError } from "../../content/error.js";
import { cliErrors } from "../../messages/en/cli.js";
import { sources } from "../../messages/en/content.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { regularFile, STANDARD } from "../input.js";
import { notRead } from "../not-read.js";
import { progressBar } from "../progress.js";

/** `drawer import FILE`: brings the snippets of a drawer file into the drawer. */
export function add(program: Command): void {
  begin(program, "import").action(async (file: string, options: CommonOptions) => {
    if (file === STANDARD)
      await withStandardInput((spooled) => importFrom(spooled, sources.standardInput, options));
    else await importFrom(file, basename(file), options);
  });
}

async function importFrom(path: string, name: string, options: CommonOptions): Promise<void> {
  await readable(path);
  const bar = progressBar("Importing");
  try {
    await act(options, async (drawer) => {
      const notices = await drawer.importFile(() => linesOf(path), { name, progress: bar.show });
      bar.end();
      return notices;
    });
  } finally {
    bar.end();
  }
}

/** Reads standard input into a file that is the user's alone, since a drawer file is read twice; it is gone when it has been used. */
async function withStandardInput(use: (path: string) => Promise<void>): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), "drawer-import-"));
  try {
    const path = join(folder, "input");
    await pipeline(process.stdin, createWriteStream(path, { mode: 0o600 }));
    await use(path);
  } finally {
    await rm(folder, { recursive: true });
  }
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
