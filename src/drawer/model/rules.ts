import { DAY, MEGABYTE, MINUTE } from "../../messages/core/units.js";
import { readValue } from "./values.js";

/** A drawer's settings. Times are in milliseconds, sizes in bytes; nothing (`null`) is no limit. */
export interface Rules {
  /** Whether anything is collected. */
  readonly collecting: boolean;
  /** What happens to a piece that holds nothing. */
  readonly blanks: "skip" | "allow";
  /** What happens to a piece that is the same as the latest: with `move`, one that is there anywhere becomes the latest. */
  readonly repeats: "skip" | "allow" | "move";
  /** How many snippets there are at most. */
  readonly snippets: number | null;
  /** How many bytes their contents have at most. */
  readonly size: number | null;
  /** How long text, tables and links stay. */
  readonly textAge: number | null;
  /** How long pictures stay. */
  readonly pictureAge: number | null;
  /** Whether what looks like a secret is made private. */
  readonly detect: boolean;
  /** How long private snippets stay. */
  readonly privateAge: number | null;
  /** How long what left can be brought back, and how far back the log goes. */
  readonly goneAge: number | null;
  /** Programs and windows from which nothing is collected on a desktop: words of their names or titles, parted by commas. */
  readonly neverFrom: string;
}

/** The rules of a drawer for which nobody has said otherwise. */
export const DEFAULT_RULES: Rules = {
  collecting: true,
  blanks: "skip",
  repeats: "skip",
  snippets: 1000,
  size: 256 * MEGABYTE,
  textAge: 30 * DAY,
  pictureAge: 7 * DAY,
  detect: true,
  privateAge: 2 * MINUTE,
  goneAge: 7 * DAY,
  neverFrom: "",
};

/** The names of all rules, in the order in which they are shown. */
export const RULE_NAMES = Object.keys(DEFAULT_RULES) as (keyof Rules)[];

/** What sort of value a rule has. */
export type RuleForm = "on-off" | "blanks" | "repeats" | "count" | "bytes" | "time" | "names";

/** What sort of value each rule has. */
export const RULE_FORMS: { readonly [Name in keyof Rules]: RuleForm } = {
  collecting: "on-off",
  blanks: "blanks",
  repeats: "repeats",
  snippets: "count",
  size: "bytes",
  textAge: "time",
  pictureAge: "time",
  detect: "on-off",
  privateAge: "time",
  goneAge: "time",
  neverFrom: "names",
};

/** The values of rules that are a choice. */
export const RULE_CHOICES: Readonly<Partial<Record<RuleForm, readonly Rules[keyof Rules][]>>> = {
  "on-off": [true, false],
  blanks: ["skip", "allow"],
  repeats: ["skip", "allow", "move"],
};

/** Whether a rule of this form can have this value. */
export function isValueOf(form: RuleForm, value: unknown): boolean {
  const choices: readonly unknown[] | undefined = RULE_CHOICES[form];
  if (choices) return choices.includes(value);
  if (form === "names") return typeof value === "string" && value.length <= 1000;
  return value === null || (typeof value === "number" && Number.isSafeInteger(value) && value > 0);
}

/** Rules as they are kept: those that are not the usual ones; undefined when all are. */
export function encodeRules(rules: Rules): string | undefined {
  const unusual = Object.entries(rules).filter(
    ([name, value]) => value !== DEFAULT_RULES[name as keyof Rules],
  );
  return unusual.length === 0 ? undefined : JSON.stringify(Object.fromEntries(unusual));
}

/** The rules that {@link encodeRules} kept; the usual ones for what cannot be read. */
export function decodeRules(text: string | undefined): Rules {
  return { ...DEFAULT_RULES, ...keptRules(text) };
}

/** Whether rules that were kept can be read. */
export function areReadable(text: string | undefined): boolean {
  return text === undefined || keptRules(text) !== undefined;
}

function keptRules(text: string | undefined): Partial<Rules> | undefined {
  return readValue<Rules>(text, (rules) =>
    Object.entries(rules).every(
      ([name, value]) => Object.hasOwn(RULE_FORMS, name) && isValueOf(RULE_FORMS[name as keyof Rules], value),
    ),
  );
}
