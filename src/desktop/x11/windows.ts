import { defined } from "../../content/defined.js";
import type { Origin } from "../../content/origin.js";
import type { X11Display } from "./display.js";

/** The program whose window is in front, and that window's title (EWMH; ICCCM 4.1.2.5); what is not known is left out. */
export async function frontWindow(display: X11Display): Promise<Pick<Origin, "app" | "title">> {
  const active = await display.property(display.root, await display.atom("_NET_ACTIVE_WINDOW"));
  const window = active && active.data.length >= 4 ? active.data.readUInt32LE(0) : 0;
  if (window === 0) return {};
  const read = async (name: string) => (await display.property(window, await display.atom(name)))?.data;
  const title = (await read("_NET_WM_NAME"))?.toString("utf8") ?? (await read("WM_NAME"))?.toString("latin1");
  // Two names, each ended by a zero: of the instance, and of the program.
  const app = (await read("WM_CLASS"))?.toString("latin1").split("\0")[1];
  return defined({ app: app || undefined, title: title?.replace(/\0+$/, "") || undefined });
}
