import type { Command } from "commander";
import { defined } from "../../content/defined.js";
import { takeOut } from "../../files/edit.js";
import { commands } from "../../messages/en/cli-help.js";
import { act } from "../act.js";
import type { CommonOptions } from "../answer.js";
import { begin, several } from "../command.js";
import { fileToEdit } from "../edited-file.js";
import { finishLifts } from "../file-acts.js";
import { fileAndSpots } from "../gather.js";
import { liftOf } from "../lift-spots.js";
import { UsageError } from "../refusal.js";

interface LiftOptions extends CommonOptions {
  readonly at?: readonly string[];
  readonly label?: string;
  readonly finish?: boolean;
  readonly track?: boolean;
}

/** `drawer lift FILE --at SPOT`: collects, and takes it out of the file. */
export function add(program: Command): void {
  const says = commands.lift;
  begin(program, "lift")
    .option("--at <spot>", says.at, several)
    .option("--label <text>", commands.collect.label)
    .option("--track", says.track)
    .option("--finish", says.finish)
    .allowExcessArguments()
    .action(async (_: string | undefined, options: LiftOptions, { args }: Command) => {
      const { label, track } = options;
      if (options.finish)
        return act(options, (drawer) =>
          finishLifts(
            drawer,
            async ({ bytes, name }, spots) => (await takeOut(bytes, name, spots, defined({ track }))).data,
          ),
        );
      if (args.length === 0 || options.at === undefined) throw new UsageError("bad-option/lift", {});
      const {
        files: [path],
        at,
      } = fileAndSpots(args, options.at);
      await act(options, await liftOf(await fileToEdit(path!), { at, ...defined({ label, track }) }));
    });
}
