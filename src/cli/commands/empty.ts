import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer empty`: takes out all that is not kept. */
export function add(program: Command): void {
  begin(program, "empty", "take out all that is not kept; undo brings it back")
    .option(
      "--for-good",
      "forget it, with what had left and the log, so that no trace stays and nothing brings it back",
    )
    .action(async (options: CommonOptions & { forGood?: boolean }) => {
      const emptied = await withDrawer(options.drawer, (drawer) =>
        options.forGood ? drawer.emptyForGood() : drawer.empty(),
      );
      answer(options, emptied);
    });
}
