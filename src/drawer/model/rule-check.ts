import { checkValue } from "../../content/check.js";
import { DrawerError } from "../../content/error.js";
import { actErrors } from "../../messages/en/acts.js";
import { isValueOf, RULE_FORMS, RULE_NAMES, type Rules } from "./rules.js";

/**
 * Checks rules that a program gives.
 * @throws DrawerError `bad-option` for one that there is not, and for a value that it cannot have
 */
export function checkRules(changes: Partial<Rules>): void {
  const isObject = typeof changes === "object" && changes !== null && !Array.isArray(changes);
  checkValue("rules", changes, isObject, "an object");
  for (const [name, value] of Object.entries(changes)) {
    if (!Object.hasOwn(RULE_FORMS, name))
      throw new DrawerError(actErrors, "bad-option/rule", { name, names: RULE_NAMES });
    const form = RULE_FORMS[name as keyof Rules];
    if (!isValueOf(form, value))
      throw new DrawerError(actErrors, "bad-option/rule-value", {
        name,
        value: String(value),
        form,
        isTyped: false,
      });
  }
}
