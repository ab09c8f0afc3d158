import { startDealer } from "../desktop/jobs/deal.js";
import { databaseFile, windowFile } from "./home-folder.js";

/** What `--to` names that is no file; a file of that name is `./clipboard`. */
export const CLIPBOARD = "clipboard";

/**
 * Deals on the clipboard what is next of a drawer's deal, in the background.
 * @throws DrawerError `no-clipboard`
 */
export function dealToClipboard(drawer: string): Promise<void> {
  return startDealer({ drawer, database: databaseFile(), windowFile: windowFile() });
}
