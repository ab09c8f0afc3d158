import type { Command } from "commander";
import { commands } from "../../messages/en/commands.js";
import { notice } from "../../content/notice.js";
import { answers } from "../../messages/en/command-line.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { UsageError } from "../refusal.js";

/** `drawer deal [PICK]`: begins to hand out snippets one at a time, tells how many are left, or passes over the next. */
export function add(program: Command): void {
  const says = commands.deal;
  begin(program, "deal", "[pick...]")
    .option("--skip", says.skip)
    .action(async (pick: readonly string[], options: CommonOptions & { skip?: boolean }) => {
      if (options.skip && pick.length > 0) throw new UsageError("bad-option/skip", {});
      const { left, of } = await withDrawer(options.drawer, (drawer) => {
        if (pick.length > 0) return drawer.deal(pick.join(" "));
        return options.skip ? drawer.dealSkip() : drawer.dealLeft();
      });
      const told =
        left === 0
          ? notice("done/none-left", { of })
          : notice(pick.length > 0 ? "dealing" : "dealing/left", { left, of });
      const next = left === 0 ? "" : ` ${answers.nextDealt({ number: of - left + 1, of })}`;
      answer(options, [{ ...told, message: told.message + next }], { left, of });
    });
}
