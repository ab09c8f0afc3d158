/** The cells of a rectangle: rows and columns count from 0, the ends are included. */
export interface Rectangle {
  readonly top: number;
  readonly left: number;
  readonly bottom: number;
  readonly right: number;
}

/**
 * Reads `A1` or `A1:C4`, in either order of the corners; nothing when it is not written so.
 * @param text as it is written: `A2:G2`
 */
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

/**
 * Reads whole rows (`3:5`) or whole columns (`A:C`) of a sheet that reaches as far as `used`; nothing when it is not
 * written so.
 */
export function parseLines(text: string, used: () => Rectangle): Rectangle | undefined {
  const rows = /^\$?([1-9]\d{0,6}):\$?([1-9]\d{0,6})$/.exec(text);
  if (rows) {
    const [first, last] = [Number(rows[1]) - 1, Number(rows[2]) - 1].sort((a, b) => a - b) as [
      number,
      number,
    ];
    const { left, right } = used();
    return { top: first, bottom: last, left, right };
  }
  const columns = /^\$?([A-Za-z]{1,3}):\$?([A-Za-z]{1,3})$/.exec(text);
  if (!columns) return undefined;
  const ends = [columnNumber(columns[1]!), columnNumber(columns[2]!)].sort((a, b) => a - b) as [
    number,
    number,
  ];
  const { top, bottom } = used();
  return { top, bottom, left: ends[0], right: ends[1] };
}

/** The number of a column, counting from 0, by its letters. */
export function columnNumber(letters: string): number {
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
