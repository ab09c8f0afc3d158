import type { Command } from "commander";
import { parsePlace } from "../../drawer/pick.js";
import { DrawerError } from "../../content/error.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer move PICK --before M`: changes the order. */
export function add(program: Command): void {
  begin(program, "move <pick...>", "move snippets to another place in the order")
    .option("--before <position>", "the snippet before which they shall stand")
    .option("--to-end", "put them after the last")
    .action(
      async (pick: readonly string[], options: CommonOptions & { before?: string; toEnd?: boolean }) => {
        if ((options.before === undefined) === !options.toEnd) {
          throw new DrawerError("bad-option", "Say where to: --before and a position, or --to-end.");
        }
        const before = options.before === undefined ? "end" : parsePlace(options.before);
        answer(options, await withDrawer(options.drawer, (drawer) => drawer.move(pick.join(" "), before)));
      },
    );
}
