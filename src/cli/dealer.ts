import { notice } from "../content/notice.js";
import { workInBackground } from "../desktop/background.js";
import { dealOnClipboard } from "../desktop/deal.js";
import { openDesktop } from "../desktop/desktop.js";
import { noteWindow } from "../desktop/last-window.js";
import { windowFile } from "./home-folder.js";
import { withDrawer } from "./home.js";
import { cliNotices } from "../messages/en/notices/cli.js";

/**
 * A program of its own that deals a drawer's deal on the clipboard, until all has been handed out or another program copies
 * something, and then ends.
 */
workInBackground<{ readonly drawer: string }>(async ({ drawer: name }, begun) => {
  const desktop = await openDesktop();
  try {
    await withDrawer(name, async (drawer) => {
      let isBegun = false;
      const offered = () => {
        if (!isBegun) begun();
        isBegun = true;
      };
      const pasted = () => void noteWindow(desktop, windowFile());
      const isDone = await dealOnClipboard(drawer, desktop, { offered, pasted });
      if (isDone && desktop.tellsPastes)
        await desktop.notify(notice(cliNotices, "done", {}).message).catch(() => undefined);
    });
  } finally {
    desktop.close();
  }
});
