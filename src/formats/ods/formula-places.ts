import { columnLetters, columnNumber } from "../../content/cells.js";

/** A place of cells in OpenDocument: `.C4`, `$Spring.C4:.C6`, with what stands around it in a formula (ODF 1.3 part 4, 5.8) or not. */
const PLACE =
  /("(?:[^"]|"")*")|(\$?(?:'(?:[^']|'')*'|[\p{L}_][\p{L}\p{N}_]*))?\.(\$?)([A-Z]{1,3})(\$?)(\d{1,7})(?::(\$?(?:'(?:[^']|'')*'|[\p{L}_][\p{L}\p{N}_]*))?\.(\$?)([A-Z]{1,3})(\$?)(\d{1,7}))?(?![\p{L}\p{N}_(.])/gu;

/** One place of cells, as it is written. */
interface Place {
  readonly sheet: string | undefined;
  readonly from: number;
  readonly to: number | undefined;
}

type Map = (place: Place) => { from: number; to: number | undefined } | undefined;

/** A text with its places of cells, rows counting from 0, mapped to other rows; those for which nothing is given stay. */
function mapped(text: string, map: Map): string {
  return text.replace(PLACE, (all: string, ...found: unknown[]) => {
    const [quoted, sheet = "", a$, a, r$, r, other = "", b$, b, s$, s] = found as (string | undefined)[];
    if (quoted !== undefined || a === undefined) return all;
    const place = {
      sheet: sheetName(sheet),
      from: Number(r) - 1,
      to: s === undefined ? undefined : Number(s) - 1,
    };
    const made = map(place);
    if (!made) return all;
    const end = b === undefined ? "" : `:${other}.${b$}${b}${s$}${made.to! + 1}`;
    return `${sheet}.${a$}${a}${r$}${made.from + 1}${end}`;
  });
}

/** A formula that stands some rows further down: places without a `$` before their row go down with it. */
export function movedDown(formula: string, rows: number, columns = 0): string {
  return formula.replace(PLACE, (all: string, ...found: unknown[]) => {
    const [quoted, sheet = "", a$, a, r$, r, other = "", b$, b, s$, s] = found as (string | undefined)[];
    if (quoted !== undefined || a === undefined) return all;
    const moved = (dollar = "", column: string, lock = "", row: string) =>
      `.${dollar}${dollar ? column : columnLetters(columnNumber(column) + columns)}${lock}${lock ? row : Number(row) + rows}`;
    return `${sheet}${moved(a$, a, r$, r!)}${b === undefined ? "" : `:${other}${moved(b$, b, s$, s!)}`}`;
  });
}

/** The rows of a sheet that a formula speaks of, each from its first to its last. */
export function rowsIn(
  formula: string,
  isOfSheet: (sheet: string | undefined) => boolean,
): [number, number][] {
  const found: [number, number][] = [];
  mapped(formula, ({ sheet, from, to = from }) => {
    if (isOfSheet(sheet)) found.push([from, to]);
    return undefined;
  });
  return found;
}

/** A text after rows were added to a sheet, or, by a negative count, taken out: as in other workbooks, a range that ends right above takes them in. */
export function withRowsAdded(
  text: string,
  isOfSheet: (sheet: string | undefined) => boolean,
  at: number,
  count: number,
): string {
  return mapped(text, ({ sheet, from, to }) => {
    if (!isOfSheet(sheet)) return undefined;
    const down = (row: number) => (row >= at ? row + count : row);
    const grows = count > 0 && to === at - 1 && to > from;
    return { from: down(from), to: to === undefined ? undefined : grows ? to + count : down(to) };
  });
}

function sheetName(written: string): string | undefined {
  const bare = written.replace(/^\$/, "");
  if (bare === "") return undefined;
  return bare.startsWith("'") ? bare.slice(1, -1).replaceAll("''", "'") : bare;
}
