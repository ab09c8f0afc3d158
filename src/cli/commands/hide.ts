import type { Command } from "commander";
import { addPickCommand } from "../drawer-command.js";

/** `drawer hide PICK`: makes snippets private. */
export function add(program: Command): void {
  addPickCommand(
    program,
    "hide",
    "make snippets private: shown nowhere, never found or exported, and soon gone",
    (drawer, pick) => drawer.hide(pick),
  );
}
