import type { Command } from "commander";
import { addDealStep } from "../deal-step.js";

/** `drawer next`: hand out the next snippet of the deal. */
export function add(program: Command): void {
  addDealStep(program, "next");
}
