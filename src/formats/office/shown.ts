import { format } from "numfmt";

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
  const pattern = code.includes("[$") ? code.replace(PLACED_CURRENCY, "[$$$1]") : code;
  if (number < 0 && ELAPSED.test(pattern) && !pattern.includes(";")) return `-${shownNumber(-number, code)}`;
  return shown(pattern, number);
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
