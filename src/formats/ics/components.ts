import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import { failureOf } from "../thread/failure.js";

/** A fact of an event, a task or a person: its name, what is said of it, of which kind its values are, and they (RFC 7265, 3.4). */
export interface Fact {
  readonly name: string;
  readonly parameters: Readonly<Record<string, string | readonly string[]>>;
  readonly type: string;
  readonly values: readonly Value[];
}
/** A value; one that has several parts is a list, of which each may have several. */
export type Value = string | number | boolean | object | readonly Value[];

/** What begins and ends in a file: a calendar, an event, a card; with what stands in it. */
export interface Component {
  readonly name: string;
  readonly facts: readonly Fact[];
  readonly inner: readonly Component[];
}

type Parsed = readonly [name: string, facts: readonly ParsedFact[], inner?: readonly Parsed[]];
type ParsedFact = readonly [name: string, parameters: Fact["parameters"], type: string, ...values: Value[]];

/**
 * Takes iCalendar or vCard apart.
 * @throws DrawerError `unreadable`; `unknown-format` where the package that does so is not installed
 */
export async function componentsOf(text: string, file: string, what: "ics" | "vcf"): Promise<Component[]> {
  const component = ([name, facts, inner = []]: Parsed): Component => ({
    name,
    facts: facts.map(([fact, parameters, type, ...values]) => ({ name: fact, parameters, type, values })),
    inner: inner.map(component),
  });
  let parsed: Parsed | Parsed[];
  try {
    const { default: ical } = await import("ical.js");
    parsed = ical.parse(text) as unknown as Parsed | Parsed[];
  } catch (cause) {
    throw failureOf(cause, file, what);
  }
  const isOne = typeof parsed[0] === "string";
  const all = (isOne ? [parsed as Parsed] : (parsed as Parsed[])).map(component);
  if (all.length > 0) return all;
  throw new DrawerError(formatErrors, "unreadable/not-one", { file, what });
}

/** What a value says, in words. */
export function textOf(value: Value): string {
  if (Array.isArray(value))
    return value
      .map((each: Value) => textOf(each))
      .filter(Boolean)
      .join(", ");
  return typeof value === "object" ? JSON.stringify(value) : String(value);
}
