import { compose } from "../compose/compose.js";
import { DrawerError } from "../content/error.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Desktop } from "./desktop.js";
import { offeredBlock } from "./offered-block.js";

/** What the clipboard was taken for, before the snippet on it was pasted. */
class Replaced extends Error {}

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
    try {
      await drawer.dealNext(async ({ snippet }) => {
        const block = offeredBlock(compose([snippet], {}), snippet.entry.private);
        let pasted: (() => void) | undefined;
        const isPasted = new Promise<void>((settle) => (pasted = settle));
        const { ended } = await desktop.offer(block, pasted);
        hooks.offered?.();
        const isReplaced = desktop.tellsPastes ? ended : Promise.resolve();
        await Promise.race([
          isPasted,
          isReplaced.then(() => {
            throw new Replaced();
          }),
        ]);
      });
      hooks.pasted?.();
    } catch (error) {
      if (error instanceof Replaced) return false;
      // Somebody else has gone on with the deal: what is next now follows.
      if (!(error instanceof DrawerError) || error.reason !== "conflict/deal") throw error;
    }
  }
}
