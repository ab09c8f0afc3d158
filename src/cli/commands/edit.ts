import { spawn } from "node:child_process";
import { mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { join } from "node:path";
import type { Command } from "commander";
import { parseArgsStringToArgv as parseArgs } from "string-argv";
import { carryOver } from "../../content/carry-over.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Reading } from "../../content/notice.js";
import { parseSnippetRef } from "../../drawer/model/pick.js";
import type { Snippet } from "../../drawer/snippets.js";
import { readMarkdown } from "../../formats/markdown/read.js";
import { writeMarkdown } from "../../formats/markdown/write.js";
import { commands } from "../../messages/en/cli-help.js";
import { cliErrors } from "../../messages/en/cli.js";
import { drawerNotices } from "../../messages/en/drawer.js";
import { act } from "../act.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { home } from "../home-folder.js";
import { withDrawer } from "../home.js";
import { openFile } from "../input.js";

/** `drawer edit N`: a snippet's words in the user's editor, and what is left there put in their place. */
export function add(program: Command): void {
  begin(program, "edit", "<position>")
    .option("--with <file>", commands.edit.with)
    .action(async (typed: string, options: CommonOptions & { with?: string }) => {
      parseSnippetRef(typed);
      const [snippet] = await withDrawer(options.drawer, (drawer) => drawer.snippets(typed));
      const { id, content: from } = snippet!.entry;
      const rewriteWith = async (file: string) => {
        const edited = (await openFile(file, { type: "markdown" })).at();
        const { reading, poorer } = await rewritten(snippet!, edited);
        await act(options, async (drawer) => {
          const { notices } = await drawer.rewrite({ id }, reading, from);
          return poorer === 0
            ? notices
            : [...notices, notice(drawerNotices, "rewritten/poorer", { count: poorer })];
        });
      };
      if (options.with !== undefined) return rewriteWith(options.with);
      const isChanged = await inEditor(writeMarkdown(snippet!.content), rewriteWith);
      if (isChanged) return;
      const { position } = snippet!;
      answer(options, [notice(drawerNotices, "rewritten/same", { position })]);
    });
}

/** What a snippet says once its Markdown was edited so; what nobody has touched is as it was. */
async function rewritten(
  { content, pictures }: Snippet,
  edited: Reading,
): Promise<{ readonly reading: Reading; readonly poorer: number }> {
  const shown = await Promise.all(
    content.map(async (flow) => (await readMarkdown(writeMarkdown([flow]))).content),
  );
  const { content: whole, poorer } = carryOver(content, shown, edited.content);
  const reading = { ...edited, content: whole, pictures: new Map([...pictures, ...edited.pictures]) };
  return { reading, poorer };
}

/**
 * Lets the user change a text in their editor, in a file that only they can read, and hands over what they have left there. The file
 * goes once that is done; when it is refused it stays, so that nothing that was typed is lost. Returns whether anything was changed.
 * @throws DrawerError `no-editor` when there is none, or it failed; and as `done` does, with where the file is
 */
async function inEditor(text: string, done: (file: string) => Promise<void>): Promise<boolean> {
  const typed = process.env["VISUAL"] ?? process.env["EDITOR"] ?? "";
  const [program, ...words] = parseArgs(typed);
  if (program === undefined) throw new DrawerError(cliErrors, "no-editor", {});
  const folder = await mkdtemp(join(home(), "edit-"));
  const file = join(folder, "snippet.md");
  await writeFile(file, text, { mode: 0o600 });
  let isLeft = true;
  try {
    await ended(program, [...words, file]);
    const isChanged = (await readFile(file, "utf8")) !== text;
    if (isChanged) await done(file);
    isLeft = false;
    return isChanged;
  } catch (error) {
    isLeft = (await readFile(file, "utf8").catch(() => text)) !== text;
    if (!isLeft || !(error instanceof DrawerError)) throw error;
    throw new DrawerError(cliErrors, "no-editor/kept", { why: error.message, file }, { cause: error });
  } finally {
    if (!isLeft) await rm(folder, { recursive: true, force: true });
  }
}

/** Runs an editor on this terminal, until it is closed. */
function ended(program: string, words: readonly string[]): Promise<void> {
  const failed = (why: string) => new DrawerError(cliErrors, "no-editor/failed", { program, why });
  return new Promise((resolve, reject) => {
    const child = spawn(program, words, { stdio: "inherit" });
    child.once("error", (error) => reject(failed(error.message)));
    child.once("exit", (code, signal) =>
      code === 0 ? resolve() : reject(failed(signal ?? `it ended with ${code}`)),
    );
  });
}
