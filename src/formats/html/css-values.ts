import { colord, extend } from "colord";
import names from "colord/plugins/names";
import type { Align } from "../../content/model.js";

extend([names]);

const colors = new Map<string, string | undefined>();

/** A CSS or HTML colour as `#rrggbb`; nothing for a transparent one, or one that depends on the reader's screen. */
export function parseColor(value: string): string | undefined {
  const key = value.trim().toLowerCase();
  if (colors.has(key)) return colors.get(key);
  const color = key.length <= 64 ? colord(/^[0-9a-f]{6}$/.test(key) ? `#${key}` : key) : undefined;
  const hex = color?.isValid() && color.alpha() > 0 ? color.alpha(1).toHex() : undefined;
  if (colors.size < 10_000) colors.set(key, hex);
  return hex;
}

/** The colour of a `background`, which may have more after it. */
export function parseBackground(value: string): string | undefined {
  return parseColor(value) ?? parseColor(value.split(/\s(?![^(]*\))/)[0]!);
}

/** The first family of a font list, without quotes; nothing for a word that only says “like the surroundings”. */
export function parseFont(value: string): string | undefined {
  const first = /^\s*(?:"([^"]*)"|'([^']*)'|([^,]*))/.exec(value);
  const name = (first?.[1] ?? first?.[2] ?? first?.[3] ?? "").trim();
  if (
    !/^[\p{L}\p{N}][\p{L}\p{N}\p{M} ._+-]{0,79}$/u.test(name) ||
    /^(inherit|initial|unset|revert)$/i.test(name)
  ) {
    return undefined;
  }
  return name;
}

/** Points for each step of the old sizes 1 to 7, which are also the sizes by name. */
const STEPS = [7.5, 10, 12, 13.5, 18, 24, 36];
const SIZE_NAMES: Readonly<Record<string, number>> = {
  "xx-small": 6.75,
  "x-small": 7.5,
  small: 9.75,
  medium: 12,
  large: 13.5,
  "x-large": 18,
  "xx-large": 24,
  "xxx-large": 36,
};

/** A font size in points, to a hundredth; `parent` is the size around it. Nothing when it cannot be told or is absurd. */
export function parseSize(value: string, parent: number): number | undefined {
  const text = value.trim().toLowerCase();
  const named = SIZE_NAMES[text];
  if (named) return named;
  if (text === "smaller") return round(parent / 1.2);
  if (text === "larger") return round(parent * 1.2);
  const match = /^(\d{0,6}(?:\.\d{1,6})?)(px|pt|pc|in|cm|mm|q|em|rem|%)$/.exec(text);
  if (!match || match[1] === "") return undefined;
  const points =
    Number(match[1]) *
    (UNITS[match[2]!] ?? (match[2] === "rem" ? 12 : match[2] === "em" ? parent : parent / 100));
  return points >= 1 && points <= 1638 ? round(points) : undefined;
}

const UNITS: Readonly<Record<string, number>> = {
  px: 0.75,
  pt: 1,
  pc: 12,
  in: 72,
  cm: 72 / 2.54,
  mm: 7.2 / 2.54,
  q: 1.8 / 2.54,
};

/** The `size` of a `font` element, 1 to 7, or `+1`, `-2` from 3. */
export function parseFontStep(value: string): number | undefined {
  const match = /^\s*([+-]?)(\d{1,2})/.exec(value);
  if (!match) return undefined;
  const step = match[1] ? 3 + Number(match[1] + match[2]!) : Number(match[2]);
  return STEPS[Math.min(7, Math.max(1, step)) - 1];
}

const round = (points: number) => Math.round(points * 100) / 100;

/** An alignment; nothing for the natural one. */
export function parseAlign(value: string): Align | undefined {
  const align = value
    .trim()
    .toLowerCase()
    .replace(/^-(webkit|moz)-/, "");
  return align === "center" || align === "right" || align === "justify" || align === "left"
    ? align
    : undefined;
}
