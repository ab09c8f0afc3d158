import type { Flow } from "../../content/model.js";
import type { Box } from "./page-facts.js";
import { rowsOf, type Segment } from "./segments.js";

/** What stands on a page as one: text of a line, or what has become a flow by itself. */
export type Atom = Segment | Placed;

/** A flow with its place: a table or a picture. */
export interface Placed extends Box {
  readonly y: number;
  readonly size: number;
  readonly flow: Flow;
}

/** What is read as one, in the order of reading. */
export type Block =
  | {
      readonly type: "lines";
      readonly rows: readonly Segment[][];
      readonly within: Pick<Box, "left" | "right">;
    }
  | { readonly type: "table"; readonly rows: readonly (readonly (readonly Segment[])[])[]; readonly box: Box }
  | { readonly type: "placed"; readonly placed: Placed };

/** Each of two columns has at least so many lines. */
const COLUMN_LINES = 4;
/** Text of a column is longer than this, in letters, in most of its lines; what is shorter may be a table. */
const COLUMN_TEXT = 20;
/** The room between two columns is wider than this, in the size of the text. */
const GUTTER = 0.7;
/** How deep columns may stand in each other. */
const DEPTH = 12;

export function isText(atom: Atom): atom is Segment {
  return "pieces" in atom;
}

/** What stands on a page, in the order of reading: columns one after another, tables by how their text is lined up. */
export function blocksOf(atoms: readonly Atom[]): Block[] {
  return inOrder(atoms, edgesOf(atoms), 0);
}

function edgesOf(atoms: readonly Box[]): { left: number; right: number } {
  return {
    left: Math.min(...atoms.map(({ left }) => left)),
    right: Math.max(...atoms.map(({ right }) => right)),
  };
}

function inOrder(atoms: readonly Atom[], within: Pick<Box, "left" | "right">, depth: number): Block[] {
  if (atoms.length === 0) return [];
  const columns = depth < DEPTH ? columnsIn(atoms) : undefined;
  if (!columns) return runsOfRows(atoms, within);
  const { above, left, right, below } = columns;
  const sides = isRightToLeft(atoms) ? [right, left] : [left, right];
  return [
    ...inOrder(above, within, depth + 1),
    ...sides.flatMap((side) => inOrder(side, edgesOf(side), depth + 1)),
    ...inOrder(below, within, depth + 1),
  ];
}

function isRightToLeft(atoms: readonly Atom[]): boolean {
  const texts = atoms.filter(isText);
  return texts.filter(({ pieces }) => pieces[0]!.isRightToLeft).length > texts.length / 2;
}

interface Columns {
  readonly above: Atom[];
  readonly left: Atom[];
  readonly right: Atom[];
  readonly below: Atom[];
}

/** The two columns with the most lines, that nothing runs across; nothing when there are none. */
function columnsIn(atoms: readonly Atom[]): Columns | undefined {
  const sorted = [...atoms].sort((a, b) => a.top - b.top);
  let best: { columns: Columns; lines: number } | undefined;
  for (const place of gutterPlaces(sorted)) {
    // From one that runs across the place to the next.
    let run: Atom[] = [];
    let before: Atom[] = [];
    sorted.forEach((atom, at) => {
      const crosses = atom.left < place - 0.5 && atom.right > place + 0.5;
      if (!crosses) run.push(atom);
      if (!crosses && at < sorted.length - 1) return;
      const found = asColumns(run, place);
      if (found && (!best || found.lines > best.lines)) {
        const known = new Set([...before, ...run]);
        const below = sorted.filter((each) => !known.has(each));
        best = {
          lines: found.lines,
          columns: { above: before, left: found.left, right: found.right, below },
        };
      }
      before = sorted.slice(0, at + 1);
      run = [];
    });
  }
  return best?.columns;
}

/** Places where many lines begin: there may be room between columns before them. */
function gutterPlaces(atoms: readonly Atom[]): number[] {
  const counts = new Map<number, number>();
  for (const { left } of atoms.filter(isText))
    counts.set(Math.round(left), (counts.get(Math.round(left)) ?? 0) + 1);
  const most = Math.min(...atoms.map(({ left }) => left));
  return [...counts]
    .filter(([left, count]) => count >= COLUMN_LINES && left > most + 20)
    .sort((a, b) => b[1] - a[1])
    .slice(0, 8)
    .map(([left]) => left - 1.5);
}

/** What stands on both sides of a place as two columns; nothing when that is a table, or no column at all. */
function asColumns(
  run: readonly Atom[],
  place: number,
): { left: Atom[]; right: Atom[]; lines: number } | undefined {
  const left = run.filter((atom) => (atom.left + atom.right) / 2 < place);
  const right = run.filter((atom) => (atom.left + atom.right) / 2 >= place);
  const lines = Math.min(left.filter(isText).length, right.filter(isText).length);
  if (lines < COLUMN_LINES || !isProse(left) || !isProse(right)) return undefined;
  const size = Math.max(...run.filter(isText).map((each) => each.size));
  const room = Math.min(...right.map((each) => each.left)) - Math.max(...left.map((each) => each.right));
  if (room < Math.min(GUTTER * size, 8)) return undefined;
  const [a, b] = [left, right].map((side) => ({
    from: Math.min(...side.map(({ top }) => top)),
    to: Math.max(...side.map(({ bottom }) => bottom)),
  })) as [{ from: number; to: number }, { from: number; to: number }];
  const shared = Math.min(a.to, b.to) - Math.max(a.from, b.from);
  return shared < 0.4 * Math.min(a.to - a.from, b.to - b.from) ? undefined : { left, right, lines };
}

/** Whether most of the text stands in lines that are long, and fill the width that they have. */
function isProse(atoms: readonly Atom[]): boolean {
  const texts = atoms.filter(isText);
  const { left, right } = edgesOf(texts);
  let [long, all] = [0, 0];
  for (const segment of texts) {
    const letters = segment.pieces.reduce((sum, { text }) => sum + text.length, 0);
    all += letters;
    if (letters >= COLUMN_TEXT && segment.right - segment.left >= 0.55 * (right - left)) long += letters;
  }
  return long >= 0.5 * all;
}

/** Lines, and the tables that are lined up among them, from the top. */
function runsOfRows(atoms: readonly Atom[], within: Pick<Box, "left" | "right">): Block[] {
  const blocks: Block[] = [];
  let lines: Segment[][] = [];
  const flush = () => {
    if (lines.length > 0) blocks.push({ type: "lines", rows: lines, within });
    lines = [];
  };
  const rows = rowsOf(atoms);
  for (let at = 0; at < rows.length;) {
    const placed = rows[at]!.filter((atom) => !isText(atom)) as Placed[];
    const texts = rows[at]!.filter(isText);
    if (placed.length > 0) {
      if (texts.length > 0) lines.push(texts);
      flush();
      for (const each of placed) blocks.push({ type: "placed", placed: each });
      at++;
      continue;
    }
    const table = tableAt(rows as Segment[][], at);
    if (!table) {
      lines.push(texts);
      at++;
      continue;
    }
    flush();
    blocks.push({ type: "table", rows: table.rows, box: table.box });
    at += table.length;
  }
  flush();
  return blocks;
}

/** A table has at least so many rows of several cells. */
const TABLE_ROWS = 3;
/** Rows as far apart as this, against the others of their table, are of different tables. */
const TABLE_ROOM = 1.8;
/** So many lines may follow in the cells of a row. */
const TABLE_LINES = 4;
/** Rows further apart than this are of different tables, in the size of the text. */
const ROW_ROOM = 3.2;
/** A line as near as this to the one above goes on in its cells, in the size of the text. */
const NEXT_LINE = 1.45;

/** The table whose text is lined up in columns from this row on; nothing when there is none. */
function tableAt(
  rows: readonly Segment[][],
  from: number,
): { rows: Segment[][][]; length: number; box: Box } | undefined {
  if (rows[from]!.length < 2) return undefined;
  let to = from;
  const several: Segment[][] = [];
  let columns: { left: number; right: number }[] = [];
  // As far as lines are near, and have several cells in the same columns, or may go on in one.
  for (let at = from; at < rows.length && at - to < TABLE_LINES; at++) {
    const row = rows[at]!;
    if (!row.every(isText)) break;
    const step = at > from ? row[0]!.y - rows[at - 1]![0]!.y : 0;
    if (step > ROW_ROOM * row[0]!.size) break;
    if (row.length >= 2) {
      const found = columnsOfRows([...several, row]);
      const isApart = [...several, row].every((each) => areApart(found, each));
      const isFar = several.length >= 2 && step > TABLE_ROOM * rowStep(several);
      const isNewHead = several.length >= 2 && isBold(row) && !isBold(rows[at - 1]!);
      if (isFar || isNewHead || isMarked(row) || (several.length >= 2 && !isApart)) break;
      several.push(row);
      columns = found;
      to = at;
    } else if (!isNextLine(rows[at - 1]!, row) || columnsUnder(columns, row[0]!) > 1) break;
  }
  if (several.length < TABLE_ROWS || columns.length < 2) return undefined;
  if (!several.every((row) => areApart(columns, row))) return undefined;
  const made: Segment[][][] = [];
  let end = to;
  for (let at = from; at < rows.length; at++) {
    const row = rows[at]!;
    if (at > to) {
      // What is left of the last row.
      const goesOn =
        row.length === 1 &&
        isText(row[0]!) &&
        columnOf(columns, row[0]!) > 0 &&
        isNextLine(rows[at - 1]!, row);
      if (!goesOn) break;
      end = at;
    }
    const cells: Segment[][] = columns.map(() => []);
    for (const segment of row) cells[Math.max(0, columnOf(columns, segment))]!.push(segment);
    const last = made.at(-1);
    const isContinued = last && cells[0]!.length === 0 && isNextLine(rows[at - 1]!, row);
    if (isContinued) cells.forEach((cell, column) => last[column]!.push(...cell));
    else made.push(cells);
  }
  const all = rows.slice(from, end + 1).flat();
  const box = {
    ...edgesOf(all),
    top: Math.min(...all.map(({ top }) => top)),
    bottom: Math.max(...all.map(({ bottom }) => bottom)),
  };
  return { rows: made, length: end - from + 1, box };
}

function isNextLine(before: readonly Segment[], row: readonly Segment[]): boolean {
  return row[0]!.y - before[0]!.y <= NEXT_LINE * row[0]!.size;
}

/** Where columns stand: where text of some row does; room that no row has text in parts them. */
function columnsOfRows(rows: readonly Segment[][]): { left: number; right: number }[] {
  const columns: { left: number; right: number }[] = [];
  for (const { left, right } of rows.flat().sort((a, b) => a.left - b.left)) {
    const last = columns.at(-1);
    if (last && left <= last.right + 1) last.right = Math.max(last.right, right);
    else columns.push({ left, right });
  }
  return columns;
}

function columnOf(columns: readonly { left: number; right: number }[], { left, right }: Box): number {
  const overlap = columns.map((column) => Math.min(right, column.right) - Math.max(left, column.left));
  return overlap.indexOf(Math.max(...overlap));
}

/** Whether the cells of a row stand in columns of their own. */
function areApart(columns: readonly { left: number; right: number }[], row: readonly Segment[]): boolean {
  return new Set(row.map((each) => columnOf(columns, each))).size === row.length;
}

/** How far apart rows of a table stand at least. */
function rowStep(rows: readonly Segment[][]): number {
  return Math.min(...rows.slice(1).map((row, at) => row[0]!.y - rows[at]![0]!.y));
}

function isBold(row: readonly Segment[]): boolean {
  return row.every(({ pieces }) => pieces.every((piece) => piece.isBold));
}

/** How many columns something stands over. */
function columnsUnder(columns: readonly { left: number; right: number }[], { left, right }: Box): number {
  return columns.filter((column) => left < column.right && column.left < right).length;
}

/** Whether a line begins with the mark of an item of a list, with room after it. */
function isMarked([first]: readonly Segment[]): boolean {
  return /^(\p{S}|\p{P}|[\uf000-\uf0ff]|\(?\w{1,4}[.)])$/u.test(textOf(first!));
}

/** What a segment says. */
export function textOf({ pieces }: Segment): string {
  return pieces.map(({ text, isSpaced }, at) => (isSpaced && at > 0 ? ` ${text}` : text)).join("");
}
