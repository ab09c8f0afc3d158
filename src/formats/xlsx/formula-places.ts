import { columnLetters, columnNumber } from "../../content/cells.js";

/** What stands in a formula: texts, quoted names of sheets, and places of cells with what names their sheet (ECMA-376 part 1, 18.17.2). */
const TOKENS =
  /"(?:[^"]|"")*"|((?:'(?:[^']|'')*'|[\p{L}_][\p{L}\p{N}_.]*)!)?(?<![\p{L}\p{N}_.$\]])(\$?)([A-Z]{1,3})(\$?)(\d{1,7})(?::(\$?)([A-Z]{1,3})(\$?)(\d{1,7}))?(?![\p{L}\p{N}_(.!])/gu;
/** Whole rows. */
const ROWS =
  /((?:'(?:[^']|'')*'|[\p{L}_][\p{L}\p{N}_.]*)!)?(?<![\p{L}\p{N}_.$:])(\$?)(\d{1,7}):(\$?)(\d{1,7})(?![\p{L}\p{N}_.:])/gu;

/** A formula that stands some rows further down: places without a `$` before their row go down with it. */
export function movedDown(formula: string, rows: number, columns = 0): string {
  return formula.replace(TOKENS, (all: string, ...found: unknown[]) => {
    const [sheet = "", a$, a, r$, r, b$, b, s$, s] = found as (string | undefined)[];
    if (a === undefined) return all;
    const moved = (dollar = "", column: string, lock = "", row: string) =>
      `${dollar}${dollar ? column : columnLetters(columnNumber(column) + columns)}${lock}${lock ? row : Number(row) + rows}`;
    const end = b === undefined ? "" : `:${moved(b$, b, s$, s!)}`;
    return `${sheet}${moved(a$, a, r$, r!)}${end}`;
  });
}

/** The rows of a sheet that a formula speaks of, counting from 0, each from its first to its last. */
export function rowsIn(
  formula: string,
  isOfSheet: (sheet: string | undefined) => boolean,
): [number, number][] {
  const found: [number, number][] = [];
  for (const match of formula.matchAll(TOKENS)) {
    const [, sheet, , column, , row, , , , toRow = row] = match;
    if (column !== undefined && isOfSheet(sheetName(sheet))) found.push([Number(row) - 1, Number(toRow) - 1]);
  }
  for (const [, sheet, , from, , to] of formula.replace(/"(?:[^"]|"")*"/g, "").matchAll(ROWS))
    if (isOfSheet(sheetName(sheet))) found.push([Number(from) - 1, Number(to) - 1]);
  return found;
}

/**
 * A formula after rows were added to a sheet: what stands at or below the place goes down; a range that ends right above it, and reaches over
 * more than a row or to what is added, takes the added rows in.
 *
 * @param at the first row that goes down, counting from 0
 * @param count how many rows are added
 */
export function withRowsAdded(
  formula: string,
  isOfSheet: (sheet: string | undefined) => boolean,
  at: number,
  count: number,
): string {
  return formula.replace(TOKENS, (all: string, ...found: unknown[]) => {
    const [sheet, a$ = "", a, r$ = "", r, b$ = "", b, s$ = "", s] = found as (string | undefined)[];
    if (a === undefined || !isOfSheet(sheetName(sheet))) return all;
    const down = (row: number) => (row >= at ? row + count : row);
    const from = Number(r) - 1;
    const start = `${sheet ?? ""}${a$}${a}${r$}${down(from) + 1}`;
    if (b === undefined) return start;
    const to = Number(s) - 1;
    const end = to === at - 1 && to > from ? to + count : down(to);
    return `${start}:${b$}${b}${s$}${end + 1}`;
  });
}

/** The name of a sheet as it stands before `!`, without its quotes. */
function sheetName(written: string | undefined): string | undefined {
  if (written === undefined) return undefined;
  const bare = written.slice(0, -1);
  return bare.startsWith("'") ? bare.slice(1, -1).replaceAll("''", "'") : bare;
}
