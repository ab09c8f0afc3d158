import type { Command } from "commander";
import { addPickDeed } from "../deed.js";

/** `drawer restore PICK`: brings back what has left. */
export function add(program: Command): void {
  addPickDeed(
    program,
    "restore",
    "bring back what has left the drawer, by its number in “drawer list --gone”",
    (drawer, pick) => drawer.restore(pick),
  );
}
