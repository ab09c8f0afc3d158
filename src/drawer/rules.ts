import { DrawerError } from "../content/error.js";
import { grouped } from "../content/number.js";
import type { Store } from "./store.js";
import { VALUES } from "./values.js";

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
}

const SECOND = 1000;
const MINUTE = 60 * SECOND;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const MEGABYTE = 1024 * 1024;

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
};

/** How a rule's value is written: said in words, and read from them; nothing when they say no such value. */
interface Form<Value> {
  /** In words that can be read again. */
  readonly say: (value: Value) => string;
  readonly read: (words: string) => Value | undefined;
  /** Whether a value that a program gives is one. */
  readonly is: (value: unknown) => value is Value;
  /** What can be written, for refusals. */
  readonly forms: string;
  /** What a program can give, for refusals. */
  readonly kinds: string;
}

function oneOf<Value extends string>(...values: readonly Value[]): Form<Value> {
  return {
    say: (value) => value,
    read: (words) => values.find((value) => value === words),
    is: (value): value is Value => values.some((one) => one === value),
    forms: values.join(", "),
    kinds: values.map((value) => `"${value}"`).join(", "),
  };
}

const onOff: Form<boolean> = {
  say: (on) => (on ? "on" : "off"),
  read: (words) => ({ on: true, off: false })[words],
  is: (value): value is boolean => typeof value === "boolean",
  forms: "on, off",
  kinds: "true or false",
};

/**
 * The number that is written so; nothing when it is none.
 * @throws DrawerError `bad-option` when it can be read in two ways, as `1.000` can
 */
function numberOf(digits: string): number | undefined {
  if (/^\d{1,3}[.,]\d{3}$/.test(digits)) {
    const [whole, thousand] = [digits.replace(/[.,]\d{3}$/, ""), digits.replace(/[.,]/, "")];
    throw new DrawerError(
      "bad-option",
      `“${digits}” can be read as ${whole} or as ${thousand}. Write ${whole} or ${thousand}.`,
    );
  }
  const plain = /^\d{1,3}(?:,\d{3}){2,}$|^\d{1,3}(?:\.\d{3}){2,}$/.test(digits)
    ? digits.replace(/[.,]/g, "")
    : digits;
  return /^\d{1,12}(?:[.,]\d+)?$/.test(plain) ? Number(plain.replace(",", ".")) : undefined;
}

/** A number with a unit, or a word for no limit. */
function amount(
  none: string,
  units: readonly (readonly [size: number, one: string, many: string, pattern: RegExp])[],
  forms: string,
): Form<number | null> {
  return {
    say(value) {
      if (value === null) return none;
      const [size, one, many] =
        units.find(([each]) => value >= each && value % each === 0) ?? units[units.length - 1]!;
      const count = value / size;
      return `${count} ${count === 1 ? one : many}`.trim();
    },
    read(words) {
      if (/^(never|none|any|unlimited)$/.test(words)) return null;
      const [, digits, unit] = /^([\d.,]+)\s*([a-z]*)$/.exec(words) ?? [];
      const found = units.find(([, , , pattern]) => pattern.test(unit ?? "?"));
      const value = found && digits !== undefined ? (numberOf(digits) ?? NaN) * found[0] : NaN;
      return value > 0 && Number.isFinite(value) ? Math.round(value) : undefined;
    },
    is: (value): value is number | null =>
      value === null || (typeof value === "number" && Number.isSafeInteger(value) && value > 0),
    forms,
    kinds: "a whole number above 0, or null for no limit",
  };
}

const time = amount(
  "never",
  [
    [DAY, "day", "days", /^d(ays?)?$/],
    [HOUR, "hour", "hours", /^h(ours?)?$/],
    [MINUTE, "minute", "minutes", /^m(in(utes?)?)?$/],
    [SECOND, "second", "seconds", /^s(ec(onds?)?)?$/],
  ],
  "a time such as “2 minutes”, “12 hours” or “30 days”, or never",
);
const bytes = amount(
  "any",
  [
    [1024 * MEGABYTE, "GB", "GB", /^gb?$/],
    [MEGABYTE, "MB", "MB", /^mb?$/],
    [1024, "KB", "KB", /^kb?$/],
    [1, "byte", "bytes", /^b(ytes?)?$/],
  ],
  "a size such as “256 MB” or “2 GB”, or any",
);
const number = amount("any", [[1, "", "", /^$/]], "a number such as 1000, or any");

/** A rule as people meet it. */
interface RuleForm<Name extends keyof Rules> {
  /** Its name where it is typed. */
  readonly name: string;
  readonly form: Form<Rules[Name]>;
  /** What it is for, in a few words. */
  readonly about: string;
  /** What it says, as the beginning of a sentence. */
  readonly sentence: (value: Rules[Name], said: string) => string;
}

const stay = (what: string) => (value: number | null, said: string) =>
  value === null ? `${what} stay until they are discarded` : `${what} go after ${said}, unless they are kept`;

/** All rules, in the order in which they are shown. */
export const RULES: { readonly [Name in keyof Rules]: RuleForm<Name> } = {
  collecting: {
    ...{ name: "collecting", form: onOff, about: "whether anything is collected (pause, resume)" },
    sentence: (on) =>
      on ? "Collecting is on" : "Collecting is off: nothing is collected until “drawer resume”",
  },
  blanks: {
    ...{ name: "blanks", form: oneOf("skip", "allow"), about: "pieces that hold nothing" },
    sentence: (value) => (value === "skip" ? "Blank pieces are skipped" : "Blank pieces are collected too"),
  },
  repeats: {
    ...{
      name: "repeats",
      form: oneOf("skip", "allow", "move"),
      about: "pieces that are the same as the latest",
    },
    sentence: (value) =>
      ({
        skip: "A piece that is the same as the latest is skipped",
        allow: "Pieces are collected as often as they come",
        move: "A piece that is there already becomes the latest",
      })[value],
  },
  snippets: {
    ...{ name: "snippets", form: number, about: "at most so many; then the oldest that is not kept goes" },
    sentence: (value, said) =>
      value === null ? "There may be any number of snippets" : `There are at most ${said} snippets`,
  },
  size: {
    ...{ name: "size", form: bytes, about: "at most so much; then the oldest that is not kept goes" },
    sentence: (value, said) =>
      value === null ? "The snippets may take any room" : `The snippets take at most ${said}`,
  },
  textAge: {
    ...{ name: "text-age", form: time, about: "how long text, tables and links stay, unless kept" },
    sentence: stay("Text, tables and links"),
  },
  pictureAge: {
    ...{ name: "picture-age", form: time, about: "how long pictures stay, unless kept" },
    sentence: stay("Pictures"),
  },
  detect: {
    ...{ name: "detect", form: onOff, about: "make private what looks like a secret" },
    sentence: (on) =>
      on ? "What looks like a secret is made private" : "Nothing is made private unless you say so",
  },
  privateAge: {
    ...{ name: "private-age", form: time, about: "how long private snippets stay, unless kept" },
    sentence: stay("Private snippets"),
  },
  goneAge: {
    ...{ name: "gone-age", form: time, about: "how long what left can be brought back" },
    sentence: (value, said) =>
      value === null ? "What left can always be brought back" : `What left can be brought back for ${said}`,
  },
};

/** A rule in words. */
export interface RuleSaid {
  readonly key: keyof Rules;
  readonly name: string;
  readonly value: string;
  /** What it is when nobody has said otherwise. */
  readonly usual: string;
  readonly about: string;
  /** What it means, as a sentence. */
  readonly sentence: string;
}

/** The words of a value with a large number in it grouped, as sentences write it. */
function withGroups(value: string): string {
  return value.replace(/^\d{4,}/, (count) => grouped(Number(count)));
}

/** All rules in words, in their order. */
export function sayRules(rules: Rules): RuleSaid[] {
  return (Object.keys(RULES) as (keyof Rules)[]).map((key) => sayRule(key, rules));
}

function sayRule<Key extends keyof Rules>(key: Key, rules: Rules): RuleSaid {
  const { name, form, about, sentence } = RULES[key] as RuleForm<Key>;
  const value = form.say(rules[key]);
  return {
    ...{ key, name, value, usual: form.say(DEFAULT_RULES[key]), about },
    sentence: `${sentence(rules[key], withGroups(value))}.`,
  };
}

/**
 * Reads rules as they are typed: `snippets=500`, `text-age=2 weeks`.
 * @throws DrawerError `bad-option` for a name or a value that is none
 */
export function readRule(typed: string): Partial<Rules> {
  const [, name = typed, words] = /^([^=]*)=(.*)$/s.exec(typed) ?? [];
  const found = (Object.keys(RULES) as (keyof Rules)[]).find((key) => RULES[key].name === name.trim());
  if (!found) {
    const names = Object.values(RULES).map((rule) => rule.name);
    throw new DrawerError(
      "bad-option",
      `There is no rule “${name.trim()}”. The rules are: ${names.join(", ")}.`,
    );
  }
  const form = RULES[found].form as Form<unknown>;
  const value = words === undefined ? undefined : form.read(words.trim().toLowerCase());
  if (value === undefined) {
    const said =
      words === undefined ? `Say what ${name} shall be` : `“${words.trim()}” is nothing that ${name} can be`;
    throw new DrawerError("bad-option", `${said}. Write ${name}= and ${form.forms}.`);
  }
  return { [found]: value };
}

/**
 * Checks rules that a program gives.
 * @throws DrawerError `bad-option` for one that there is not, and for a value that it cannot have
 */
export function checkRules(changes: Partial<Rules>): void {
  for (const [key, value] of Object.entries(changes)) {
    const rule = Object.hasOwn(RULES, key) ? RULES[key as keyof Rules] : undefined;
    if (!rule) {
      const names = Object.keys(RULES).join(", ");
      throw new DrawerError("bad-option", `There is no rule “${key}”. The rules are: ${names}.`);
    }
    if (!(rule.form as Form<unknown>).is(value))
      throw new DrawerError(
        "bad-option",
        `“${String(value)}” is nothing that the rule “${key}” can be. It can be ${rule.form.kinds}.`,
      );
  }
}

/** The rules of a drawer. */
export async function rulesOf(store: Store, drawer: string): Promise<Rules> {
  const text = await store.value(drawer, VALUES.rules);
  return text === undefined ? DEFAULT_RULES : { ...DEFAULT_RULES, ...(JSON.parse(text) as Partial<Rules>) };
}
