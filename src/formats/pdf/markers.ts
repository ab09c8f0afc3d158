import type { NumberForm } from "../../content/number-forms.js";

/** What stands before an item of a list. */
export interface ItemMark {
  /** How many letters of the line it takes, with the space after it. */
  readonly length: number;
  readonly ordered: boolean;
  /** The numbers that it may be, with how they are written: `i` may be a letter or a Roman one. */
  readonly numbers: readonly { readonly number: number; readonly form?: NumberForm }[];
  readonly before: string;
  readonly after: string;
}

const BULLET = /^(?:[•◦▪▫‣⁃∙·●○■□◆◇▶➢✓✔❖\uf000-\uf0ff]|(?:[-–—*o])(?=\s))\s*/u;
/** Marks that a line of text may begin with too. */
const DOUBTFUL = /^[-–—*o·]/;
const NUMBER = /^(\(?)(\d{1,3}|[a-zA-Z]|[ivxlcIVXLC]{2,6})([.)])\s+(?=\S)/;

/** The mark of an item at the beginning of a line; nothing when there is none. */
export function itemMark(text: string): (ItemMark & { readonly isDoubtful: boolean }) | undefined {
  const bullet = BULLET.exec(text);
  if (bullet && bullet[0].length < text.length)
    return {
      ...{ length: bullet[0].length, ordered: false, numbers: [], before: "", after: "" },
      isDoubtful: DOUBTFUL.test(text),
    };
  const [all, before, said, after] = NUMBER.exec(text) ?? [];
  if (all === undefined) return undefined;
  return {
    ...{ length: all.length, ordered: true, numbers: numbersOf(said!) },
    ...{ before: before!, after: after!, isDoubtful: true },
  };
}

/** The mark that stands by itself, as tags give it. */
export function loneMark(text: string): ItemMark | undefined {
  const mark = itemMark(`${text.trim()} x`);
  return mark && (mark.length === text.trim().length + 1 || !mark.ordered) ? mark : undefined;
}

function numbersOf(said: string): ItemMark["numbers"] {
  if (/^\d/.test(said)) return [{ number: Number(said) }];
  const isUpper = said === said.toUpperCase();
  const letter =
    said.length === 1 ? [{ number: said.toLowerCase().charCodeAt(0) - 96, form: alpha(isUpper) }] : [];
  const roman = romanOf(said.toLowerCase());
  return [...letter, ...(roman === undefined ? [] : [{ number: roman, form: romanForm(isUpper) }])];
}

function alpha(isUpper: boolean): NumberForm {
  return isUpper ? "upper-alpha" : "lower-alpha";
}

function romanForm(isUpper: boolean): NumberForm {
  return isUpper ? "upper-roman" : "lower-roman";
}

function romanOf(text: string): number | undefined {
  if (!/^(?:c{0,3})(?:xc|xl|l?x{0,3})(?:ix|iv|v?i{0,3})$/.test(text) || text === "") return undefined;
  const values: Readonly<Record<string, number>> = { i: 1, v: 5, x: 10, l: 50, c: 100 };
  return [...text].reduce((sum, letter, at) => {
    const value = values[letter]!;
    return sum + (value < (values[text[at + 1] ?? ""] ?? 0) ? -value : value);
  }, 0);
}
