import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer copy PICK --into NAME`: puts copies into another drawer. */
export function add(program: Command): void {
  begin(program, "copy <pick...>", "put copies of snippets into another drawer")
    .requiredOption("--into <drawer>", "the drawer at whose end they shall stand")
    .action(async (pick: readonly string[], options: CommonOptions & { into: string }) => {
      answer(
        options,
        await withDrawer(options.drawer, (drawer) => drawer.copyInto(options.into, pick.join(" "))),
      );
    });
}
