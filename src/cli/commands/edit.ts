import { spawn } from "node:child_process";
import { mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { join } from "node:path";
import type { Command } from "commander";
import { parseArgsStringToArgv as parseArgs } from "string-argv";
import { DrawerError } from "../../content/error.js";
import type { Flow } from "../../content/model.js";
import { notice } from "../../content/notice.js";
import { parseSnippetRef } from "../../drawer/model/pick.js";
import { rewriteEdited } from "../../drawer/rewrite-edited.js";
import { readMarkdown } from "../../formats/markdown/read.js";
import { writeMarkdown } from "../../formats/markdown/write.js";
import { actNotices } from "../../messages/en/acts.js";
import { commands } from "../../messages/en/cli-help.js";
import { cliErrors } from "../../messages/en/cli.js";
import { act } from "../act.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { home } from "../home-folder.js";
import { withDrawer } from "../home.js";
import { openFile } from "../input.js";

/** `drawer edit N`: a snippet's words in the user's editor, and what is left there put in their place. */
export function add(program: Command): void {
  begin(program, "edit")
    .option("--with <file>", commands.edit.with)
    .action(async (typed: string, options: CommonOptions & { with?: string }) => {
      parseSnippetRef(typed);
      const [snippet] = await withDrawer(options.drawer, (drawer) => drawer.snippets(typed));
      const shownOf = async (flow: Flow) => (await readMarkdown(writeMarkdown([flow]))).content;
      const rewriteWith = async (file: string) => {
        const edited = (await openFile(file, { type: "markdown" })).at();
        await act(options, (drawer) => rewriteEdited(drawer, snippet!, edited, shownOf));
      };
      if (options.with !== undefined) return rewriteWith(options.with);
      const isChanged = await inEditor(writeMarkdown(snippet!.content), rewriteWith);
      if (isChanged) return;
      const { position } = snippet!;
      answer(options, [notice(actNotices, "rewritten/same", { position })]);
    });
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
