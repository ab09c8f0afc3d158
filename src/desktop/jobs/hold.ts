import type { Offered } from "../desktop.js";
import { startInBackground } from "./background.js";

/** What the program that holds a block is handed. */
export interface Held {
  readonly offered: Offered;
  /** The file in which it notes the window that the block is pasted in. */
  readonly windowFile?: string;
}

/**
 * Puts something on the clipboard and leaves it there when this program ends: another one, in the background, holds it
 * until a program copies something else.
 *
 * @param windowFile a file in which the window that it is pasted in is noted
 * @throws DrawerError `no-clipboard` when it cannot be offered
 */
export async function holdOnClipboard(offered: Offered, windowFile?: string): Promise<void> {
  await startInBackground("holder", {
    offered,
    ...(windowFile !== undefined && { windowFile }),
  } satisfies Held);
}
