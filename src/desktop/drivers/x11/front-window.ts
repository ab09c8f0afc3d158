import { defined } from "../../../content/defined.js";
import type { DesktopWindow } from "../../desktop.js";
import type { X11Display } from "./display.js";

/** Programs in which Ctrl-C ends what runs, and a line that is pasted runs. */
const TERMINALS = /term|konsole|kitty|alacritty|^foot$|^st-/i;

/** What stands on a desktop without being a window that one writes in (EWMH). */
const FURNITURE = ["_NET_WM_WINDOW_TYPE_DESKTOP", "_NET_WM_WINDOW_TYPE_DOCK"];

/** The window that the user works in (EWMH); nothing when there is none, or the display does not say. */
export async function frontWindow(display: X11Display): Promise<DesktopWindow | undefined> {
  const id = await activeWindow(display);
  return id === 0 ? undefined : describeWindow(display, await ownerOf(display, id));
}

/** The window that has the keyboard, a dialog by itself (EWMH); 0 when there is none, or it is a part of the desktop. */
export async function activeWindow(display: X11Display): Promise<number> {
  const active = await display.property(display.root, await display.atom("_NET_ACTIVE_WINDOW"));
  const id = active && active.data.length >= 4 ? active.data.readUInt32LE(0) : 0;
  if (id === 0) return 0;
  const types = (await display.property(id, await display.atom("_NET_WM_WINDOW_TYPE")))?.data;
  const type = types && types.length >= 4 ? await display.atomName(types.readUInt32LE(0)) : "";
  return FURNITURE.includes(type) ? 0 : id;
}

/** The window that a dialog belongs to (ICCCM 4.1.2.6); a window that is none belongs to itself. */
async function ownerOf(display: X11Display, id: number): Promise<number> {
  const told = await display.property(id, await display.atom("WM_TRANSIENT_FOR"));
  const owner = told && told.data.length >= 4 ? told.data.readUInt32LE(0) : 0;
  return owner === 0 || owner === display.root || owner === id ? id : ownerOf(display, owner);
}

/** A window with its program, its title and its process (EWMH; ICCCM 4.1.2.5), as far as they are known. */
export async function describeWindow(display: X11Display, id: number): Promise<DesktopWindow> {
  const read = async (name: string) => (await display.property(id, await display.atom(name)))?.data;
  const title = (await read("_NET_WM_NAME"))?.toString("utf8") ?? (await read("WM_NAME"))?.toString("latin1");
  // Two names, each ended by a zero: of the instance, and of the program.
  const app = (await read("WM_CLASS"))?.toString("latin1").split("\0")[1];
  const pid = await read("_NET_WM_PID");
  return {
    id,
    ...defined({
      app: app || undefined,
      title: title?.replace(/\0+$/, "") || undefined,
      process: pid && pid.length >= 4 ? pid.readUInt32LE(0) : undefined,
    }),
    ...(TERMINALS.test(app ?? "") && { isTerminal: true }),
  };
}
