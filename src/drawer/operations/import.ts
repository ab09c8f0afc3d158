import { checkOptions, checkValue } from "../../content/check.js";
import type { Notice } from "../../content/notice.js";
import type { FileLines, ImportOptions } from "../drawer-file.js";
import type { Procedure } from "../transaction.js";

/**
 * Brings the snippets of a drawer file into a drawer, at its end: all of them, or, if one line is refused, none. Those
 * that are there already, collected at the same time with the same content, are left out and counted. The file is
 * checked whole before anything is written; then it is written in short parts, so that others need not wait. An import
 * that is cut off is taken back when next what is due is done.
 *
 * @param open opens the lines of the file; it is read twice
 * @throws DrawerError `bad-file` for a file that is none, is cut short, or of a newer version, and for a line that is no
 *   snippet; `full` when the drawer's rules do not let so many in; `conflict` when another import is under way
 */
export const importFile: Procedure<[open: () => FileLines, options?: ImportOptions], Promise<Notice[]>> = {
  async run(context, open, options = {}) {
    checkValue("open", open, typeof open === "function", "a function");
    checkOptions("option of an import", options, ["name", "progress"]);
    // Whoever imports nothing loads nothing of it.
    const { importInto } = await import("../file-import.js");
    return importInto(context, open, options);
  },
};
