import { appendFile, readFile, stat } from "node:fs/promises";
import type { Command } from "commander";
import { compose } from "../compose/compose.js";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { Deal, type Dealt } from "../drawer/deal.js";
import { listed, type CommonOptions } from "./answer.js";
import { begin } from "./command.js";
import { withDrawer } from "./home.js";
import { WHY } from "./output.js";
import { printJson, printWhole, remark } from "./terminal.js";

/**
 * What `next` and `back` share: a snippet of the deal goes to standard output, or onto the end of a text file; and only
 * when it is there, it has been handed out.
 */
export function addHandOut(program: Command, step: "next" | "back", description: string): void {
  begin(program, step, description)
    .option("--to <file>", "a text file onto whose end it is put")
    .action(async (options: CommonOptions & { to?: string }) => {
      const { to } = options;
      const use = async (dealt: Dealt) => {
        if (to !== undefined) await putOnEnd(to, textOf(dealt));
        else if (!options.json) await printWhole(textOf(dealt) + "\n");
      };
      const dealt = await withDrawer(options.drawer, (drawer) => new Deal(drawer)[step](use));
      const message = dealt
        ? `${dealt.number} of ${dealt.of}${dealt.number === dealt.of ? ", the last" : ""}.`
        : "All have been handed out.";
      const notices: Notice[] = [...(dealt?.notices ?? []), { code: dealt ? "dealt" : "done", message }];
      if (options.json)
        printJson({
          ...(dealt && {
            ...listed(dealt.snippet),
            number: dealt.number,
            of: dealt.of,
            text: textOf(dealt),
          }),
          notices,
        });
      else for (const notice of notices) remark(notice.message + "\n");
    });
}

function textOf({ snippet }: Dealt): string {
  return compose([snippet], { as: "lines" }).text;
}

/** Puts text onto the end of a text file, on a line of its own. */
async function putOnEnd(path: string, text: string): Promise<void> {
  const refused = (why: string, cause?: unknown) =>
    new DrawerError(
      "not-written",
      `Nothing was put onto “${path}”: ${why}. It has not been handed out; “drawer next” does it again.`,
      { cause },
    );
  try {
    const there = await stat(path).catch((error: NodeJS.ErrnoException) => {
      if (error.code === "ENOENT") return undefined;
      throw error;
    });
    if (there?.isDirectory()) throw refused("it is a folder");
    const before = there?.isFile() ? await readFile(path) : Buffer.alloc(0);
    if (isNoText(path, before))
      throw refused("it is no text file; onto the end of documents nothing can be put yet");
    const isMidLine = before.length > 0 && before.at(-1) !== 0x0a;
    await appendFile(path, `${isMidLine ? "\n" : ""}${text}\n`);
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    const { code, message } = error as NodeJS.ErrnoException;
    throw refused(WHY[code ?? ""] ?? message, error);
  }
}

/** Whether a file is something else than text: by its ending, or by what stands in it. */
function isNoText(path: string, bytes: Uint8Array): boolean {
  return (
    /\.(?:docx|odt|xlsx|ods|pdf|png|jpe?g|gif|webp|zip)$/i.test(path) || bytes.subarray(0, 8192).includes(0)
  );
}
