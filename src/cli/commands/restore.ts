import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer restore PICK`: brings back what has left. */
export function add(program: Command): void {
  begin(
    program,
    "restore <pick...>",
    "bring back what has left the drawer, by its number in “drawer list --gone”",
  ).action(async (pick: readonly string[], options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, (drawer) => drawer.restore(pick.join(" "))));
  });
}
