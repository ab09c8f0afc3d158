import type { Command } from "commander";
import { parseSnippetRef } from "../../drawer/model/pick.js";
import { commands } from "../../messages/en/cli-help.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin, several } from "../command.js";
import { gather, type GatherOptions } from "../gather.js";
import { unescaped } from "../recipe-options.js";

interface AppendOptions extends CommonOptions, GatherOptions {
  readonly to: string;
  readonly between?: string;
}

/** `drawer append [FILE…]`: adds files, spots of one, or standard input to the end of a snippet. */
export function add(program: Command): void {
  const says = commands.append;
  begin(program, "append")
    .option("--at <spot>", says.at, several)
    .option("--type <type>", says.type)
    .option("--separator <sign>", says.separator)
    .option("--password-file <file>", says.passwordFile)
    .option("--to <position>", says.to, "last")
    .option("--not-private", says.notPrivate)
    .option("--between <text>", says.between)
    .action(async (files: readonly string[], options: AppendOptions) => {
      const place = parseSnippetRef(options.to);
      const gathered = await gather(files, options);
      const between = options.between === undefined ? undefined : unescaped(options.between);
      await act(options, async (drawer) => (await drawer.append(gathered, place, between)).notices);
    });
}
