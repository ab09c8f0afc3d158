import { attributeOf, childrenOf, type Element } from "../office/xml.js";

/**
 * An OpenDocument data style (ODF 1.3 part 3, 16.29) as a number format code, the form in which content carries formats.
 * Nothing for one that only says “as it comes”.
 */
export function formatCode(style: Element): string | undefined {
  if (style.localName === "text-style") return undefined;
  let code = "";
  for (const part of childrenOf(style)) {
    const isLong = attributeOf(part, "style") === "long";
    switch (part.localName ?? "") {
      case "number": {
        const number = numberCode(part);
        if (number === undefined) return undefined;
        code += number;
        break;
      }
      case "scientific-number":
        code += `0.${"0".repeat(Number(attributeOf(part, "decimal-places") ?? 2))}E+00`;
        break;
      case "text":
        code += literal(part.textContent ?? "", style.localName === "percentage-style");
        break;
      case "currency-symbol":
        code += `"${part.textContent ?? ""}"`;
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
        code += isLong ? "hh" : "h";
        break;
      case "minutes":
        code += isLong ? "mm" : "m";
        break;
      case "seconds":
        code += isLong ? "ss" : "s";
        break;
      case "am-pm":
        code += "AM/PM";
    }
  }
  return code === "" ? undefined : code;
}

function numberCode(part: Element): string | undefined {
  const places = attributeOf(part, "decimal-places");
  const least = Number(attributeOf(part, "min-decimal-places") ?? places ?? 0);
  const whole = Math.min(20, Number(attributeOf(part, "min-integer-digits") ?? 1));
  const grouping = attributeOf(part, "grouping") === "true";
  if (places === undefined && !grouping && whole <= 1) return undefined;
  const digits = grouping ? `#,##${"0".repeat(Math.max(1, whole))}` : whole === 0 ? "#" : "0".repeat(whole);
  const all = Math.min(20, Number(places ?? 0));
  return all === 0
    ? digits
    : `${digits}.${"0".repeat(Math.min(least, all))}${"#".repeat(Math.max(0, all - least))}`;
}

/** Text in a format code: signs that mean nothing else stand for themselves. */
function literal(text: string, percentage: boolean): string {
  return text.replace(/[^-/.,: %]+|%/g, (part) => (part === "%" && percentage ? "%" : `"${part}"`));
}
