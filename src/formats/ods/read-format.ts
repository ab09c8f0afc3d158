import { languageNumber } from "../office/languages.js";
import { attributeOf, childrenOf, type Element } from "../office/xml.js";
import { FORMAT_COLORS } from "./format-colors.js";

/**
 * An OpenDocument data style (ODF 1.3 part 3, 16.29) as a number format code, the form in which content carries formats.
 * Nothing for one that only says “as it comes”.
 *
 * @param named finds a data style by its name: a style names those for values that meet a condition
 * @param country where the file is at home (ISO 3166), for currencies that it does not name
 */
export function formatCode(
  style: Element,
  named: (name: string) => Element | undefined,
  country: string | undefined,
): string | undefined {
  const own = sectionCode(style, country);
  const others: { condition: string; code: string }[] = [];
  for (const part of childrenOf(style)) {
    if (part.localName !== "map") continue;
    const other = named(attributeOf(part, "apply-style-name") ?? "");
    const condition = (attributeOf(part, "condition") ?? "").replace(/^value\(\)|\s/g, "");
    if (other) others.push({ condition: condition.replace("!=", "<>"), code: sectionCode(other, country) });
  }
  if (others.length === 0) return own === "" || own === "General" ? undefined : own;
  const isUsual = USUAL_CONDITIONS.includes(others.map(({ condition }) => condition).join(" "));
  const sections = others.map(({ condition, code }) => (isUsual ? code : `[${condition}]${code}`));
  return [...sections, own].join(";");
}

/** The conditions that sections have when they name none: of two, of three, and of four, whose last is for texts. */
const USUAL_CONDITIONS: readonly string[] = [">=0", ">0 <0", ">0 <0 =0"];

/** One section of a code. */
function sectionCode(style: Element, country: string | undefined): string {
  let code = numeralsCode(style);
  const kind = style.localName;
  const isElapsed = attributeOf(style, "truncate-on-overflow") === "false";
  let hasElapsed = false;
  const clock = (letter: string, isLong: boolean) => {
    const letters = isLong ? letter + letter : letter;
    if (!isElapsed || hasElapsed) return letters;
    hasElapsed = true;
    return `[${letters}]`;
  };
  for (const part of childrenOf(style)) {
    const isLong = attributeOf(part, "style") === "long";
    switch (part.localName) {
      case "text-properties":
        code += colorCode(attributeOf(part, "color"));
        break;
      case "number":
        code += numberCode(part);
        break;
      case "scientific-number":
        code += scientificCode(part);
        break;
      case "fraction":
        code += fractionCode(part);
        break;
      case "text":
        code += literal(part.textContent, kind);
        break;
      case "fill-character":
        code += `*${part.textContent || " "}`;
        break;
      case "currency-symbol":
        code += currencyCode(part, country);
        break;
      case "text-content":
        code += "@";
        break;
      case "boolean":
        code += "General";
        break;
      case "year":
        code += isLong ? "yyyy" : "yy";
        break;
      case "month":
        code += attributeOf(part, "textual") === "true" ? (isLong ? "mmmm" : "mmm") : isLong ? "mm" : "m";
        break;
      case "day":
        code += isLong ? "dd" : "d";
        break;
      case "day-of-week":
        code += isLong ? "dddd" : "ddd";
        break;
      case "hours":
        code += clock("h", isLong);
        break;
      case "minutes":
        code += clock("m", isLong);
        break;
      case "seconds": {
        const places = Math.min(9, Number(attributeOf(part, "decimal-places") ?? 0));
        code += clock("s", isLong) + (places > 0 ? `.${"0".repeat(places)}` : "");
        break;
      }
      case "am-pm":
        code += "AM/PM";
    }
  }
  return localeCode(style) + code;
}

/** The tag of a language whose names of months and signs in figures a section has. */
function localeCode(style: Element): string {
  const language = attributeOf(style, "language");
  if (language === undefined || language === "none") return "";
  const country = attributeOf(style, "country");
  const tag = country === undefined || country === "none" ? language : `${language}-${country}`;
  const number = languageNumber(tag);
  return number === undefined ? "" : `[$-${number}]`;
}

/** The numerals that a style names (19.364), and their place where the style itself names none. */
function numeralsCode(style: Element): string {
  const kind = ["一", "壹", "１"].indexOf(attributeOf(style, "transliteration-format") ?? "") + 1;
  const language = attributeOf(style, "transliteration-language");
  const place = attributeOf(style, "transliteration-country");
  const number = kind > 0 && language ? languageNumber(place ? `${language}-${place}` : language) : undefined;
  if (number === undefined) return "";
  return `[DBNum${kind}]${attributeOf(style, "language") === undefined ? `[$-${number}]` : ""}`;
}

/** A currency without a sign is that of the file's country. */
function currencyCode(part: Element, country: string | undefined): string {
  const symbol = part.textContent || currencyOf(attributeOf(part, "country") ?? country);
  return /[\]\-[]/.test(symbol) ? `"${symbol}"` : `[$${symbol}]`;
}

/** The signs of currencies by the countries whose files leave them out. */
const CURRENCIES: Readonly<Record<string, string>> = {
  ...Object.fromEntries(
    "AT BE CY DE EE ES FI FR GR HR IE IT LT LU LV MT NL PT SI SK".split(" ").map((c) => [c, "€"]),
  ),
  ...{ GB: "£", JP: "¥", CN: "¥", IN: "₹", CH: "CHF", PL: "zł", CZ: "Kč", SE: "kr", NO: "kr", DK: "kr" },
  ...{ TR: "₺", KR: "₩", IL: "₪", UA: "₴", BR: "R$", ZA: "R", HU: "Ft" },
};

function currencyOf(country: string | undefined): string {
  return CURRENCIES[country ?? ""] ?? "$";
}

function colorCode(color: string | undefined): string {
  const named = Object.entries(FORMAT_COLORS).find(([, known]) => known === color?.toLowerCase());
  return named ? `[${named[0]}]` : "";
}

/** How many digits a code has at most for one attribute, whatever the file says. */
const DIGITS = 20;

function digitsOf(part: Element, name: string, usual: number): number {
  return Math.max(0, Math.min(DIGITS, Number(attributeOf(part, name) ?? usual) || 0));
}

/** The digits of a number; `General` where nothing is said of them. */
function numberCode(part: Element): string {
  const places = attributeOf(part, "decimal-places") ?? attributeOf(part, "min-decimal-places");
  const isGrouped = attributeOf(part, "grouping") === "true";
  const factor = Number(attributeOf(part, "display-factor") ?? 1);
  const embedded = [...childrenOf(part)].filter(({ localName }) => localName === "embedded-text");
  const least = digitsOf(part, "min-integer-digits", 0);
  if (places === undefined && !isGrouped && least <= 1 && factor === 1 && embedded.length === 0)
    return "General";
  const scale = ",".repeat(Math.max(0, Math.round(Math.log10(factor) / 3) || 0));
  return wholeCode(least, isGrouped, embedded) + placesCode(part, 0) + scale;
}

/** The digits before the point, with the texts that stand among them, by how many digits are to their right. */
function wholeCode(least: number, isGrouped: boolean, embedded: readonly Element[]): string {
  if (isGrouped) return `#,##${"0".repeat(least)}`.replace(/#{2}$/, "###");
  let code = "";
  for (let right = Math.max(least, 1); right > 0; right--) {
    const between = embedded.find((text) => Number(attributeOf(text, "position")) === right);
    if (between && code !== "") code += literal(between.textContent, "number-style");
    code += right > least ? "#" : "0";
  }
  return code;
}

function placesCode(part: Element, usual: number): string {
  const all = digitsOf(part, "decimal-places", digitsOf(part, "min-decimal-places", usual));
  if (all === 0) return "";
  const isReplaced = attributeOf(part, "decimal-replacement") !== undefined;
  const least = Math.min(all, digitsOf(part, "min-decimal-places", isReplaced ? 0 : all));
  return `.${"0".repeat(least)}${"#".repeat(all - least)}`;
}

function scientificCode(part: Element): string {
  const step = Math.max(1, digitsOf(part, "exponent-interval", 1));
  const least = digitsOf(part, "min-integer-digits", 1);
  const whole = "#".repeat(Math.max(0, step - Math.max(1, least))) + "0".repeat(Math.max(1, least));
  const sign = attributeOf(part, "forced-exponent-sign") === "false" ? "-" : "+";
  const exponent = "0".repeat(Math.max(1, digitsOf(part, "min-exponent-digits", 2)));
  return `${whole}${placesCode(part, 2)}E${sign}${exponent}`;
}

function fractionCode(part: Element): string {
  const whole = attributeOf(part, "min-integer-digits");
  const denominator = attributeOf(part, "denominator-value");
  const above = "?".repeat(Math.max(1, digitsOf(part, "min-numerator-digits", 1)));
  const below = denominator ?? "?".repeat(Math.max(1, digitsOf(part, "min-denominator-digits", 1)));
  return `${whole === undefined ? "" : `${Number(whole) > 0 ? "0" : "#"} `}${above}/${below}`;
}

/** Text in a format code. Signs that mean nothing else stand for themselves, which are more of them in dates. */
function literal(text: string, kind: string): string {
  const plain = /^(date|time)/.test(kind) ? /[-/.,: ()]/ : kind === "percentage-style" ? /[- ()%]/ : /[- ()]/;
  let code = "";
  let quoted = "";
  const flush = () => {
    if (quoted !== "") code += quoted.includes('"') ? quoted.replace(/./gsu, "\\$&") : `"${quoted}"`;
    quoted = "";
  };
  for (const sign of text) {
    if (plain.test(sign)) {
      flush();
      code += sign;
    } else quoted += sign;
  }
  flush();
  return code;
}
