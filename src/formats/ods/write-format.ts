import { tokenize } from "numfmt";
import { languageTag } from "../office/languages.js";
import { element, escapeXml } from "../office/odf.js";
import { withPlacedDateSign } from "../office/shown.js";
import { FORMAT_COLORS } from "./format-colors.js";

/** A part of a number format code (ECMA-376 part 1, 18.8.31), as the package numfmt tells them. */
interface Token {
  readonly type: string;
  readonly value: string;
  /** As it is written. */
  readonly raw: string;
}

/**
 * A number format code as OpenDocument data styles (ODF 1.3 part 3, 16.29): a style for each section, of which the last
 * names the others and when they hold.
 */
export function dataStyle(name: string, code: string): string {
  // A data style has the very sign that is shown.
  const sections = sectionsOf(withPlacedDateSign(code));
  const last = sections.at(-1)!;
  const others = sections.slice(0, -1);
  const conditions = others.map((section, index) => section.condition ?? usualCondition(sections, index));
  const maps = others.map((_, index) =>
    element("style:map", {
      "style:condition": `value()${conditions[index]!.replace("<>", "!=")}`,
      "style:apply-style-name": `${name}P${index}`,
    }),
  );
  return (
    others.map((section, index) => styleOf(`${name}P${index}`, section, "")).join("") +
    styleOf(name, last, maps.join(""))
  );
}

const GENERAL: Token = { type: "GENERAL", value: "General", raw: "General" };

/** A section of a code: when it holds, and what it shows. */
interface Section {
  readonly tokens: readonly Token[];
  /** Such as `>=100`; nothing when it goes by the order of the sections. */
  readonly condition: string | undefined;
}

function sectionsOf(code: string): Section[] {
  const sections: Section[] = [];
  let tokens: Token[] = [];
  let condition: string | undefined;
  const close = () => {
    sections.push({ tokens, condition });
    tokens = [];
    condition = undefined;
  };
  for (const token of readTokens(code)) {
    const { type, value } = token;
    if (type === "BREAK") close();
    else if (type === "CONDITION") condition = value;
    else tokens.push(token);
  }
  close();
  const isText = ({ tokens }: Section) => tokens.some(({ type }) => type === "TEXT");
  // The fourth section is that of texts; one that stands before it says nothing of numbers.
  const texts = sections.findIndex(isText);
  if (texts === 1 || texts === 2) sections.splice(texts, 1);
  return sections;
}

/** The parts of a code; a code that is none shows numbers as they come. */
function readTokens(code: string): Token[] {
  try {
    return tokenize(code) as Token[];
  } catch {
    return [GENERAL];
  }
}

/** Which values a section is for that names no condition. */
function usualCondition(sections: readonly Section[], index: number): string {
  if (sections.length === 2) return ">=0";
  return [">0", "<0", "=0"][index] ?? "=0";
}

function styleOf(name: string, { tokens }: Section, maps: string): string {
  const types = new Set(tokens.map(({ type }) => type));
  const attributes = { "style:name": name, ...languageOf(tokens), ...numeralsOf(tokens) };
  const color = colorOf(tokens);
  const colored = color === undefined ? "" : element("style:text-properties", { "fo:color": color });
  const make = (kind: string, inner: string, more: Record<string, string> = {}) =>
    element(`number:${kind}-style`, { ...attributes, ...more }, colored + inner + maps);
  if (types.has("TEXT")) return make("text", textParts(tokens));
  if (types.has("DATETIME") || types.has("DURATION")) return dateStyle(tokens, make);
  const kind = types.has("PERCENT") ? "percentage" : hasCurrency(tokens) ? "currency" : "number";
  return make(kind, numberParts(tokens));
}

function colorOf(tokens: readonly Token[]): string | undefined {
  const named = tokens.find(({ type }) => type === "COLOR")?.value.toLowerCase();
  return Object.entries(FORMAT_COLORS).find(([name]) => name.toLowerCase() === named)?.[1];
}

/** A currency's sign in a token `€-407`; nothing for a token that names a language alone. */
function currencyOf({ type, value }: Token): string | undefined {
  return type === "LOCALE" ? value.split("-")[0] || undefined : undefined;
}

function hasCurrency(tokens: readonly Token[]): boolean {
  return tokens.some((token) => currencyOf(token) !== undefined);
}

/** The language that a section names (`-407` or `-de-DE`), by the number or the tag that it has. */
function languageOf(tokens: readonly Token[]): Record<string, string> {
  const named = tokens.find((token) => token.type === "LOCALE" && token.value.startsWith("-"));
  if (!named) return {};
  const tag = languageTag(named.value.slice(1));
  if (tag === undefined) return {};
  const { language, region } = new Intl.Locale(tag).maximize();
  return { "number:language": language, ...(region !== undefined && { "number:country": region }) };
}

/** The numerals that a section names by `[DBNum1]` to `[DBNum3]` (ODF 1.3 part 3, 19.364): dates have them digit by digit. */
function numeralsOf(tokens: readonly Token[]): Record<string, string> {
  const kind = tokens.find(({ type }) => type === "DBNUM")?.value.slice(-1);
  const named = tokens.find((token) => token.type === "LOCALE" && token.value.startsWith("-"));
  const tag = named && languageTag(named.value.slice(1));
  const sample = kind === undefined ? undefined : { 1: "一", 2: "壹", 3: "１" }[Number(kind)];
  if (tag === undefined || sample === undefined) return {};
  const { language, region } = new Intl.Locale(tag).maximize();
  const isSpoken = kind !== "3" && !tokens.some(({ type }) => type === "DATETIME");
  return {
    "number:transliteration-format": sample,
    "number:transliteration-language": language,
    ...(region !== undefined && { "number:transliteration-country": region }),
    "number:transliteration-style": isSpoken ? "long" : "short",
  };
}

/** What a token shows as it stands; nothing for one that shows a part of the value. */
function literalOf(token: Token): string | undefined {
  switch (token.type) {
    case "STRING":
    case "ESCAPED":
    case "CHAR":
    case "SPACE":
    case "MINUS":
    case "PLUS":
    case "PAREN":
    case "SLASH":
    case "POINT":
    case "COMMA":
    case "CURRENCY":
    case "PERCENT":
    case "DIGIT":
    case "ZERO":
    case "HASH":
    case "QMARK":
      return token.value;
    case "SKIP":
      return " ";
    default:
      return undefined;
  }
}

function textElement(text: string): string {
  return text === "" ? "" : element("number:text", {}, escapeXml(text));
}

/** Texts, currencies and fills, in their order; what `others` takes are the parts of the value. */
function parts(tokens: readonly Token[], value: (token: Token, index: number) => string | undefined): string {
  let xml = "";
  let text = "";
  const flush = () => {
    xml += textElement(text);
    text = "";
  };
  tokens.forEach((token, index) => {
    const made = value(token, index);
    const currency = currencyOf(token);
    if (made !== undefined) {
      if (made === "") return;
      flush();
      xml += made;
    } else if (currency !== undefined) {
      flush();
      xml += element("number:currency-symbol", {}, escapeXml(currency));
    } else if (token.type === "FILL") {
      flush();
      xml += element("number:fill-character", {}, escapeXml(token.value));
    } else text += literalOf(token) ?? "";
  });
  flush();
  return xml;
}

function textParts(tokens: readonly Token[]): string {
  return parts(tokens, ({ type }) => (type === "TEXT" ? "<number:text-content/>" : undefined));
}

const DIGITS: readonly string[] = ["ZERO", "HASH", "QMARK", "GROUP", "SCALE", "DIGIT"];

/** The parts of a number: its digits, as one element where the first of them stands, and what stands around them. */
function numberParts(tokens: readonly Token[]): string {
  const isDigit = ({ type }: Token) => ["ZERO", "HASH", "QMARK"].includes(type);
  const first = tokens.findIndex((token) => isDigit(token) || token.type === "GENERAL");
  if (first < 0) return parts(tokens, () => undefined);
  if (tokens[first]!.type === "GENERAL")
    return parts(tokens, (_, index) =>
      index === first ? element("number:number", { "number:min-integer-digits": 1 }) : undefined,
    );
  const slash = tokens.findIndex(({ type }, index) => type === "SLASH" && index > first);
  const exponent = tokens.findIndex(({ type }) => type === "EXP");
  let last = tokens.findLastIndex((token) => DIGITS.includes(token.type));
  if (slash > 0 && last < slash) last = slash;
  const digits = tokens.slice(first, last + 1);
  const made =
    slash > 0 && slash < last
      ? fraction(digits, slash - first)
      : exponent > 0
        ? scientific(digits, exponent - first)
        : plainNumber(digits);
  return parts(tokens, (_, index) =>
    index < first || index > last ? undefined : index === first ? made : "",
  );
}

function count(tokens: readonly Token[], ...types: string[]): number {
  return tokens.filter(({ type }) => types.includes(type)).length;
}

/** Digits before and after the point. */
function splitAtPoint(digits: readonly Token[]): [whole: readonly Token[], places: readonly Token[]] {
  const point = digits.findIndex(({ type }) => type === "POINT");
  return point < 0 ? [digits, []] : [digits.slice(0, point), digits.slice(point + 1)];
}

function placesOf(places: readonly Token[]): Record<string, number> {
  return {
    "number:decimal-places": count(places, "ZERO", "HASH", "QMARK"),
    "number:min-decimal-places": count(places, "ZERO"),
  };
}

function plainNumber(digits: readonly Token[]): string {
  const [whole, places] = splitAtPoint(digits);
  const scale = digits.reduce((sum, { type, raw }) => sum + (type === "SCALE" ? raw.length : 0), 0);
  return element(
    "number:number",
    {
      ...placesOf(places),
      "number:min-integer-digits": count(whole, "ZERO"),
      "number:grouping": count(whole, "GROUP") > 0 ? "true" : undefined,
      "number:display-factor": scale > 0 ? 1000 ** scale : undefined,
    },
    embedded(whole),
  );
}

/** Texts among the digits before the point, by how many digits stand to their right. */
function embedded(whole: readonly Token[]): string {
  let xml = "";
  whole.forEach((token, index) => {
    const text = DIGITS.includes(token.type) ? undefined : literalOf(token);
    if (text === undefined) return;
    const right = count(whole.slice(index), "ZERO", "HASH", "QMARK");
    xml += element("number:embedded-text", { "number:position": right }, escapeXml(text));
  });
  return xml;
}

function scientific(digits: readonly Token[], exponent: number): string {
  const [whole, places] = splitAtPoint(digits.slice(0, exponent));
  const all = count(whole, "ZERO", "HASH", "QMARK");
  return element("number:scientific-number", {
    ...placesOf(places),
    "number:min-integer-digits": Math.max(1, count(whole, "ZERO")),
    "number:exponent-interval": all > 1 ? all : undefined,
    "number:forced-exponent-sign": digits[exponent]!.value.includes("-") ? "false" : "true",
    "number:min-exponent-digits": count(digits.slice(exponent), "ZERO"),
  });
}

function fraction(digits: readonly Token[], slash: number): string {
  const before = digits.slice(0, slash);
  const after = digits.slice(slash + 1);
  const space = before.findLastIndex(({ type }) => type === "SPACE");
  const whole = space < 0 ? [] : before.slice(0, space);
  const fixed = after
    .filter(({ type }) => type === "DIGIT" || type === "ZERO")
    .map(({ value }) => value)
    .join("");
  const isFixed = /[1-9]/.test(fixed);
  return element("number:fraction", {
    "number:min-integer-digits": space < 0 ? undefined : count(whole, "ZERO"),
    "number:min-numerator-digits": Math.max(1, count(before.slice(space + 1), "ZERO", "HASH", "QMARK")),
    "number:min-denominator-digits": isFixed
      ? fixed.length
      : Math.max(1, count(after, "ZERO", "HASH", "QMARK")),
    "number:denominator-value": isFixed ? fixed : undefined,
  });
}

type Make = (kind: string, inner: string, more?: Record<string, string>) => string;

/** A date, a time, or a time that has passed. */
function dateStyle(tokens: readonly Token[], make: Make): string {
  const clock = tokens.filter(({ type }) => type === "DATETIME" || type === "DURATION");
  const isDate =
    clock.some(({ value }) => /[ydbeg]|mmm/i.test(value)) || !clock.some(({ value }) => /[hs]/i.test(value));
  const isElapsed = clock.some(({ type }) => type === "DURATION");
  const places = secondPlaces(tokens);
  const inner = parts(tokens, (token, index) => {
    if (token.type === "AMPM") return "<number:am-pm/>";
    if (places.skipped.has(index)) return "";
    if (token.type !== "DATETIME" && token.type !== "DURATION") return undefined;
    return clockPart(token, clock, places.count);
  });
  return make(isDate ? "date" : "time", inner, isElapsed ? { "number:truncate-on-overflow": "false" } : {});
}

/** The decimal places of seconds: how many there are, and the tokens that say so. */
function secondPlaces(tokens: readonly Token[]): { count: number; skipped: ReadonlySet<number> } {
  const skipped = new Set<number>();
  const point = tokens.findIndex(
    ({ type }, index) => type === "POINT" && /^s+$/i.test(tokens[index - 1]?.value ?? ""),
  );
  if (point < 0) return { count: 0, skipped };
  for (let at = point + 1; tokens[at]?.type === "ZERO"; at++) skipped.add(at);
  if (skipped.size > 0) skipped.add(point);
  return { count: Math.max(0, skipped.size - 1), skipped };
}

function clockPart(token: Token, clock: readonly Token[], places: number): string {
  const name = token.value.toLowerCase();
  const long = (least: number) => (name.length >= least ? { "number:style": "long" } : {});
  switch (name.charAt(0)) {
    case "y":
    case "e":
    case "b":
      return element("number:year", long(name[0] === "e" ? 1 : 3));
    case "d":
      return name.length > 2 ? element("number:day-of-week", long(4)) : element("number:day", long(2));
    case "h":
      return element("number:hours", long(2));
    case "s":
      return element("number:seconds", { ...long(2), "number:decimal-places": places || undefined });
    case "m":
      if (isMinutes(token, clock)) return element("number:minutes", long(2));
      return element("number:month", {
        ...long(name.length > 2 ? 4 : 2),
        "number:textual": name.length > 2 ? "true" : undefined,
      });
    default:
      return "";
  }
}

/** Whether an `m` stands for minutes: after hours, before seconds, or in brackets. */
function isMinutes(token: Token, clock: readonly Token[]): boolean {
  const at = clock.indexOf(token);
  return (
    token.value.length <= 2 &&
    (token.type === "DURATION" ||
      /^h/i.test(clock[at - 1]?.value ?? "") ||
      /^s/i.test(clock[at + 1]?.value ?? ""))
  );
}
