import type { Command } from "commander";
import { addPickDeed } from "../deed.js";

/** `drawer unhide PICK`: snippets are not private any more. */
export function add(program: Command): void {
  addPickDeed(program, "unhide", "take the privacy off snippets", (drawer, pick) => drawer.unhide(pick));
}
