import type { Command } from "commander";
import { addPickCommand } from "../drawer-command.js";

/** `drawer discard PICK`: takes snippets out; `undo` brings them back. */
export function add(program: Command): void {
  addPickCommand(program, "discard", (drawer, pick) => drawer.discard(pick));
}
