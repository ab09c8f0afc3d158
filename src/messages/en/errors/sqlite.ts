/** What is refused because of the files that a drawer lies in. */
export const sqliteErrors = {
  /** The drawers cannot be opened. */
  "store/open": ({ path, why }: { path: string; why: string }) =>
    `The drawers in “${path}” cannot be opened: ${why}.`,
  /** A link stands in place of the file. */
  "store/link": ({ path }: { path: string }) =>
    `The drawers in “${path}” were not opened: a link stands there in place of the file. Set DRAWER_HOME to the folder where they are.`,
  /** The drawers were written by a newer Drawer. */
  "store/newer": ({ path, version, known }: { path: string; version: number; known: number }) =>
    `The drawers in “${path}” were written by a newer Drawer (form ${version}; this one knows ${known}). They were left as they are. Update Drawer to open them.`,
  /** The disk cannot be written. */
  "store/read-only": ({ folder }: { folder: string }) =>
    `Nothing was changed: the drawers in “${folder}” can be read but not written.`,
  /** A change could not be written. */
  "store/write": ({ why, reason }: { why: "full" | "busy" | "other"; reason: string }) =>
    `Nothing was changed, and nothing is lost: the drawers could not be written, because ${
      why === "full"
        ? `the disk is full or cannot be written (${reason}). Free some space and try again`
        : why === "busy"
          ? "another program has been writing to them for a long time. Try again when it has ended"
          : reason
    }.`,
  /** The database is damaged, or none of Drawer's. */
  damaged: ({ path, reason }: { path: string; reason: string }) =>
    `“${path}” cannot be opened: it is no database of drawers, or a damaged one (${reason}).`,
};
