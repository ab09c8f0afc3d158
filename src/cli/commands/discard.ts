import type { Command } from "commander";
import { addPickDeed } from "../deed.js";

/** `drawer discard PICK`: takes snippets out; `undo` brings them back. */
export function add(program: Command): void {
  addPickDeed(program, "discard", "take snippets out; undo brings them back", (drawer, pick) =>
    drawer.discard(pick),
  );
}
