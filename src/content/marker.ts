import { type Content, type List, type Marker, textRun } from "./model.js";

/** How the marks of a list's items are written. */

type Numbers = NonNullable<Marker["numbers"]>;

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

/** A number as a list writes it. Letters go on after `z` with `aa`; what has no such form stays decimal. */
export function numberText(number: number, numbers: Numbers | undefined): string {
  if (number < 1 || number > 3999 || numbers === undefined) return String(number);
  const text = numbers.endsWith("alpha") ? letters(number) : roman(number);
  return numbers.startsWith("upper") ? text.toUpperCase() : text;
}

function letters(number: number): string {
  const rest = Math.floor((number - 1) / 26);
  return (rest > 0 ? letters(rest) : "") + String.fromCharCode(97 + ((number - 1) % 26));
}

function roman(number: number): string {
  let text = "";
  let rest = number;
  for (const [value, sign] of ROMAN) {
    for (; rest >= value; rest -= value) text += sign;
  }
  return text;
}

const ROMAN: readonly (readonly [value: number, sign: string])[] = [
  [1000, "m"],
  [900, "cm"],
  [500, "d"],
  [400, "cd"],
  [100, "c"],
  [90, "xc"],
  [50, "l"],
  [40, "xl"],
  [10, "x"],
  [9, "ix"],
  [5, "v"],
  [4, "iv"],
  [1, "i"],
];

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
  numbers: Numbers | undefined,
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

/** The numbers that office formats call by their first one: `a`, `A`, `i`, `I`. */
export const NUMBERS_BY_FIRST: Readonly<Record<string, Numbers | undefined>> = {
  a: "lower-alpha",
  A: "upper-alpha",
  i: "lower-roman",
  I: "upper-roman",
};
