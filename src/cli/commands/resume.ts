import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer resume`: collects again. */
export function add(program: Command): void {
  begin(program, "resume", "collect again").action(async (options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, (drawer) => drawer.setRules({ collecting: true })));
  });
}
