import { existsSync } from "node:fs";
import type { Command } from "commander";
import { commands } from "../../messages/en/cli-help.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { filesFolder } from "../home-folder.js";

/** `drawer empty`: takes out all that is not kept. */
export function add(program: Command): void {
  const says = commands.empty;
  begin(program, "empty")
    .option("--for-good", says.forGood)
    .action(async (options: CommonOptions & { forGood?: boolean }) => {
      if (options.forGood && existsSync(filesFolder()))
        (await import("../file-acts.js")).forgetFiles(options.drawer);
      await act(options, (drawer) => (options.forGood ? drawer.emptyForGood() : drawer.empty()));
    });
}
