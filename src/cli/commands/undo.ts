import type { Command } from "commander";
import { addDeed } from "../deed.js";

/** `drawer undo`: take back the last change. */
export function add(program: Command): void {
  addDeed(program, "undo", "take back the last change", (drawer) => drawer.undo());
}
