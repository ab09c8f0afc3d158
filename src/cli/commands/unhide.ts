import type { Command } from "commander";
import { addPickCommand } from "../drawer-command.js";

/** `drawer unhide PICK`: snippets are not private any more. */
export function add(program: Command): void {
  addPickCommand(program, "unhide", (drawer, pick) => drawer.unhide(pick));
}
