import type { Command } from "commander";
import { parseSnippetRef } from "../../drawer/model/pick.js";
import { answer, listed, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer split N`: makes the several again of which a snippet was made. */
export function add(program: Command): void {
  begin(program, "split", "<position>").action(async (position: string, options: CommonOptions) => {
    const place = parseSnippetRef(position);
    const { collected, notices } = await withDrawer(options.drawer, (drawer) => drawer.split(place));
    answer(options, notices, { collected: collected.map(listed) });
  });
}
