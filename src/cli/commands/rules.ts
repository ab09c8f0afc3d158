import type { Command } from "commander";
import { createInterface } from "node:readline/promises";
import { DrawerError } from "../../content/error.js";
import type { Drawer } from "../../drawer/drawer.js";
import { readRule, sayRules, type Rules } from "../../drawer/rules.js";
import { many, namesOf } from "../../drawer/saying.js";
import { answer, type CommonOptions } from "../answer.js";
import { columns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { print, visible } from "../terminal.js";

/** `drawer rules [NAME=VALUE…]`: the drawer's settings, and changes of them. */
export function add(program: Command): void {
  begin(
    program,
    "rules [name=value...]",
    "the drawer's rules; or change some (drawer rules snippets=500 text-age='60 days')",
  )
    .option("--yes", "also when it takes many snippets out")
    .action(async (typed: readonly string[], options: CommonOptions & { yes?: boolean }) => {
      const changes = Object.assign({}, ...typed.map(readRule)) as ReturnType<typeof readRule>;
      const [notices, rules] = await withDrawer(options.drawer, async (drawer) => {
        if (typed.length > 0 && !options.yes) await ask(drawer, changes);
        return [typed.length > 0 ? await drawer.setRules(changes) : [], sayRules(await drawer.rules())];
      });
      const list = rules.map(({ name, value, usual, about }) => ({ name, value, usual, about }));
      if (options.json || typed.length > 0) return answer(options, notices, { rules: list });
      const rows = list.map(({ name, value, usual, about }) => [
        name,
        value,
        value === usual ? about : `${about} (usually ${usual})`,
      ]);
      for (const line of columns(rows, 2)) print(line + "\n");
      print(`Rules of the drawer “${options.drawer}”. Change one with “drawer rules NAME=VALUE”.\n`);
    });
}

/** How many snippets may go by a change of rules without a question. */
const FEW = 3;

/**
 * Asks whether many snippets shall go, where somebody sits at a terminal.
 * @throws DrawerError `many` when the answer is no, or nobody is there to give it
 */
async function ask(drawer: Drawer, changes: Partial<Rules>): Promise<void> {
  const leaving = await drawer.wouldLeave(changes);
  if (leaving.length <= FEW) return;
  const what = `This takes ${many(leaving.length)} out of the drawer “${drawer.name}”: ${namesOf(leaving)}.`;
  if (process.stdin.isTTY && process.stderr.isTTY) {
    const terminal = createInterface({ input: process.stdin, output: process.stderr });
    const answered = await terminal.question(visible(`${what} Go on? (yes or no) `));
    terminal.close();
    if (/^y(es)?$/i.test(answered.trim())) return;
    throw new DrawerError("many", "Nothing was changed.");
  }
  throw new DrawerError("many", `Nothing was changed. ${what} Add --yes if that is meant.`);
}
