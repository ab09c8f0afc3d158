import { startInBackground } from "./background.js";

/** What the program that deals on the clipboard is handed. */
export interface DealWork {
  /** The name of the drawer. */
  readonly drawer: string;
  /** The file of the store. */
  readonly database: string;
  /** The file in which the window is noted that is pasted in. */
  readonly windowFile: string;
}

/**
 * Starts the program that deals on the clipboard, in the background; one that does so already ends by it.
 * @throws DrawerError `no-clipboard`
 */
export function startDealer(work: DealWork): Promise<void> {
  return startInBackground("dealer", work);
}
