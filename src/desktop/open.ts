import { DrawerError } from "../content/error.js";
import { desktopErrors } from "../messages/en/desktop.js";
import type { Desktop } from "./desktop.js";
import { holdOnClipboard } from "./jobs/hold.js";

/** The systems whose desktops Drawer reaches. */
export const SYSTEMS = ["x11", "wayland", "macos", "windows"] as const;
/** The name of a system whose desktop Drawer reaches. */
export type System = (typeof SYSTEMS)[number];

/** The system of the desktop that this program runs on; nothing where there is none. X11 is reached on Wayland too. */
export function systemHere(): System | undefined {
  if (process.platform === "darwin") return "macos";
  if (process.platform === "win32") return "windows";
  if (process.env["DISPLAY"]) return "x11";
  return process.env["WAYLAND_DISPLAY"] ? "wayland" : undefined;
}

/**
 * Reaches the desktop that this program runs on.
 *
 * @param system the system, where it is not to be told from what is here
 * @throws DrawerError `no-clipboard` where there is none that Drawer reaches
 */
export async function openDesktop(system = systemHere()): Promise<Desktop> {
  if (system === undefined) throw new DrawerError(desktopErrors, "no-clipboard", {});
  return open[system]();
}

/** What opens each; a system is loaded when it is there. */
const open: Readonly<Record<System, () => Promise<Desktop>>> = {
  x11: async () => (await import("./drivers/x11/index.js")).X11Desktop.open(holdOnClipboard),
  wayland: async () => (await import("./drivers/wayland/index.js")).openWayland(),
  macos: async () => (await import("./drivers/macos/index.js")).openMacos(),
  windows: async () => (await import("./drivers/windows/index.js")).openWindows(),
};
