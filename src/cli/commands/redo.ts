import type { Command } from "commander";
import { addDrawerCommand } from "../drawer-command.js";

/** `drawer redo`: do again what was last undone. */
export function add(program: Command): void {
  addDrawerCommand(program, "redo", (drawer) => drawer.redo());
}
