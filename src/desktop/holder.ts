import { DrawerError } from "../content/error.js";
import { openDesktop, type Offered } from "./desktop.js";

/**
 * A program of its own that holds a block on the clipboard until another program copies something, and then ends. It is
 * handed the block by the one that starts it, and holds nothing else.
 */

/** What it says to the one that started it: that the block is offered, or why not. */
export type Answer = { readonly isOffered: true } | { readonly isOffered: false; readonly why: string };

process.once("message", (offered: Offered) => {
  hold(offered).catch((error: unknown) => {
    const why = error instanceof DrawerError ? error.message : String(error);
    process.send!({ isOffered: false, why } satisfies Answer, () => process.exit(1));
  });
});

async function hold(offered: Offered): Promise<void> {
  const desktop = await openDesktop();
  const offer = await desktop.offer(offered);
  process.send!({ isOffered: true } satisfies Answer, () => process.disconnect());
  await offer.ended;
  desktop.close();
}
