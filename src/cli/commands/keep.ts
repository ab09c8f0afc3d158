import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer keep PICK`: protects snippets. */
export function add(program: Command): void {
  begin(
    program,
    "keep <pick...>",
    "keep snippets for good: neither limits nor age nor emptying takes them out",
  ).action(async (pick: readonly string[], options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, (drawer) => drawer.keep(pick.join(" "))));
  });
}
