import { format } from "numfmt";
import { isDateFormat } from "../../content/serial.js";
import { inNumerals } from "./cjk-numerals.js";
import { languageTag } from "./languages.js";

/** What sheets show of values by their number formats (ECMA-376 part 1, 18.8.31), through the package numfmt. */

/** A currency with the place that it is of: `[$€-407]`. In number formats the place says nothing of separators. */
const PLACED_CURRENCY = /\[\$([^\]-]+)-[\da-z-]+\]/gi;
/** Time that has passed, as in `[h]:mm`: it may be negative, and then it is no date. */
const ELAPSED = /\[(?:h+|m+|s+)\]/i;

/**
 * What a sheet shows of a number. One whose format cannot be read is shown as it comes.
 * @param code a number format code; `General` when it is left out
 */
export function shownNumber(number: number, code = "General"): string {
  // As all formats would show it that say nothing else: most numbers of most sheets.
  if (code === "General" && Number.isSafeInteger(number) && Math.abs(number) < WIDE) return String(number);
  const pattern = code.includes("[$") ? code.replace(PLACED_CURRENCY, "[$$$1]") : code;
  if (number < 0 && ELAPSED.test(pattern) && !pattern.includes(";")) return `-${shownNumber(-number, code)}`;
  const numerals = NUMERALS.exec(pattern)?.[1];
  const text = shown(withPlacedDateSign(pattern.replace(NUMERALS, "")), number);
  const tag = numerals === undefined ? undefined : placeOf(pattern);
  return tag === undefined ? text : inNumerals(text, numerals!, tag, isDateFormat(code));
}

/** Whole numbers from here are shown with an exponent where no format says otherwise (18.8.31). */
const WIDE = 1e11;

/** A place whose language holds: `[$-407]`. */
const PLACE = /\[\$-([\da-f]+)\]/i;
/** That numbers are written in the numerals of a place: `[DBNum1]`. */
const NUMERALS = /\[DBNum([1-3])\]/i;

/** The language of the place that a format names. */
function placeOf(code: string): string | undefined {
  const place = PLACE.exec(code)?.[1];
  return place === undefined ? undefined : languageTag(place);
}

/** A date format that names a place, with the sign that parts dates there in place of the one that stands for it. */
export function withPlacedDateSign(code: string): string {
  if (!PLACE.test(code)) return code;
  let placed = placedFormats.get(code);
  if (placed === undefined) {
    if (placedFormats.size === MOST_PLACED) placedFormats.clear();
    placedFormats.set(code, (placed = placeDateSign(code)));
  }
  return placed;
}

/** Formats that were met: a sheet has few, and a language's sign is costly to ask for. */
const placedFormats = new Map<string, string>();
const MOST_PLACED = 1000;

function placeDateSign(code: string): string {
  const tag = isDateFormat(code) ? placeOf(code) : undefined;
  if (tag === undefined) return code;
  const parts = new Intl.DateTimeFormat(tag).formatToParts(0);
  const sign = parts.find(({ type }) => type === "literal")?.value.trim() || "/";
  // What is quoted, escaped or in brackets is itself.
  return code.replace(/"[^"]*"|\\.|\[[^\]]*\]|\//g, (part) => (part === "/" ? `\\${sign}` : part));
}

/** What a sheet shows of a text: itself, or what its format's section for texts makes of it. */
export function shownText(text: string, code: string | undefined): string {
  return code === undefined || code === "@" || !code.includes("@") ? text : shown(code, text);
}

/** Signs that only take the room of others, at the edges, so that figures stand under each other, are no part of it. */
function shown(pattern: string, value: number | string): string {
  try {
    return format(pattern, value, { nbsp: false }).trim();
  } catch {
    // The code is no code.
    return typeof value === "string" ? value : format("General", value);
  }
}
