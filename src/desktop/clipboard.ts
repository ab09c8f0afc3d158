import type { Copied } from "./desktop.js";
import { openDesktop } from "./open.js";

/**
 * Reads what the system clipboard of this desktop offers, in all flavours that Drawer knows, and where it was copied as
 * far as the desktop says.
 *
 * @throws DrawerError `no-clipboard` where there is no desktop that Drawer reaches, or the clipboard is empty
 */
export async function readClipboard(): Promise<Copied> {
  const desktop = await openDesktop();
  try {
    return await desktop.read();
  } finally {
    desktop.close();
  }
}
