import { notice, type Notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import { drawerNotices } from "../../messages/en/drawer.js";
import { pageNotices } from "../../messages/en/page.js";
import { copyBlock } from "../places/carrying.js";
import type { HostDesktop } from "./host-desktop.js";
import { desktopBlock, type PlaceRequest } from "./placements.js";

/** Copies blocks to the clipboard of the system, by the desktop around the page or, without one, as the browser does. */
export class BlockCopier {
  /** Whether Drawer itself copies now, which is no copy to collect. */
  isCopying = false;

  constructor(
    readonly drawer: () => Drawer,
    readonly desktop: HostDesktop | undefined,
  ) {}

  /**
   * Copies a block in all forms that other programs take. Returns what is told of it.
   * @throws DrawerError `failed` when the browser does not allow it
   */
  async copy(request: PlaceRequest): Promise<readonly Notice[]> {
    const { block, isPrivate } = await desktopBlock(this.drawer(), request);
    const copied = notice(pageNotices, "copied/page", { what: request.what });
    if (this.desktop) return [...block.notices, copied, ...(await this.desktop.copy({ block, isPrivate }))];
    this.isCopying = true;
    try {
      await copyBlock(block);
    } finally {
      this.isCopying = false;
    }
    // A browser declares nothing to be a secret.
    const warning = isPrivate ? [notice(drawerNotices, "placed/not-secret", {})] : [];
    return [...block.notices, copied, ...warning];
  }
}
