import type { Command } from "commander";
import { commands } from "../../messages/en/cli-help.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin, several } from "../command.js";
import { gather, type GatherOptions } from "../gather.js";

type CollectOptions = CommonOptions & GatherOptions;

/** `drawer collect [FILE…]`: copies files, or spots of a file, or standard input, into the drawer. */
export function add(program: Command): void {
  const says = commands.collect;
  begin(program, "collect")
    .option("--at <spot>", says.at, several)
    .option("--each <unit>", says.each)
    .option("--type <type>", says.type)
    .option("--separator <sign>", says.separator)
    .option("--password-file <file>", says.passwordFile)
    .option("--header <yes|no>", says.header)
    .option("--clipboard", says.clipboard)
    .option("--label <text>", says.label)
    .option("--private", says.private)
    .option("--not-private", says.notPrivate)
    .action(async (files: readonly string[], options: CollectOptions) => {
      const gathered = await gather(files, options);
      await act(options, async (drawer) => (await drawer.collect(gathered)).notices);
    });
}
