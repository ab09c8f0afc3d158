import type { Command } from "commander";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer discard PICK`: takes snippets out; `undo` brings them back. */
export function add(program: Command): void {
  begin(program, "discard <pick...>", "take snippets out; undo brings them back").action(
    async (pick: readonly string[], options: CommonOptions) => {
      answer(options, await withDrawer(options.drawer, (drawer) => drawer.discard(pick.join(" "))));
    },
  );
}
