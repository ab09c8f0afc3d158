import type { Content, Table } from "../../content/model.js";
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

/** The width of the text on a page of A4, upright and turned, in points. */
const TEXT_WIDTH = { portrait: 451, landscape: 698 };

/** The size of letters that widths are reckoned in, the smallest for which a page stays upright, and the smallest of all; in points. */
const LETTERS = { usual: 12, upright: 8, least: 6 };

/** The sizes that letters of wide tables can have, in points. */
export const SMALLER_SIZES: readonly number[] = [6, 7, 8, 9, 10, 11];

/** How a page is turned. */
export type Orientation = keyof typeof TEXT_WIDTH;

/** How a table stands on a page: how wide its columns are, in points, and how large its letters, where they must be smaller. */
export interface FittedTable {
  readonly widths: readonly number[];
  readonly size?: number;
}

/** How pages are turned on which no figure of these tables is broken: upright, unless letters would be too small there. */
export function orientationFor(content: Content): Orientation {
  const isWide = (table: Table) =>
    !table.widths && sum(needsOf(table).least) * LETTERS.upright > TEXT_WIDTH.portrait * LETTERS.usual;
  return content.some((flow) => flow.type === "table" && isWide(flow)) ? "landscape" : "portrait";
}

/**
 * Column widths as a careful person would set them: each column as wide as its longest line, as far as all fit beside each other;
 * where they do not, long columns share what the short ones leave, and where a word or a figure would be broken, letters are smaller.
 */
export function fittedTable(table: Table, orientation: Orientation): FittedTable {
  const room = TEXT_WIDTH[orientation];
  const { least, wanted } = needsOf(table);
  if (sum(wanted) <= room) return { widths: wanted };
  if (sum(least) >= room) {
    const size = Math.max(LETTERS.least, Math.floor((LETTERS.usual * room) / sum(least)));
    return {
      widths: least.map((width) => (width * room) / sum(least)),
      ...(size < LETTERS.usual && { size }),
    };
  }
  const share = (room - sum(least)) / (sum(wanted) - sum(least));
  return { widths: wanted.map((width, column) => least[column]! + (width - least[column]!) * share) };
}

function sum(widths: readonly number[]): number {
  return widths.reduce((all, width) => all + width, 0);
}

/** How wide each column must be so that no word is broken, and how wide so that no line is; in points, for letters of the usual size. */
function needsOf(table: Table): { least: number[]; wanted: number[] } {
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
  return { least, wanted: lines.map((line, column) => Math.max(least[column]!, line * LETTER + PADDING)) };
}

/** How many letters' room a text takes; signs of East Asian scripts take that of two. */
function lettersOf(text: string): number {
  return (
    text.length +
    (text.match(/[\u1100-\u115f\u2e80-\ua4cf\uac00-\ud7a3\uf900-\ufaff\uff00-\uff60]/g)?.length ?? 0)
  );
}
