import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer redo`: do again what was last undone. */
export function add(program: Command): void {
  begin(program, "redo", "do again what was last undone").action(async (options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, (drawer) => drawer.redo()));
  });
}
