/** What is refused because of what a browser keeps. */
export const indexeddbErrors = {
  /** The browser does not let the drawers be opened. */
  "store/browser": ({ reason }: { reason: string }) =>
    `This browser does not let the drawers be opened (${reason}). Private windows often refuse it.`,
  /** The drawers in this browser were written by a newer page. */
  "store/browser-newer": () =>
    "The drawers in this browser were written by a newer Drawer, and were left as they are. Load this page again to get it.",
  /** The browser has no more room. */
  "store/browser-full": () =>
    "Nothing was changed, and nothing is lost: this browser has no more room for drawers. Discard some snippets, or free space on the disk.",
  /** The browser could not write a change. */
  "store/browser-write": ({ reason }: { reason: string }) =>
    `Nothing was changed: the drawers could not be written (${reason}).`,
};
