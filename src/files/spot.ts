import { DrawerError } from "../content/error.js";
import type { Rectangle } from "../content/table.js";

/** A place in a document, as it is written on the command line and in messages. */
export type Spot =
  | { readonly type: "paragraphs" | "lines"; readonly from: number; readonly to: number }
  | { readonly type: "table" | "picture" | "section"; readonly number: number; readonly cells?: Rectangle };

/** Reads `A1` or `A1:C4`, in either order of the corners; nothing when it is not written so. */
export function parseCells(text: string): Rectangle | undefined {
  const match = /^\$?([A-Za-z]{1,3})\$?([1-9]\d{0,6})(?::\$?([A-Za-z]{1,3})\$?([1-9]\d{0,6}))?$/.exec(text);
  if (!match) return undefined;
  const [, column, row, toColumn = column, toRow = row] = match;
  const columns = [columnNumber(column!), columnNumber(toColumn!)];
  const rows = [Number(row) - 1, Number(toRow) - 1];
  return {
    top: Math.min(...rows),
    bottom: Math.max(...rows),
    left: Math.min(...columns),
    right: Math.max(...columns),
  };
}

function columnNumber(letters: string): number {
  let number = 0;
  for (const letter of letters.toUpperCase()) number = number * 26 + letter.charCodeAt(0) - 64;
  return number - 1;
}

/** Writes a rectangle of cells as `A1` or `A1:C4`. */
export function writeCells({ top, left, bottom, right }: Rectangle): string {
  const first = `${columnLetters(left)}${top + 1}`;
  return top === bottom && left === right ? first : `${first}:${columnLetters(right)}${bottom + 1}`;
}

/** The letters of a column, counting from 0: `A`, `Z`, `AA`. */
export function columnLetters(column: number): string {
  const letter = String.fromCharCode(65 + (column % 26));
  return column < 26 ? letter : columnLetters(Math.floor(column / 26) - 1) + letter;
}

/**
 * Reads a spot of a document: `p3`, `p3..p6`, `l10..l14`, `t1`, `t1!A1:C2`, `i1`, `s2`.
 * @throws DrawerError `bad-spot`
 */
export function parseSpot(text: string): Spot {
  const range = /^([pl])([1-9]\d{0,8})(?:\.\.\1?([1-9]\d{0,8}))?$/.exec(text);
  if (range) {
    const ends = [Number(range[2]), Number(range[3] ?? range[2])];
    return {
      type: range[1] === "p" ? "paragraphs" : "lines",
      from: Math.min(...ends),
      to: Math.max(...ends),
    };
  }
  const single = /^([tis])([1-9]\d{0,8})$/.exec(text);
  if (single) return { type: KINDS[single[1]!]!, number: Number(single[2]) };
  const part = /^t([1-9]\d{0,8})!(.+)$/.exec(text);
  const cells = part && parseCells(part[2]!);
  if (cells) return { type: "table", number: Number(part[1]), cells };
  throw new DrawerError(
    "bad-spot",
    `“${text}” is not a spot of a document. Write p3, p3..p6, t1, t1!A1:C2, i1, s2, or in plain text l10..l14.`,
  );
}

const KINDS: Readonly<Record<string, "table" | "picture" | "section">> = {
  t: "table",
  i: "picture",
  s: "section",
};
