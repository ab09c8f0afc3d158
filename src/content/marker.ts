import { type Content, type List, type Marker, textRun } from "./model.js";
import { NUMBER_FORMS, type NumberForm } from "./number-forms.js";

/** How the marks of a list's items are written. */

/** What stands before an item in text: `3.`, `(b)`, `iv.`; a hyphen for the bullets that lists have anyway. */
export function markText({ ordered, start = 1, marker = {} }: List, index: number): string {
  if (!ordered) return isUsual(marker.bullet) ? "-" : marker.bullet;
  const { numbers, before = "", after = "." } = marker;
  return `${before}${numberText(start + index, numbers)}${after}`;
}

/** The flows of an item with its mark as text before them; in a line of its own where they begin with none. */
export function withMark(mark: string, flows: Content): Content {
  const [first, ...rest] = flows;
  if (first?.type !== "paragraph") return [{ type: "paragraph", runs: [textRun(mark)] }, ...flows];
  return [{ ...first, runs: [textRun(mark), ...first.runs] }, ...rest];
}

/** A number as a list writes it; what has no such form stays decimal. */
export function numberText(number: number, numbers: NumberForm | undefined): string {
  const isFormed = numbers !== undefined && number >= 1 && number <= LARGEST_FORMED;
  return (isFormed ? NUMBER_FORMS[numbers](number) : undefined) ?? String(number);
}

/** No list counts further in letters or words. */
const LARGEST_FORMED = 100_000;

/** The marker of a list that counts to a number: letters that would be repeated only later are plain letters. */
export function settledMarker(marker: Marker | undefined, last: number): Marker | undefined {
  const plain = /^(.*-alpha)-repeated$/.exec(marker?.numbers ?? "")?.[1] as NumberForm | undefined;
  return plain && last <= 26 ? { ...marker, numbers: plain } : marker;
}

/** The bullets that lists have, by how deep they stand. */
const BULLETS = ["•", "◦", "▪"] as const;

function isUsual(bullet: string | undefined): bullet is undefined {
  return bullet === undefined || BULLETS.some((usual) => usual === bullet);
}

/** The bullet that is usual at a level, counting from 0. */
export function usualBullet(level: number): string {
  return BULLETS[level % 3]!;
}

/** Signs that are drawn as a usual bullet. */
const ALIKE: Readonly<Record<string, string>> = {
  "·": "•",
  "●": "•",
  "\u2219": "•",
  "\u25e6": "◦",
  o: "◦",
  "○": "◦",
  "■": "▪",
  "\u25fc": "▪",
  "§": "▪",
};

/** The marker of a list with this bullet at a level; nothing where it is the usual one. */
export function bulletMarker(sign: string, level: number): Marker | undefined {
  const bullet = ALIKE[sign] ?? sign;
  return bullet === "" || bullet === usualBullet(level) ? undefined : { bullet };
}

/** The marker of a list with such numbers; nothing where they are plain. */
export function numberMarker(
  numbers: NumberForm | undefined,
  before: string,
  after: string,
): Marker | undefined {
  if (numbers === undefined && before === "" && after === ".") return undefined;
  return {
    ...(numbers && { numbers }),
    ...(before !== "" && { before }),
    ...(after !== "." && { after }),
  };
}

/** The numbers that HTML and office formats call by their first one: `a`, `A`, `i`, `I`. */
export const NUMBERS_BY_FIRST: Readonly<Record<string, NumberForm | undefined>> = {
  a: "lower-alpha",
  A: "upper-alpha",
  i: "lower-roman",
  I: "upper-roman",
};
