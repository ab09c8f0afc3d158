import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer release PICK`: stops protecting snippets. */
export function add(program: Command): void {
  begin(program, "release <pick...>", "stop keeping snippets").action(
    async (pick: readonly string[], options: CommonOptions) => {
      answer(options, await withDrawer(options.drawer, (drawer) => drawer.release(pick.join(" "))));
    },
  );
}
