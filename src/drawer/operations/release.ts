import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import type { Operation } from "../transaction.js";
import { alter } from "./alter.js";

/**
 * Stops keeping the snippets of a pick.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export const release: Operation<[pick: string], Notice[]> = {
  name: "release",
  plan: (transaction, pick) =>
    alter(
      transaction,
      pick,
      (entry) => ({ ...entry, kept: false }),
      (snippets, isChanged) => notice(actNotices, "released", { snippets, isChanged }),
    ),
};
