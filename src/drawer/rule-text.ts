import { DrawerError } from "../content/error.js";
import { typedName } from "../messages/core/names.js";
import { DAY, GIGABYTE, HOUR, KILOBYTE, MEGABYTE, MINUTE, SECOND } from "../messages/core/units.js";
import { ruleValue, actErrors } from "../messages/en/acts.js";
import { rules as words } from "../messages/en/rules.js";
import {
  DEFAULT_RULES,
  RULE_CHOICES,
  RULE_FORMS,
  RULE_NAMES,
  type RuleForm,
  type Rules,
} from "./model/rules.js";

/** A rule in words. */
export interface RuleText {
  readonly key: keyof Rules;
  /** Its name where it is typed. */
  readonly name: string;
  readonly value: string;
  /** What it is when nobody has said otherwise. */
  readonly usual: string;
  readonly about: string;
  /** What it means, as a sentence. */
  readonly sentence: string;
}

/**
 * All rules in words, in their order.
 * @param rules all rules of a drawer
 */
export function describeRules(rules: Rules): RuleText[] {
  return RULE_NAMES.map((key) => ({
    key,
    name: typedName(key),
    value: ruleValue(key, rules[key]),
    usual: ruleValue(key, DEFAULT_RULES[key]),
    about: words[key].about,
    sentence: `${(words[key].means as (value: unknown) => string)(rules[key])}.`,
  }));
}

/** The units that may be typed, and how many of the smallest each is. */
const UNITS: Readonly<Partial<Record<RuleForm, readonly (readonly [RegExp, number])[]>>> = {
  time: [
    [/^d(ays?)?$/, DAY],
    [/^h(ours?)?$/, HOUR],
    [/^m(in(utes?)?)?$/, MINUTE],
    [/^s(ec(onds?)?)?$/, SECOND],
  ],
  bytes: [
    [/^gb?$/, GIGABYTE],
    [/^mb?$/, MEGABYTE],
    [/^kb?$/, KILOBYTE],
    [/^b(ytes?)?$/, 1],
  ],
  count: [[/^$/, 1]],
};

/**
 * Reads a rule as it is typed: `snippets=500`, `text-age=2 weeks`.
 * @param typed as on the command line: `text-age=30d`
 * @throws DrawerError `bad-option` for a name or a value that is none
 */
export function parseRule(typed: string): Partial<Rules> {
  const [, name = typed, text] = /^([^=]*)=(.*)$/s.exec(typed) ?? [];
  const rule = RULE_NAMES.find((each) => typedName(each) === name.trim());
  if (!rule)
    throw new DrawerError(actErrors, "bad-option/rule", {
      name: name.trim(),
      names: RULE_NAMES.map(typedName),
    });
  const form = RULE_FORMS[rule];
  if (text === undefined) throw new DrawerError(actErrors, "bad-option/rule-without-value", { name, form });
  const value = form === "names" ? parseNames(text) : parseValue(rule, text.trim().toLowerCase());
  if (value === undefined)
    throw new DrawerError(actErrors, "bad-option/rule-value", {
      name,
      value: text.trim(),
      form,
      isTyped: true,
    });
  return { [rule]: value };
}

/** Names as they are kept: parted by a comma and a space; none for `none`. */
function parseNames(text: string): string {
  const names = text.split(",").map((name) => name.trim());
  return /^(none|nobody)?$/i.test(text.trim()) ? "" : names.filter((name) => name !== "").join(", ");
}

/** Reads a time as it is typed, such as `2m` or `3 h`: milliseconds, `null` for `never`; nothing for what is none. */
export function parseDuration(typed: string): number | null | undefined {
  return parseValue("privateAge", typed.trim().toLowerCase()) as number | null | undefined;
}

function parseValue(rule: keyof Rules, text: string): Rules[keyof Rules] | undefined {
  const form = RULE_FORMS[rule];
  const choices = RULE_CHOICES[form];
  if (choices) return choices.find((value) => ruleValue(rule, value) === text);
  if (/^(never|none|any|unlimited)$/.test(text)) return null;
  const [, digits, unit] = /^([\d.,]+)\s*([a-z]*)$/.exec(text) ?? [];
  const [, size] = UNITS[form]!.find(([pattern]) => pattern.test(unit ?? "?")) ?? [];
  const value = size === undefined || digits === undefined ? NaN : (parseNumber(digits) ?? NaN) * size;
  return value > 0 && Number.isFinite(value) ? Math.round(value) : undefined;
}

/**
 * The number that is written so; undefined when it is none.
 * @throws DrawerError `bad-option` when it can be read in two ways, as `1.000` can
 */
function parseNumber(digits: string): number | undefined {
  if (/^\d{1,3}[.,]\d{3}$/.test(digits)) {
    const readings = [digits.replace(/[.,]\d{3}$/, ""), digits.replace(/[.,]/, "")] as const;
    throw new DrawerError(actErrors, "bad-option/ambiguous", { digits, readings });
  }
  const isGrouped = /^\d{1,3}(?:,\d{3}){2,}$|^\d{1,3}(?:\.\d{3}){2,}$/.test(digits);
  const plain = isGrouped ? digits.replace(/[.,]/g, "") : digits;
  return /^\d{1,12}(?:[.,]\d+)?$/.test(plain) ? Number(plain.replace(",", ".")) : undefined;
}
