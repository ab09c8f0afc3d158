import type { Command } from "commander";
import { parsePlace } from "../../drawer/model/pick.js";
import { answer, listed, type CommonOptions } from "../answer.js";
import { begin, several } from "../command.js";
import { gather, type GatherOptions } from "../gather.js";
import { withDrawer } from "../home.js";
import { unescaped } from "../recipe-options.js";

interface AppendOptions extends CommonOptions, GatherOptions {
  readonly to: string;
  readonly between?: string;
}

/** `drawer append [FILE…]`: adds files, spots of one, or standard input to the end of a snippet. */
export function add(program: Command): void {
  begin(program, "append [file...]", "add files, spots of a file, or standard input to the end of a snippet")
    .option("--at <spot>", "a spot of the file; may be repeated", several)
    .option("--type <type>", "what it is, whatever its ending says")
    .option("--to <position>", "the snippet that it is added to", "last")
    .option("--not-private", "it is not private, whatever it looks like")
    .option(
      "--between <text>",
      "what stands between: newline, blank, space, comma, semicolon, tab, nothing, or any text (\\n, \\t)",
    )
    .action(async (files: readonly string[], options: AppendOptions) => {
      const place = parsePlace(options.to);
      const gathered = await gather(files, options);
      const between = options.between === undefined ? undefined : unescaped(options.between);
      const { collected, notices } = await withDrawer(options.drawer, (drawer) =>
        drawer.append(gathered, place, between),
      );
      answer(options, notices, { collected: collected.map(listed) });
    });
}
