import type { Command } from "commander";
import { act } from "../act.js";
import type { CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { refreshPick } from "../standings.js";

/** `drawer refresh PICK`: takes snippets anew from the files that they came from. */
export function add(program: Command): void {
  begin(program, "refresh").action((pick: readonly string[], options: CommonOptions) =>
    act(options, (drawer) => refreshPick(drawer, pick.join(" "))),
  );
}
