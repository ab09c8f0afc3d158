import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import type { Operation } from "../transaction.js";
import { alter } from "./alter.js";

/**
 * Keeps the snippets of a pick: limits, age and emptying leave them alone.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export const keep: Operation<[pick: string], Notice[]> = {
  name: "keep",
  plan: (transaction, pick) =>
    alter(
      transaction,
      pick,
      (entry) => ({ ...entry, kept: true }),
      (snippets, isChanged) => notice(actNotices, "kept", { snippets, isChanged }),
    ),
};
