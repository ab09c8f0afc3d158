import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer pause`: nothing is collected. */
export function add(program: Command): void {
  begin(program, "pause", "stop collecting until “drawer resume”").action(async (options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, (drawer) => drawer.setRules({ collecting: false })));
  });
}
