import { appendFile, readFile } from "node:fs/promises";
import type { Command } from "commander";
import { compose } from "../compose/compose.js";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { Deal } from "../drawer/deal.js";
import { listed, type CommonOptions } from "./answer.js";
import { begin } from "./command.js";
import { withDrawer } from "./home.js";
import { print, remark, printJson } from "./terminal.js";

/** What `next` and `back` share: a snippet of the deal goes to standard output, or onto the end of a text file. */
export function addHandOut(program: Command, step: "next" | "back", description: string): void {
  begin(program, step, description)
    .option("--to <file>", "a text file onto whose end it is put")
    .action(async (options: CommonOptions & { to?: string }) => {
      const dealt = await withDrawer(options.drawer, (drawer) => new Deal(drawer)[step]());
      const message = dealt
        ? `${dealt.number} of ${dealt.of}${dealt.number === dealt.of ? ", the last" : ""}.`
        : "All have been handed out.";
      const notices: Notice[] = [{ code: dealt ? "dealt" : "done", message }];
      const text = dealt ? compose([dealt.snippet], { as: "lines" }).text : "";
      if (dealt && options.to !== undefined) await putOnEnd(options.to, text);
      if (options.json)
        printJson({
          ...(dealt && { ...listed(dealt.snippet), number: dealt.number, of: dealt.of, text }),
          notices,
        });
      else {
        if (dealt && options.to === undefined) print(text + "\n");
        remark(message + "\n");
      }
    });
}

/** Puts text onto the end of a file, on a line of its own. */
async function putOnEnd(path: string, text: string): Promise<void> {
  try {
    const before = await readFile(path, "utf8").catch((error: NodeJS.ErrnoException) => {
      if (error.code === "ENOENT") return "";
      throw error;
    });
    await appendFile(path, `${before === "" || before.endsWith("\n") ? "" : "\n"}${text}\n`);
  } catch (error) {
    throw new DrawerError(
      "not-written",
      `Nothing was put onto “${path}” (${(error as Error).message}). “drawer back”, then “drawer next”, hands it out again.`,
      {
        cause: error,
      },
    );
  }
}
