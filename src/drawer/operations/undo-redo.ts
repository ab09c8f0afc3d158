import type { Notice } from "../../content/notice.js";
import { undoOrRedo } from "../history.js";
import type { Procedure } from "../transaction.js";

/**
 * Takes back the last operation that still stands, whoever did it, in whichever process.
 * @throws DrawerError `nothing` when there is none, `conflict` when another drawer is in the way
 */
export const undo: Procedure<[], Promise<Notice[]>> = { run: (context) => undoOrRedo(context, "undo") };

/**
 * Does again what was last undone.
 * @throws DrawerError `nothing` when nothing was undone since the last operation, `conflict`
 */
export const redo: Procedure<[], Promise<Notice[]>> = { run: (context) => undoOrRedo(context, "redo") };
