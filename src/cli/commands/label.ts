import type { Command } from "commander";
import { commands } from "../../messages/en/cli-help.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { UsageError } from "../refusal.js";

/** `drawer label PICK TEXT`: gives snippets a label, or takes it off. */
export function add(program: Command): void {
  const says = commands.label;
  begin(program, "label")
    .usage("<pick...> <text> | --remove <pick...>")
    .option("--remove", says.remove)
    .action(async (words: readonly string[], options: CommonOptions & { remove?: boolean }) => {
      const pick = options.remove ? words : words.slice(0, -1);
      if (pick.length === 0) throw new UsageError("bad-option/no-label", {});
      const text = options.remove ? "" : words.at(-1)!;
      await act(options, (drawer) => drawer.label(pick.join(" "), text));
    });
}
