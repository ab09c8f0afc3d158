import type { Command } from "commander";
import { DrawerError } from "../../content/error.js";
import { Deal } from "../../drawer/deal.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer deal [PICK]`: begins to hand out snippets one at a time, tells how many are left, or passes over the next. */
export function add(program: Command): void {
  begin(
    program,
    "deal [pick...]",
    "begin to hand out snippets one at a time (next and back do it); how many are left",
  )
    .option("--skip", "pass over the next one")
    .action(async (pick: readonly string[], options: CommonOptions & { skip?: boolean }) => {
      if (options.skip && pick.length > 0)
        throw new DrawerError("bad-option", "Passing over goes without a pick: drawer deal --skip.");
      const [{ left, of }, begun] = await withDrawer(options.drawer, async (drawer) => {
        if (pick.length > 0) return [await (await Deal.begin(drawer, pick.join(" "))).left(), true];
        const deal = new Deal(drawer);
        return [options.skip ? await deal.pass() : await deal.left(), false];
      });
      const next = left === 0 ? "" : ` “drawer next” hands out ${of - left + 1} of ${of}.`;
      const message = begun
        ? `Dealing ${of === 1 ? "1 snippet" : `${of} snippets`}: “drawer next” hands out the first.`
        : `${left === 0 ? "None is" : left === 1 ? "One is" : `${left} are`} left of ${of}.${next}`;
      answer(options, [{ code: left === 0 ? "done" : "dealing", message }], { left, of });
    });
}
