import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer hide PICK`: makes snippets private. */
export function add(program: Command): void {
  begin(
    program,
    "hide <pick...>",
    "make snippets private: shown nowhere, never found or exported, and soon gone",
  ).action(async (pick: readonly string[], options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, (drawer) => drawer.hide(pick.join(" "))));
  });
}
