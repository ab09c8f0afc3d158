import { notice, type Notice } from "../../content/notice.js";
import { drawerNotices } from "../../messages/en/drawer.js";
import type { Operation } from "../transaction.js";
import { setPrivate } from "./set-private.js";

/**
 * Makes the snippets of a pick private: shown nowhere, not found, not exported, and gone after their time.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export const hide: Operation<[pick: string], Notice[]> = {
  name: "hide",
  async plan(transaction, pick) {
    const { privateAge: age } = await transaction.rules();
    const { result: positions, ...planned } = await setPrivate(transaction, pick, true);
    return { ...planned, result: [notice(drawerNotices, "hidden", { positions, age })] };
  },
};
