import type { ClipboardEvent, Copied, Desktop, Offer, Offered } from "../../desktop.js";
import { notify } from "../../notify.js";
import { X11Clipboard } from "./clipboard.js";
import { X11Display } from "./display.js";
import { X11Windows } from "./windows.js";

/** The desktop of an X11 display (Wayland desktops have one too, as XWayland), spoken to directly. */
export class X11Desktop implements Desktop {
  readonly keepsOffers = false;
  readonly tellsPastes = true;
  readonly declaresSecrets = true;

  private constructor(
    readonly clipboard: X11Clipboard,
    readonly windows: X11Windows,
  ) {}

  /**
   * @param hold leaves something on the clipboard, also when this program has ended
   * @throws DrawerError `no-clipboard` when the display lets nobody in
   */
  static async open(hold: (offered: Offered) => Promise<void>): Promise<X11Desktop> {
    const clipboard = await X11Clipboard.of(await X11Display.open());
    return new X11Desktop(clipboard, new X11Windows(clipboard, hold));
  }

  read(): Promise<Copied> {
    return this.clipboard.read();
  }

  watch(listener: (event: ClipboardEvent) => void): Promise<() => void> {
    return this.clipboard.watch(listener);
  }

  offer(offered: Offered, pasted?: () => void): Promise<Offer> {
    return this.clipboard.offer(offered, pasted);
  }

  notify(text: string): Promise<void> {
    return notify(text);
  }

  close(): void {
    this.clipboard.display.close();
  }
}
