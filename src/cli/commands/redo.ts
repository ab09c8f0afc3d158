import type { Command } from "commander";
import { addDeed } from "../deed.js";

/** `drawer redo`: do again what was last undone. */
export function add(program: Command): void {
  addDeed(program, "redo", "do again what was last undone", (drawer) => drawer.redo());
}
