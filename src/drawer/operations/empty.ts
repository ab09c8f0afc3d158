import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import { removals, type Operation } from "../transaction.js";

/** Takes out all that are not kept. `undo` brings them back. */
export const empty: Operation<[], Notice[]> = {
  name: "empty",
  async plan(transaction) {
    const { store, drawer } = transaction;
    const leaving = await store.entries({ drawer, kept: false });
    const left = (await transaction.size()).count - leaving.length;
    return {
      edits: removals(leaving.map(({ entry }) => entry)),
      result: [notice(actNotices, "emptied", { drawer, count: leaving.length, left })],
    };
  },
};
