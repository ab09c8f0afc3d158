import type { Command } from "commander";
import { addHandOut } from "../hand-out.js";

/** `drawer back`: hand out the one before it again. */
export function add(program: Command): void {
  addHandOut(program, "back", "hand out the one before it again");
}
