import type { Command } from "commander";
import { addDrawerCommand } from "../drawer-command.js";

/** `drawer undo`: take back the last change. */
export function add(program: Command): void {
  addDrawerCommand(program, "undo", (drawer) => drawer.undo());
}
