import type { Command } from "commander";
import { readRule, sayRules } from "../../drawer/rules.js";
import { answer, type CommonOptions } from "../answer.js";
import { columns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { print } from "../terminal.js";

/** `drawer rules [NAME=VALUE…]`: the drawer's settings, and changes of them. */
export function add(program: Command): void {
  begin(
    program,
    "rules [name=value...]",
    "the drawer's rules; or change some (drawer rules snippets=500 text-age='60 days')",
  ).action(async (typed: readonly string[], options: CommonOptions) => {
    const changes = Object.assign({}, ...typed.map(readRule)) as ReturnType<typeof readRule>;
    const [notices, rules] = await withDrawer(options.drawer, async (drawer) => [
      typed.length > 0 ? await drawer.setRules(changes) : [],
      sayRules(await drawer.rules()),
    ]);
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
