/** What is refused because the store is somewhere else. */
export const remoteErrors = {
  /** The drawers are elsewhere, and cannot be reached there. */
  "store/away": ({ reason }: { reason: string }) =>
    `Nothing was changed: the drawers cannot be reached (${reason}). Open the window again with “drawer open”.`,
};
