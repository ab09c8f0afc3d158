import type { Command } from "commander";
import { addPickDeed } from "../deed.js";

/** `drawer release PICK`: stops protecting snippets. */
export function add(program: Command): void {
  addPickDeed(program, "release", "stop keeping snippets", (drawer, pick) => drawer.release(pick));
}
