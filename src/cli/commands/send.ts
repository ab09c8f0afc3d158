import type { Command } from "commander";
import { openDesktop } from "../../desktop/open.js";
import { incomingOf } from "../../desktop/to-incoming.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { sendSelection } from "../desktop-actions.js";
import { withDrawer } from "../home.js";

/** `drawer send`: collects what is selected in the window in front, and pastes it where the last block went. */
export function add(program: Command): void {
  begin(program, "send").action(async (options: CommonOptions) => {
    const desktop = await openDesktop();
    try {
      const notices = await withDrawer(options.drawer, (drawer) =>
        sendSelection({
          ...{ drawer, desktop },
          collect: async (copied) => drawer.collect([await incomingOf(copied)]),
        }),
      );
      answer(options, notices);
    } finally {
      desktop.close();
    }
  });
}
