import type { Command } from "commander";
import type { Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import { answer, type CommonOptions } from "./answer.js";
import { begin } from "./command.js";
import { withDrawer } from "./home.js";

/** What a drawer does and says, with no more to it than that. */
type Deed = (drawer: Drawer, pick: string) => Promise<readonly Notice[]>;

/** A command that does something with the snippets of a pick. */
export function addPickCommand(program: Command, name: string, description: string, deed: Deed): void {
  begin(program, `${name} <pick...>`, description).action(
    async (pick: readonly string[], options: CommonOptions) => {
      answer(options, await withDrawer(options.drawer, (drawer) => deed(drawer, pick.join(" "))));
    },
  );
}

/** A command that does something with the drawer as a whole. */
export function addDrawerCommand(
  program: Command,
  name: string,
  description: string,
  deed: (drawer: Drawer) => Promise<readonly Notice[]>,
): void {
  begin(program, name, description).action(async (options: CommonOptions) => {
    answer(options, await withDrawer(options.drawer, deed));
  });
}
