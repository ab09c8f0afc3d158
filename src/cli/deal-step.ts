import { appendFile, readFile, stat } from "node:fs/promises";
import type { Command } from "commander";
import { compose } from "../compose/compose.js";
import { DrawerError } from "../content/error.js";
import { notice } from "../content/notice.js";
import { stepDeal } from "../drawer/deal-step.js";
import type { Dealt } from "../drawer/operations/deal.js";
import { actNotices } from "../messages/en/acts.js";
import { program as words } from "../messages/en/cli-help.js";
import { type WhyNotWritten, cliErrors } from "../messages/en/cli.js";
import { listedSnippet, plain, type CommonOptions } from "./answer.js";
import { begin } from "./command.js";
import { dealToClipboard } from "./deal-to-clipboard.js";
import { withDrawer } from "./home.js";
import { STANDARD } from "./input.js";
import { whyOf } from "./output.js";
import { printJson, printWhole, remark } from "./terminal.js";

/** The exit code when nothing of a deal is left, so that a loop does not take a refusal for it. */
const NONE_LEFT = 3;

/**
 * `drawer next` and `drawer back`: a snippet of the deal goes to standard output, or onto the end of a text file; and only
 * when it is there, it has been handed out.
 */
export function dealStepCommand(step: "next" | "back"): { add(program: Command): void } {
  return { add: (program) => addDealStep(program, step) };
}

function addDealStep(program: Command, step: "next" | "back"): void {
  begin(program, step)
    .option("--to <file>", words.dealTo)
    .action(async (options: CommonOptions & { to?: string }) => {
      const to = options.to === STANDARD ? undefined : options.to;
      const handOver = async (dealt: Dealt) => {
        if (to !== undefined) await putOnEnd(to, textOf(dealt));
        else if (!options.json) await printWhole(textOf(dealt) + "\n");
        return [notice(actNotices, "dealt", { number: dealt.number, of: dealt.of })];
      };
      const { dealt, left, of, notices } = await withDrawer(options.drawer, (drawer) =>
        stepDeal(drawer, step, { handOver, offer: dealToClipboard }),
      );
      if (options.json)
        printJson({
          ...(dealt && { block: { format: "text", text: textOf(dealt) }, number: dealt.number }),
          ...{ of, left, snippets: dealt ? [listedSnippet(dealt.snippet)] : [] },
          notices: plain(notices),
        });
      else for (const { message } of notices) remark(message + "\n");
      if (!dealt) process.exitCode = NONE_LEFT;
    });
}

/** The text of a snippet as its deal makes it into a block; lines, where it does not say. */
function textOf({ snippet, recipe }: Dealt): string {
  return compose([snippet], { as: "lines", ...recipe }).text;
}

/** Puts text onto the end of a text file, on a line of its own. */
async function putOnEnd(path: string, text: string): Promise<void> {
  const refused = (why: WhyNotWritten, cause?: unknown) =>
    new DrawerError(cliErrors, "not-written/hand-out", { path, why }, { cause });
  try {
    const there = await stat(path).catch((error: NodeJS.ErrnoException) => {
      if (error.code === "ENOENT") return undefined;
      throw error;
    });
    if (there?.isDirectory()) throw refused("EISDIR");
    const before = there?.isFile() ? await readFile(path) : Buffer.alloc(0);
    if (isNoText(path, before)) throw refused("no-text");
    const isMidLine = before.length > 0 && before.at(-1) !== 0x0a;
    await appendFile(path, `${isMidLine ? "\n" : ""}${text}\n`);
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw refused(whyOf(error), error);
  }
}

/** Whether a file is something else than text: by its ending, or by what stands in it. */
function isNoText(path: string, bytes: Uint8Array): boolean {
  return (
    /\.(?:docx|odt|xlsx|ods|pdf|png|jpe?g|gif|webp|zip)$/i.test(path) || bytes.subarray(0, 8192).includes(0)
  );
}
