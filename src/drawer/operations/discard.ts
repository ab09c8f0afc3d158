import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import { removals, type Operation } from "../transaction.js";

/**
 * Takes the snippets of a pick out. `undo` brings them back.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export const discard: Operation<[pick: string], Notice[]> = {
  name: "discard",
  async plan(transaction, pick) {
    const snippets = await transaction.pick(pick);
    const left = (await transaction.size()).count - snippets.length;
    return {
      edits: removals(snippets.map(({ entry }) => entry)),
      result: [notice(actNotices, "discarded", { snippets, left })],
    };
  },
};
