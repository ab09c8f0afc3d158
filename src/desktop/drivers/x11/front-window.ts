import { defined } from "../../../content/defined.js";
import type { DesktopWindow } from "../../desktop.js";
import type { X11Display } from "./display.js";

/** The window that the user works in (EWMH); nothing when there is none, or the display does not say. */
export async function frontWindow(display: X11Display): Promise<DesktopWindow | undefined> {
  const active = await display.property(display.root, await display.atom("_NET_ACTIVE_WINDOW"));
  const id = active && active.data.length >= 4 ? active.data.readUInt32LE(0) : 0;
  return id === 0 ? undefined : describeWindow(display, await ownerOf(display, id));
}

/** The window that a dialog belongs to (ICCCM 4.1.2.6); a window that is none belongs to itself. */
async function ownerOf(display: X11Display, id: number): Promise<number> {
  const told = await display.property(id, await display.atom("WM_TRANSIENT_FOR"));
  const owner = told && told.data.length >= 4 ? told.data.readUInt32LE(0) : 0;
  return owner === 0 || owner === display.root || owner === id ? id : ownerOf(display, owner);
}

/** A window with its program and its title (EWMH; ICCCM 4.1.2.5), as far as they are known. */
export async function describeWindow(display: X11Display, id: number): Promise<DesktopWindow> {
  const read = async (name: string) => (await display.property(id, await display.atom(name)))?.data;
  const title = (await read("_NET_WM_NAME"))?.toString("utf8") ?? (await read("WM_NAME"))?.toString("latin1");
  // Two names, each ended by a zero: of the instance, and of the program.
  const app = (await read("WM_CLASS"))?.toString("latin1").split("\0")[1];
  return { id, ...defined({ app: app || undefined, title: title?.replace(/\0+$/, "") || undefined }) };
}
