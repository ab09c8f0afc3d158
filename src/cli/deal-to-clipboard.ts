import { notice, type Notice } from "../content/notice.js";
import { startInBackground } from "../desktop/background.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Dealt } from "../drawer/operations/deal.js";
import { cliNotices } from "../messages/en/notices/cli.js";
import { placingNotices } from "../messages/en/notices/placing.js";

/** What `--to` names that is no file; a file of that name is `./clipboard`. */
export const CLIPBOARD = "clipboard";

/**
 * Starts the program that deals on the clipboard; one that does so already ends by it.
 * @throws DrawerError `no-clipboard`
 */
export function startDealer(drawer: string): Promise<void> {
  return startInBackground("dealer", { drawer });
}

/** Moves a deal on the clipboard by hand, and says what is there now. */
export async function moveOnClipboard(
  drawer: Drawer,
  step: "next" | "back",
): Promise<{ readonly dealt: Dealt | undefined; readonly notices: readonly Notice[] }> {
  await (step === "next" ? drawer.dealSkip() : drawer.dealReturn());
  await startDealer(drawer.name);
  return onClipboard(drawer);
}

/** What a deal has put on the clipboard, and says of it. */
export async function onClipboard(
  drawer: Drawer,
): Promise<{ readonly dealt: Dealt | undefined; readonly notices: readonly Notice[] }> {
  const dealt = await drawer.dealPeek();
  if (!dealt) return { dealt, notices: [notice(cliNotices, "done", {})] };
  const { number, of, snippet } = dealt;
  return {
    dealt,
    notices: [
      ...dealt.notices,
      notice(placingNotices, "dealing/offered", { number, of, snippet: snippet.entry }),
    ],
  };
}
