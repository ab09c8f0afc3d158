import type { Command } from "commander";
import { addHandOut } from "../hand-out.js";

/** `drawer next`: hand out the next snippet of the deal. */
export function add(program: Command): void {
  addHandOut(program, "next", "hand out the next snippet of the deal");
}
