import type { Command } from "commander";
import { parseSnippetRef } from "../../drawer/model/pick.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin } from "../command.js";

/** `drawer split N`: makes the several again of which a snippet was made. */
export function add(program: Command): void {
  begin(program, "split").action(async (position: string, options: CommonOptions) => {
    const place = parseSnippetRef(position);
    await act(options, async (drawer) => (await drawer.split(place)).notices);
  });
}
