import type { ListLine } from "../../content/list-builder.js";
import { bulletMarker, numberMarker } from "../../content/marker.js";
import type { Declaration } from "./tree-adapter.js";

/**
 * Office programs write a list as paragraphs of their own, each with the list, the level and the format in a property
 * (`mso-list: l0 level2 lfo1`), and the bullet or number as text in a run marked `mso-list: Ignore`. This tells which
 * of the two an element is.
 */
export function officeListOf(
  declarations: readonly Declaration[],
): { key: string; level: number } | "marker" | undefined {
  const list = declarations.find(({ property }) => property === "mso-list")?.value;
  if (list === undefined || /^none$/i.test(list)) return undefined;
  if (/^ignore$/i.test(list)) return "marker";
  const match = /\b(l\d+)\s+level([1-9])\s+(lfo\d+)/i.exec(list);
  return match ? { key: `${match[1]} ${match[3]}`.toLowerCase(), level: Number(match[2]) - 1 } : undefined;
}

/** What a marker says of its list: `3.`, `b)` and `iv.` are numbers, anything else is a bullet. */
export function markerFacts(marker: string, level: number): Pick<ListLine, "ordered" | "number" | "marker"> {
  const text = marker.replace(/[\s\u00a0]+/g, "");
  const number = /^\(?(?:(\d{1,6})|([ivxlc]{1,7})|([a-z]))[.)]+$/i.exec(
    text.split(".").length > 2
      ? `${text
          .replace(/[.)]+$/, "")
          .split(".")
          .at(-1)}.`
      : text,
  );
  // Letters and digits may be places in a symbol font.
  if (!number)
    return {
      ordered: false,
      marker: /^[^\p{L}\p{N}]$|^o$/u.test(text) ? bulletMarker(text, level) : undefined,
    };
  const [before, after] = [text.startsWith("(") ? "(" : "", /[.)]+$/.exec(text)![0]];
  if (number[1])
    return { ordered: true, number: Number(number[1]), marker: numberMarker(undefined, before, after) };
  const letters = number[2] ?? number[3]!;
  const small = letters.toLowerCase();
  const isRoman = small === "i" || small.length > 1;
  const letterCase = small === letters ? "lower" : "upper";
  return {
    ordered: true,
    number: isRoman ? romanNumber(small) : small.charCodeAt(0) - 96,
    marker: numberMarker(`${letterCase}-${isRoman ? "roman" : "alpha"}`, before, after),
  };
}

const ROMAN: Readonly<Record<string, number>> = { i: 1, v: 5, x: 10, l: 50, c: 100 };

function romanNumber(letters: string): number {
  return [...letters].reduce((sum, letter, at) => {
    const value = ROMAN[letter]!;
    return value < (ROMAN[letters[at + 1] ?? ""] ?? 0) ? sum - value : sum + value;
  }, 0);
}
