import { DrawerError } from "../../content/error.js";
import type { Notice } from "../../content/notice.js";
import { notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import { drawerNotices } from "../../messages/en/drawer.js";
import { pageErrors } from "../../messages/en/page.js";
import type { DesktopBlock, HostDesktop } from "../../page/binding/host-desktop.js";
import { composed } from "../../page/binding/lazy.js";
import { copyBlock } from "../../page/places/carrying.js";

/** A telephone around the page: what one touches goes onto its clipboard, and no program lets a page write at its caret. */
export class PhoneDesktop implements HostDesktop {
  readonly target = undefined;
  readonly reachesCarets = false;

  /** @param drawer the drawer of a name */
  constructor(readonly drawer: (name: string) => Drawer) {}

  placeAtCaret(): Promise<never> {
    return Promise.reject(new DrawerError(pageErrors, "not-placed/elsewhere", {}));
  }

  takeBack(): Promise<never> {
    return Promise.reject(new DrawerError(pageErrors, "nothing/placed", {}));
  }

  async copy({ block, isPrivate }: DesktopBlock): Promise<readonly Notice[]> {
    await copyBlock(block);
    // A browser declares nothing to be a secret.
    return isPrivate ? [notice(drawerNotices, "placed/not-secret", {})] : [];
  }

  /** Copies what is next; after it was pasted the user asks for the one after. */
  async deal(name: string): Promise<{ readonly tellsPastes: boolean }> {
    const next = await this.drawer(name).dealPeek();
    if (next) await copyBlock(await composed([next.snippet], { ...next.recipe, fit: "page" }));
    return { tellsPastes: false };
  }

  /** What was copied stays on the clipboard. */
  async endDeal(): Promise<void> {
    await Promise.resolve();
  }

  /** Nothing else collects here. */
  async collectInto(): Promise<void> {
    await Promise.resolve();
  }
}
