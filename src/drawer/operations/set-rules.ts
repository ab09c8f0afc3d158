import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import { makeRoom } from "../limits.js";
import { checkRules } from "../model/rule-check.js";
import { encodeRules, RULE_NAMES, type Rules } from "../model/rules.js";
import { VALUES } from "../model/values.js";
import { valueEdits, type Operation } from "../transaction.js";

/**
 * Changes rules, and says of each what it is now. What no longer has room goes, and a notice names it; undo takes all
 * of it back.
 * @throws DrawerError `bad-option`, `full` when nothing that may go would make room enough
 */
export const setRules: Operation<[changes: Partial<Rules>], Notice[]> = {
  name: "rule",
  async plan(transaction, changes) {
    checkRules(changes);
    const before = await transaction.rules();
    const after = { ...before, ...changes };
    const size = await transaction.size();
    const room = await makeRoom(transaction.store, after, size, { count: 0, bytes: 0 });
    const names = RULE_NAMES.filter((name) => name in changes);
    const told = names.map((rule) => {
      const isPause = rule === "collecting" && names.length === 1 && before.collecting !== after.collecting;
      if (isPause) return notice(actNotices, after.collecting ? "resumed" : "paused", {});
      return notice(actNotices, "rule", { rule, value: after[rule], was: before[rule] });
    });
    return {
      edits: room.leaving,
      values: valueEdits(VALUES.rules, encodeRules(before), encodeRules(after)),
      result: [...told, ...(room.leaving.length > 0 ? room.notices : [])],
    };
  },
};
