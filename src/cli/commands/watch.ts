import type { Command } from "commander";
import { openDesktop } from "../../desktop/open.js";
import { commands } from "../../messages/en/cli-help.js";
import type { RowStore } from "../../stores/row-store.js";
import { begin } from "../command.js";
import { followDevices } from "../follow-devices.js";
import { withDrawer } from "../home.js";
import { remark } from "../terminal.js";
import { claimWatch } from "../watch-claim.js";
import { WatchSession, type WatchOptions } from "../watch-session.js";

/** `drawer watch`: collects each copy that is made on the desktop, until it is ended. */
export function add(program: Command): void {
  const says = commands.watch;
  begin(program, "watch")
    .option("--append", says.append)
    .option("--between <text>", says.between)
    .option("--notify", says.notify)
    .action(async (options: WatchOptions) => {
      const desktop = await openDesktop();
      try {
        await withDrawer(options.drawer, async (drawer) => {
          const giveUp = await claimWatch(drawer.name);
          const tell = (sentence: string) => remark(`${sentence}\n`);
          const followed = followDevices(drawer.store as RowStore, tell);
          await new WatchSession(drawer, desktop, options).run().finally(async () => {
            giveUp();
            await followed.end();
          });
        });
      } finally {
        desktop.close();
      }
    });
}
