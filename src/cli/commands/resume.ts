import type { Command } from "commander";
import { addDeed } from "../deed.js";

/** `drawer resume`: collects again. */
export function add(program: Command): void {
  addDeed(program, "resume", "collect again", (drawer) => drawer.setRules({ collecting: true }));
}
