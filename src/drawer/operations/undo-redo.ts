import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import { latestActions } from "../action-log.js";
import { logOf, undoOrRedo } from "../history.js";
import type { Procedure } from "../transaction.js";

/**
 * Takes back the last operation that still stands, whoever did it, in whichever process.
 * @throws DrawerError `nothing` when there is none, `conflict` when another drawer is in the way
 */
export const undo: Procedure<[], Promise<Notice[]>> = { run: (context) => undoOrRedo(context, "undo") };

/**
 * Takes back an act and all that was done after it, the latest first, as so many undos. Nothing is done when it does not stand
 * any more.
 *
 * @param id the act, as `actions` tells it
 * @throws DrawerError `conflict` when another drawer is in the way; what came after that is taken back then
 */
export const undoTo: Procedure<[id: string], Promise<Notice[]>> = {
  async run(context, id) {
    const acts = await latestActions(logOf(context.store, context.drawer), Infinity);
    const standing = acts.filter(({ stands }) => stands);
    const count = standing.findIndex((act) => act.id === id) + 1;
    let notices: Notice[] = [];
    for (let done = 0; done < count; done++) notices = await undoOrRedo(context, "undo");
    return count > 1 ? [notice(actNotices, "undone/several", { count })] : notices;
  },
};

/**
 * Does again what was last undone.
 * @throws DrawerError `nothing` when nothing was undone since the last operation, `conflict`
 */
export const redo: Procedure<[], Promise<Notice[]>> = { run: (context) => undoOrRedo(context, "redo") };
