import { notice } from "../../content/notice.js";
import { Drawer } from "../../drawer/drawer.js";
import { actNotices } from "../../messages/en/acts.js";
import { openSqlite } from "../../stores/sqlite/index.js";
import { openDesktop } from "../open.js";
import { tell, workInBackground } from "./background.js";
import type { DealWork } from "./deal.js";
import { dealOnClipboard } from "./dealing.js";
import { noteWindow } from "./last-window.js";

/**
 * A program of its own that deals a drawer's deal on the clipboard, until all has been handed out or another program copies
 * something, and then ends.
 */
workInBackground<DealWork>(async ({ drawer: name, database, windowFile }, begun) => {
  const desktop = await openDesktop();
  const store = openSqlite(database, { recover: true });
  try {
    let isBegun = false;
    const offered = () => {
      if (!isBegun) begun();
      isBegun = true;
    };
    const pasted = () => void noteWindow(desktop, windowFile).catch((error) => tell(desktop, error));
    const isDone = await dealOnClipboard(new Drawer(store, name), desktop, { offered, pasted });
    if (isDone && desktop.tellsPastes)
      await desktop.notify(notice(actNotices, "done", {}).message).catch(() => undefined);
  } catch (error) {
    await tell(desktop, error);
    throw error;
  } finally {
    await store.close();
    desktop.close();
  }
});
