import type { Command } from "commander";
import { addDrawerCommand } from "../drawer-command.js";

/** `drawer resume`: collects again. */
export function add(program: Command): void {
  addDrawerCommand(program, "resume", (drawer) => drawer.setRules({ collecting: true }));
}
