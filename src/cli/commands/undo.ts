import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer undo`: take back the last change. */
export function add(program: Command): void {
  begin(program, "undo", "take back the last change").action(async (options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, (drawer) => drawer.undo()));
  });
}
