import type { Command } from "commander";
import { addPickCommand } from "../drawer-command.js";

/** `drawer restore PICK`: brings back what has left. */
export function add(program: Command): void {
  addPickCommand(program, "restore", (drawer, pick) => drawer.restore(pick));
}
