import type { Command } from "commander";
import { parsePlace } from "../../drawer/model/pick.js";
import { UsageError } from "../refusal.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer move PICK --before M`: changes the order, or the drawer. */
export function add(program: Command): void {
  begin(program, "move <pick...>", "move snippets to another place in the order")
    .option("--before <position>", "the snippet before which they shall stand")
    .option("--to-end", "put them after the last")
    .option("--into <drawer>", "another drawer, at whose end they shall stand")
    .action(async (pick: readonly string[], options: MoveOptions) => {
      const { before, toEnd, into } = options;
      if ([before, toEnd, into].filter((where) => where !== undefined).length !== 1)
        throw new UsageError("bad-option/move", {});
      const place = before === undefined ? "end" : parsePlace(before);
      const moved = await withDrawer(options.drawer, (drawer) =>
        into === undefined ? drawer.move(pick.join(" "), place) : drawer.moveInto(into, pick.join(" ")),
      );
      answer(options, moved);
    });
}

interface MoveOptions extends CommonOptions {
  readonly before?: string;
  readonly toEnd?: boolean;
  readonly into?: string;
}
