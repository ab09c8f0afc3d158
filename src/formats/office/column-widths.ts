import type { Table } from "../../content/model.js";
import { columnsOf, mapRows } from "../../content/spans.js";
import { cellText } from "../text/write.js";

/**
 * The usual width of a letter in text of 12 points, that of the letters of a bold word, which must not be broken, and
 * what a cell takes beside its text; all in points.
 */
const LETTER = 6;
const WIDE_LETTER = 7.5;
const PADDING = 6;
/** How wide a column of words may be before it breaks its lines, in letters. */
const MOST = 45;

/**
 * Column widths as a careful person would set them, in points: each column as wide as its longest line, as far as all
 * fit beside each other; where they do not, long columns share what the short ones leave.
 *
 * @param room how wide the table may be, in points
 */
export function fittedWidths(table: Table, room: number): number[] {
  const lines: number[] = Array.from({ length: columnsOf(table) }, () => 1);
  const words = [...lines];
  mapRows(table.rows, (row, columns) =>
    row.forEach((cell, at) => {
      if ((cell.colspan ?? 1) > 1) return;
      const column = columns[at]!;
      for (const line of cellText(cell.flows).split("\n")) {
        lines[column] = Math.max(lines[column]!, Math.min(MOST, lettersOf(line)));
        for (const word of line.split(/\s+/)) words[column] = Math.max(words[column]!, lettersOf(word));
      }
    }),
  );
  const least = words.map((word) => Math.min(word, MOST) * WIDE_LETTER + PADDING);
  const wanted = lines.map((line, column) => Math.max(least[column]!, line * LETTER + PADDING));
  const sum = (widths: readonly number[]) => widths.reduce((all, width) => all + width, 0);
  if (sum(wanted) <= room) return wanted;
  if (sum(least) >= room) return least.map((width) => (width * room) / sum(least));
  const share = (room - sum(least)) / (sum(wanted) - sum(least));
  return wanted.map((width, column) => least[column]! + (width - least[column]!) * share);
}

/** How many letters' room a text takes; signs of East Asian scripts take that of two. */
function lettersOf(text: string): number {
  return (
    text.length +
    (text.match(/[\u1100-\u115f\u2e80-\ua4cf\uac00-\ud7a3\uf900-\ufaff\uff00-\uff60]/g)?.length ?? 0)
  );
}
