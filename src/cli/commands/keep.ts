import type { Command } from "commander";
import { addPickCommand } from "../drawer-command.js";

/** `drawer keep PICK`: protects snippets. */
export function add(program: Command): void {
  addPickCommand(program, "keep", (drawer, pick) => drawer.keep(pick));
}
