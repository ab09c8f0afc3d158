import type { Command } from "commander";
import { parseSnippetRef } from "../../drawer/model/pick.js";
import { commands } from "../../messages/en/cli-help.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { UsageError } from "../refusal.js";

/** `drawer move PICK --before M`: changes the order, or the drawer. */
export function add(program: Command): void {
  const says = commands.move;
  begin(program, "move")
    .option("--before <position>", says.before)
    .option("--to-end", says.toEnd)
    .option("--into <drawer>", says.into)
    .option("--as-copy", says.asCopy)
    .action(async (pick: readonly string[], options: MoveOptions) => {
      const { before, toEnd, into, asCopy } = options;
      if ([before, toEnd, into].filter((where) => where !== undefined).length !== 1)
        throw new UsageError("bad-option/move", {});
      if (asCopy && into === undefined) throw new UsageError("bad-option/as-copy", {});
      const place = before === undefined ? "end" : parseSnippetRef(before);
      await act(options, (drawer) =>
        into === undefined
          ? drawer.move(pick.join(" "), place)
          : drawer[asCopy ? "copyInto" : "moveInto"](into, pick.join(" ")),
      );
    });
}

interface MoveOptions extends CommonOptions {
  readonly before?: string;
  readonly toEnd?: boolean;
  readonly into?: string;
  readonly asCopy?: boolean;
}
