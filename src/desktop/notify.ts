import { DrawerError } from "../content/error.js";
import { desktopErrors } from "../messages/en/desktop.js";

/** How long the desktop may take to show a sentence, in milliseconds. */
const PATIENCE = 2000;
/** What stands above each sentence, and what the notifications are told is speaking. */
const NAME = "Drawer";

/** The number of the last sentence that was shown: the next takes its place, so that twenty copies are not twenty windows. */
let last = 0;

/**
 * Shows a sentence by the notifications of a freedesktop.org desktop (Desktop Notifications Specification 1.2, over D-Bus).
 * @throws DrawerError `no-notifications` where there are none
 */
export async function notify(text: string): Promise<void> {
  const { default: dbus } = await import("dbus-native");
  try {
    const bus = dbus.sessionBus({ timeout: PATIENCE });
    try {
      const failed = new Promise<never>((_, reject) => bus.connection.on("error", reject));
      // Its text may hold marks, as in HTML (section 5).
      const body = text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");
      const asked = bus.invoke<number>({
        destination: "org.freedesktop.Notifications",
        path: "/org/freedesktop/Notifications",
        interface: "org.freedesktop.Notifications",
        member: "Notify",
        signature: "susssasa{sv}i",
        body: [NAME, last, "", NAME, body, [], [], -1],
      });
      last = await Promise.race([asked, failed]);
    } finally {
      bus.connection.end();
    }
  } catch (error) {
    throw new DrawerError(desktopErrors, "no-notifications", {}, { cause: error });
  }
}
