import type { Command } from "commander";
import { DrawerError } from "../../content/error.js";
import { parsePlace } from "../../drawer/pick.js";
import { answer, listed, type CommonOptions } from "../answer.js";
import { begin, several } from "../command.js";
import { gather, type GatherOptions } from "../gather.js";
import { withDrawer } from "../home.js";
import { unescaped } from "../recipe-options.js";

interface AppendOptions extends CommonOptions, GatherOptions {
  readonly to: string;
  readonly between?: string;
}

/** `drawer append [FILE]`: adds a file, a spot of one, or standard input to the end of a snippet. */
export function add(program: Command): void {
  begin(program, "append [file]", "add a file, a spot of it, or standard input to the end of a snippet")
    .option("--at <spot>", "a spot of the file", several)
    .option("--type <type>", "what it is, whatever its ending says")
    .option("--to <position>", "the snippet that it is added to", "last")
    .option("--not-private", "it is not private, whatever it looks like")
    .option(
      "--between <text>",
      "what stands between: newline, blank, space, comma, semicolon, tab, nothing, or any text (\\n, \\t)",
    )
    .action(async (file: string | undefined, options: AppendOptions) => {
      const place = parsePlace(options.to);
      const gathered = await gather(file === undefined ? [] : [file], options);
      if (gathered.length !== 1)
        throw new DrawerError("bad-option", "One piece is appended at a time: name one spot.");
      const between = options.between === undefined ? undefined : unescaped(options.between);
      const { collected, notices } = await withDrawer(options.drawer, (drawer) =>
        drawer.append(gathered[0]!, place, between),
      );
      answer(options, notices, { collected: collected.map(listed) });
    });
}
