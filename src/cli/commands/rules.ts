import type { Command } from "commander";
import type { Drawer } from "../../drawer/drawer.js";
import type { Rules } from "../../drawer/model/rules.js";
import { describeRules, parseRule } from "../../drawer/rule-text.js";
import { answers } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { answer, type CommonOptions } from "../answer.js";
import { askWhether, canAsk } from "../ask.js";
import { printColumns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { UsageError } from "../refusal.js";
import { print } from "../terminal.js";

/** `drawer rules [NAME=VALUE…]`: the drawer's settings, and changes of them. */
export function add(program: Command): void {
  const says = commands.rules;
  begin(program, "rules")
    .option("--yes", says.yes)
    .action(async (typed: readonly string[], options: CommonOptions & { yes?: boolean }) => {
      const changes = Object.assign({}, ...typed.map(parseRule)) as Partial<Rules>;
      const [notices, rules] = await withDrawer(options.drawer, async (drawer) => {
        if (typed.length > 0 && !options.yes) await refuseMany(drawer, changes);
        return [typed.length > 0 ? await drawer.setRules(changes) : [], describeRules(await drawer.rules())];
      });
      const list = rules.map(({ name, value, usual, about }) => ({ name, value, usual, about }));
      if (options.json || typed.length > 0) return answer(options, notices, { rules: list });
      const rows = list.map(({ name, value, usual, about }) => [
        name,
        value,
        value === usual ? about : `${about} (usually ${usual})`,
      ]);
      printColumns(rows, 2);
      print(`${answers.rules(options)}\n`);
    });
}

/** How many snippets may go by a change of rules without a question. */
const FEW = 3;

/**
 * Asks whether many snippets shall go, where somebody sits at a terminal.
 * @throws DrawerError `many` when the answer is no, or nobody is there to give it
 */
async function refuseMany(drawer: Drawer, changes: Partial<Rules>): Promise<void> {
  const snippets = await drawer.wouldLeave(changes);
  if (snippets.length <= FEW) return;
  const leaving = { snippets, drawer: drawer.name };
  if (!canAsk()) throw new UsageError("many/unasked", leaving);
  if (!(await askWhether(answers.goOn(leaving)))) throw new UsageError("many", {});
}
