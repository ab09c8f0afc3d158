import type { Command } from "commander";
import { NeverFrom } from "../../desktop/never-from.js";
import { openDesktop } from "../../desktop/open.js";
import { incomingOf } from "../../desktop/to-incoming.js";
import { act } from "../act.js";
import { type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { sendSelection } from "../desktop-actions.js";

/** `drawer send`: collects what is selected in the window in front, and pastes it where the last block went. */
export function add(program: Command): void {
  begin(program, "send").action(async (options: CommonOptions) => {
    const desktop = await openDesktop();
    try {
      await act(options, (drawer) =>
        sendSelection({
          ...{ drawer, desktop },
          collect: async (copied) => {
            const refused = await new NeverFrom().refusal(drawer, copied);
            return refused ? { collected: [], notices: refused } : drawer.collect([await incomingOf(copied)]);
          },
        }),
      );
    } finally {
      desktop.close();
    }
  });
}
