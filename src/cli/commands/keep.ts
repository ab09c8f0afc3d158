import type { Command } from "commander";
import { addPickDeed } from "../deed.js";

/** `drawer keep PICK`: protects snippets. */
export function add(program: Command): void {
  addPickDeed(
    program,
    "keep",
    "keep snippets for good: neither limits nor age nor emptying takes them out",
    (drawer, pick) => drawer.keep(pick),
  );
}
