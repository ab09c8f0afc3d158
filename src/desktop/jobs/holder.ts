import { openDesktop } from "../open.js";
import { tell, workInBackground } from "./background.js";
import type { Held } from "./hold.js";
import { noteWindow } from "./last-window.js";

/**
 * A program of its own that holds a block on the clipboard until another program copies something, and then ends. It is
 * handed the block by the one that starts it, and holds nothing else.
 */
workInBackground<Held>(async ({ offered, windowFile }, begun) => {
  const desktop = await openDesktop();
  const pasted =
    windowFile === undefined
      ? undefined
      : () => void noteWindow(desktop, windowFile).catch((error) => tell(desktop, error));
  const offer = await desktop.offer(offered, pasted);
  begun();
  if (!desktop.keepsOffers) await offer.ended;
  desktop.close();
});
