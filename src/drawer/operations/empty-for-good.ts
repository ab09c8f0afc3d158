import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import type { Procedure } from "../transaction.js";

/** Forgets all that is not kept, all that has left, and the log, and wipes out what the store has of them. */
export const emptyForGood: Procedure<[], Promise<Notice[]>> = {
  async run({ store, drawer }) {
    const { forgotten: count, trace } = await store.forget({ drawer, everything: true });
    const { count: left } = await store.size(drawer);
    return [notice(actNotices, "forgotten/all", { drawer, count, left }), ...(trace ? [trace] : [])];
  },
};
