import type { Command } from "commander";
import { addDrawerCommand } from "../drawer-command.js";

/** `drawer pause`: nothing is collected. */
export function add(program: Command): void {
  addDrawerCommand(program, "pause", (drawer) => drawer.setRules({ collecting: false }));
}
