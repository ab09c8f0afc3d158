import type { Command } from "commander";
import { addPickDeed } from "../deed.js";

/** `drawer hide PICK`: makes snippets private. */
export function add(program: Command): void {
  addPickDeed(
    program,
    "hide",
    "make snippets private: shown nowhere, never found or exported, and soon gone",
    (drawer, pick) => drawer.hide(pick),
  );
}
