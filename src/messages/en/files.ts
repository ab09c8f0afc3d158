import { counted } from "./phrases.js";

/** What is refused of spots in files. */
export const filesErrors = {
  /** A document has no such spot. */
  "no-spot": ({ file, spot, has }: { file: string; spot: string; has: Parts }) =>
    `“${file}” has no ${spot}: it has ${partsOf(has)}.`,
  /** A workbook has no such sheet. */
  "no-spot/sheet": ({ file, sheet, sheets }: { file: string; sheet: string; sheets: string }) =>
    `“${file}” has no sheet “${sheet}”. Its sheets are: ${sheets}.`,
  /** A workbook has no such cells. */
  "no-spot/cells": ({
    file,
    spot,
    example,
    sheets,
  }: {
    file: string;
    spot: string;
    example: string;
    sheets: string;
  }) =>
    `“${file}” has no ${spot}. Write cells as ${example}!A2:G2, rows as 3:5, columns as A:C, or the name of a sheet: ${sheets}.`,
  /** A table of a document has no such cells. */
  "no-spot/table": ({
    file,
    spot,
    rows,
    columns,
  }: {
    file: string;
    spot: string;
    rows: number;
    columns: number;
  }) =>
    `“${file}” has no cells ${spot}: the table has ${counted(rows, "row")} and ${counted(columns, "column")}.`,
  /** Lines are counted in plain text only. */
  "no-spot/lines": ({ file, spot }: { file: string; spot: string }) =>
    `“${file}” has no lines to count: ${spot} is for plain text. Use p3 or p3..p6.`,
  /** An attached file was not opened before something in it was asked for. */
  "no-spot/closed": ({ file, spot, name }: { file: string; spot: string; name: string }) =>
    `${spot} stands in “${name}”, which is attached to “${file}” and not open yet: \`await source.open("${spot}")\` opens it.`,
  /** The named places of a file were not looked for before one was asked for. */
  "no-spot/unsought": ({ file, spot }: { file: string; spot: string }) =>
    `The named places of “${file}” have not been looked for: \`await source.open("${spot}")\` looks for them.`,
  /** A file has no place of this name. */
  "no-spot/name": ({ file, name, names }: { file: string; name: string; names: readonly string[] }) =>
    `“${file}” has no place “${name}”. ${names.length === 0 ? "It has no named places." : `Its places are: ${names.join(", ")}.`}`,
  /** There is none of what a file is to be taken by, one by one. */
  "no-spot/each": ({
    file,
    unit,
    units,
    spot,
  }: {
    file: string;
    unit: string;
    units: readonly string[];
    spot?: string;
  }) =>
    units.includes(unit)
      ? `“${file}” has no ${unit}${spot === undefined ? "" : ` at ${spot}`} that holds anything.`
      : `“${file}” is not taken by the ${unit}, but by the ${orList(units)}.`,
  /** What was written is not the form of a spot. */
  "bad-spot": ({ spot }: { spot: string }) =>
    `“${spot}” is not a spot of a document. Write p3, p3..p6, t1, t1!A1:C2, i1, s2, in plain text l10..l14, in slides sl2..sl4, in a PDF pg2..pg4, in a mail a1 and a1!p3, and name:Wind for a named place.`,
};

/** How many of something a document has, and the letter of its spots. */
interface Parts {
  readonly count: number;
  readonly letter: string;
  readonly what: "paragraph" | "table" | "picture" | "heading" | "slide" | "page" | "attachment" | "line";
}

function partsOf({ count, letter, what }: Parts): string {
  if (count === 0) return `no ${what}s`;
  return count === 1 ? `one ${what}, ${letter}1` : `${count} ${what}s, ${letter}1 to ${letter}${count}`;
}

function orList(words: readonly string[]): string {
  return [words.slice(0, -1).join(", "), words.at(-1)].filter(Boolean).join(" or ");
}
