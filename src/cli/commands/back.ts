import type { Command } from "commander";
import { addDealStep } from "../deal-step.js";

/** `drawer back`: hand out the one before it again. */
export function add(program: Command): void {
  addDealStep(program, "back");
}
