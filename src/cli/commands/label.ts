import type { Command } from "commander";
import { DrawerError } from "../../content/error.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer label N TEXT`: gives snippets a label, or takes it off. */
export function add(program: Command): void {
  begin(
    program,
    "label <pick> [text]",
    "give a snippet a label; several may share one (drawer label 2..4 Repairs)",
  )
    .option("--remove", "take the label off")
    .action(async (pick: string, text: string | undefined, options: CommonOptions & { remove?: boolean }) => {
      if ((text === undefined) === !options.remove)
        throw new DrawerError(
          "bad-option",
          "Say which label (drawer label 3 'Storm damage'), or take it off with --remove.",
        );
      answer(options, await withDrawer(options.drawer, (drawer) => drawer.label(pick, text ?? "")));
    });
}
