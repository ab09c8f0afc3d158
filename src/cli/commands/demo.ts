import { spawnSync } from "node:child_process";
import { mkdtemp, readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { styleText } from "node:util";
import type { Command } from "commander";
import { defined } from "../../content/defined.js";
import { commands, program as words, tour } from "../../messages/en/cli-help.js";
import { UsageError } from "../refusal.js";
import { printJson } from "../terminal.js";

/** A step of the tour: what it shows, and the words of the command; a file or another command may be piped into it. */
interface Step {
  readonly says?: string;
  readonly words: readonly string[];
  readonly file?: string;
  readonly from?: readonly string[];
}

/** `drawer demo`: a short tour on the sample data, in a home of its own that is thrown away. */
export function add(program: Command): void {
  program.command("demo").description(commands.demo.about).option("--json", words.json).action(run);
}

async function run({ json = false }: { json?: boolean }): Promise<void> {
  const packageFolder = join(dirname(fileURLToPath(import.meta.url)), "../..");
  const folder = await mkdtemp(join(tmpdir(), "drawer-demo-"));
  const bulletin = join(folder, "bulletin.html");
  const env = { ...process.env, DRAWER_HOME: join(folder, "home") };
  const command = (words: readonly string[], input?: string): string => {
    const { status, stdout, stderr } = spawnSync(process.execPath, [process.argv[1]!, ...words], {
      cwd: packageFolder,
      env,
      encoding: "utf8",
      ...defined({ input }),
    });
    if (status === 0) return stdout + stderr;
    throw new UsageError("tour-stopped", {
      command: `drawer ${words.join(" ")}`,
      status,
      answer: stderr.trim(),
    });
  };
  const done: { says?: string; command: string; answer: string }[] = [];
  try {
    for (const { says, words, file, from } of steps(bulletin)) {
      const input = file ? await readFile(join(packageFolder, file), "utf8") : from && command(from);
      const typed = [file && `cat ${file}`, from && commandLine(from), commandLine(words)]
        .filter(Boolean)
        .join(" | ");
      const answer = command(words, input);
      done.push({ ...defined({ says }), command: typed, answer });
      if (json) continue;
      if (says) process.stdout.write(`\n${styleText("dim", says)}\n`);
      process.stdout.write(`${styleText("bold", `$ ${typed}`)}\n${answer}`);
    }
  } finally {
    await rm(env.DRAWER_HOME, { recursive: true, force: true });
  }
  if (json) return printJson({ steps: done, bulletin, notices: [] });
  const end = tour.end({ file: bulletin, address: pathToFileURL(bulletin).href });
  process.stdout.write(`\n${end}\n`);
}

function steps(bulletin: string): Step[] {
  return [
    { says: tour.look, words: ["look", "demo/diary.docx"] },
    { words: ["look", "demo/ringing.xlsx"] },
    {
      says: tour.gather,
      words: ["collect", "demo/diary.docx", "--at", "p3", "--at", "t1"],
    },
    {
      words: [
        "collect",
        "demo/ringing.xlsx",
        "--at",
        "Spring!A1:G1",
        "--at",
        "Spring!A3:G3",
        "--at",
        "Spring!A5:G5",
      ],
    },
    { words: ["collect", "--type", "html"], file: "demo/clipboard/web-sentence/clip.html" },
    { says: tour.find, words: ["list"] },
    { words: ["list", "--find", "wheat"] },
    {
      says: tour.arrange,
      words: ["move", "6", "--before", "1"],
    },
    { words: ["discard", "3"] },
    { words: ["undo"] },
    {
      says: tour.bullets,
      words: ["place", "1", "5..6", "--as", "bullets", "--out", "markdown"],
    },
    {
      says: tour.rows,
      words: ["place", "4..6", "--as", "rows", "--out", "csv"],
    },
    {
      says: tour.place,
      from: ["place", "4..6", "--as", "rows", "--out", "html"],
      words: ["collect", "--type", "html"],
    },
    { words: ["place", "2", "1", "last", "--to", bulletin] },
  ];
}

function commandLine(words: readonly string[]): string {
  return `drawer ${words.map(quoted).join(" ")}`;
}

/** A word as a shell wants it. */
function quoted(word: string): string {
  return /^[\w./:=-]+$/.test(word) ? word : `'${word.replaceAll("'", "'\\''")}'`;
}
