import type { Command } from "commander";
import { addPickCommand } from "../drawer-command.js";

/** `drawer keep PICK`: protects snippets. */
export function add(program: Command): void {
  addPickCommand(
    program,
    "keep",
    "keep snippets for good: neither limits nor age nor emptying takes them out",
    (drawer, pick) => drawer.keep(pick),
  );
}
