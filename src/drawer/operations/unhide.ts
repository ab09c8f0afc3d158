import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import type { Operation } from "../transaction.js";
import { setPrivate } from "./set-private.js";

/**
 * Takes the privacy off the snippets of a pick.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export const unhide: Operation<[pick: string], Notice[]> = {
  name: "unhide",
  async plan(transaction, pick) {
    const { result: positions, ...planned } = await setPrivate(transaction, pick, false);
    return { ...planned, result: [notice(actNotices, "unhidden", { positions })] };
  },
};
