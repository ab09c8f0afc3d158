import type { Command } from "commander";
import { addPickCommand } from "../drawer-command.js";

/** `drawer release PICK`: stops protecting snippets. */
export function add(program: Command): void {
  addPickCommand(program, "release", (drawer, pick) => drawer.release(pick));
}
