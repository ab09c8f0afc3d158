import type { Command } from "commander";
import { parseDuration } from "../../drawer/rule-text.js";
import { commands } from "../../messages/en/cli-help.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { UsageError } from "../refusal.js";

interface HideOptions extends CommonOptions {
  readonly not?: boolean;
  readonly for?: string;
}

/** `drawer hide PICK [--not] [--for TIME]`: makes snippets private, until somebody says or for a time; or not private any more. */
export function add(program: Command): void {
  const says = commands.hide;
  begin(program, "hide")
    .option("--not", says.not)
    .option("--for <time>", says.for)
    .action(async (pick: readonly string[], options: HideOptions) => {
      const picked = pick.join(" ");
      if (options.not && options.for !== undefined) throw new UsageError("bad-option/hide", {});
      const age = options.for === undefined ? undefined : timeOf(options.for);
      await act(options, (drawer) => (options.not ? drawer.unhide(picked) : drawer.hide(picked, age)));
    });
}

function timeOf(typed: string): number {
  const age = parseDuration(typed);
  if (age === undefined || age === null) throw new UsageError("bad-option/for", { typed });
  return age;
}
