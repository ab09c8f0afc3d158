import { compose } from "../../compose/compose.js";
import { DrawerError } from "../../content/error.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Desktop } from "../desktop.js";
import { offeredBlock } from "../offered-block.js";

/**
 * Deals on the clipboard of a desktop: the next snippet of the drawer's deal is offered, and each paste brings the one
 * after it, until all have been handed out or another program copies something. Where the desktop does not tell of
 * pastes, the next is offered, and that is all.
 *
 * @param hooks `offered` is called each time when a snippet is on the clipboard; `pasted` when it was pasted
 * @returns whether all have been handed out
 * @throws DrawerError `nothing` when no deal has been begun, `no-clipboard`
 */
export async function dealOnClipboard(
  drawer: Drawer,
  desktop: Desktop,
  hooks: { offered?: () => void; pasted?: () => void } = {},
): Promise<boolean> {
  for (;;) {
    const next = await drawer.dealPeek();
    if (!next) {
      // Nothing is left to be pasted by mistake.
      await desktop.offer(new Map());
      hooks.offered?.();
      await drawer.dealNext();
      return true;
    }
    const { snippet, number, recipe } = next;
    const block = offeredBlock(compose([snippet], recipe), snippet.entry.private);
    let pasted: (() => void) | undefined;
    const isPasted = new Promise<true>((settle) => (pasted = () => settle(true)));
    const { ended } = await desktop.offer(block, pasted);
    hooks.offered?.();
    if (!desktop.tellsPastes) return false;
    // It has been handed out when it is pasted, and not when another program takes the clipboard before.
    if (!(await Promise.race([isPasted, ended.then(() => false)]))) return false;
    try {
      await drawer.dealSkip(number);
    } catch (error) {
      // Somebody else has gone on with the deal: what is next now follows.
      if (!(error instanceof DrawerError) || error.reason !== "conflict/deal") throw error;
    }
    hooks.pasted?.();
  }
}
