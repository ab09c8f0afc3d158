import type { Command } from "commander";
import { addDeed } from "../deed.js";

/** `drawer pause`: nothing is collected. */
export function add(program: Command): void {
  addDeed(program, "pause", "stop collecting until “drawer resume”", (drawer) =>
    drawer.setRules({ collecting: false }),
  );
}
