import { checkText } from "../../content/check.js";
import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import { cleanLabel } from "../incoming.js";
import type { Operation } from "../transaction.js";
import { alter } from "./alter.js";

/**
 * Gives the snippets of a pick a label, or takes it off with an empty one.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `bad-option`
 */
export const label: Operation<[pick: string, label: string], Notice[]> = {
  name: "label",
  plan(transaction, pick, text) {
    checkText("label", text);
    const words = cleanLabel(text);
    return alter(
      transaction,
      pick,
      ({ label: _, ...entry }) => (words === "" ? entry : { ...entry, label: words }),
      (snippets, isChanged) => notice(actNotices, "labelled", { snippets, isChanged, label: words }),
    );
  },
};
