import type { Command } from "commander";
import { addPickCommand } from "../drawer-command.js";

/** `drawer hide PICK`: makes snippets private. */
export function add(program: Command): void {
  addPickCommand(program, "hide", (drawer, pick) => drawer.hide(pick));
}
