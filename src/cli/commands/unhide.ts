import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer unhide PICK`: snippets are not private any more. */
export function add(program: Command): void {
  begin(program, "unhide <pick...>", "take the privacy off snippets").action(
    async (pick: readonly string[], options: CommonOptions) => {
      answer(options, await withDrawer(options.drawer, (drawer) => drawer.unhide(pick.join(" "))));
    },
  );
}
