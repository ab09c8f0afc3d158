import type { Command } from "commander";
import { commands } from "../../messages/en/cli-help.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer copy PICK --into NAME`: puts copies into another drawer. */
export function add(program: Command): void {
  const says = commands.copy;
  begin(program, "copy", "<pick...>")
    .requiredOption("--into <drawer>", says.into)
    .action(async (pick: readonly string[], options: CommonOptions & { into: string }) => {
      answer(
        options,
        await withDrawer(options.drawer, (drawer) => drawer.copyInto(options.into, pick.join(" "))),
      );
    });
}
