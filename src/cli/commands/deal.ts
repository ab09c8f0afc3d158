import type { Command } from "commander";
import { Deal } from "../../drawer/deal.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer deal PICK`: begins to hand out snippets one at a time. */
export function add(program: Command): void {
  begin(program, "deal <pick...>", "begin to hand out snippets one at a time; next and back do it").action(
    async (pick: readonly string[], options: CommonOptions) => {
      const { of } = await withDrawer(options.drawer, async (drawer) =>
        (await Deal.begin(drawer, pick.join(" "))).left(),
      );
      const message = `Dealing ${of === 1 ? "1 snippet" : `${of} snippets`}: “drawer next” hands out the first.`;
      answer(options, [{ code: "dealing", message }]);
    },
  );
}
