import type { Notice } from "../../content/notice.js";
import type { Edit } from "../model/change.js";
import type { Entry } from "../model/entry.js";
import type { Positioned } from "../store.js";
import type { Plan, Transaction } from "../transaction.js";

/**
 * Plans a change of what the user has said of each snippet of a pick.
 *
 * @param become what an entry becomes
 * @param tell says of the snippets that it is about, which are those that changed, or, when none did, all
 */
export async function alter(
  transaction: Transaction,
  pick: string,
  become: (entry: Entry) => Entry,
  tell: (snippets: readonly Positioned[], isChanged: boolean) => Notice,
): Promise<Plan<Notice[]>> {
  const picked = await transaction.pick(pick);
  const edits: Edit[] = [];
  const changed = picked.filter(({ entry }) => {
    const after = become(entry);
    const isChanged = entry.label !== after.label || entry.kept !== after.kept;
    if (isChanged) edits.push({ id: entry.id, before: entry, after });
    return isChanged;
  });
  const isChanged = changed.length > 0;
  return { edits, result: [tell(isChanged ? changed : picked, isChanged)] };
}
