import type { Command } from "commander";
import type { Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import { answer, type CommonOptions } from "./answer.js";
import { begin, type CommandName } from "./command.js";
import { withDrawer } from "./home.js";

/** What a drawer does and says, with no more to it than that. */
type Action = (drawer: Drawer, pick: string) => Promise<readonly Notice[]>;

/** A command that does something with the snippets of a pick. */
export function addPickCommand(program: Command, name: CommandName, action: Action): void {
  begin(program, name, "<pick...>").action(async (pick: readonly string[], options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, (drawer) => action(drawer, pick.join(" "))));
  });
}

/** A command that does something with the drawer as a whole. */
export function addDrawerCommand(
  program: Command,
  name: CommandName,
  action: (drawer: Drawer) => Promise<readonly Notice[]>,
): void {
  begin(program, name).action(async (options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, action));
  });
}
