import type { Box } from "./page-facts.js";
import { boxOfPiece, cutAt, wordAt, type Piece } from "./pieces.js";

/** Lines as near as this are the same, in points. */
const SAME = 3;
/** How much of a side of a cell must be drawn for it to be there. */
const DRAWN = 0.6;
/** A table of more cells is a drawing. */
const MOST_CELLS = 20_000;

/** A cell of a table that is drawn with lines: its place, and how many rows and columns it goes over. */
export interface GridCell extends Box {
  readonly row: number;
  readonly column: number;
  readonly rowspan: number;
  readonly colspan: number;
}

/** A table that is drawn with lines. */
export interface Grid extends Box {
  readonly rows: number;
  readonly columns: number;
  readonly cells: readonly GridCell[];
}

/** A line that runs across or down: where it stands, and from where to where. */
interface Line {
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/** The tables that lines of a page draw: those that touch each other, and stand around two cells or more. */
export function gridsOf(rules: readonly Box[]): Grid[] {
  return touching(rules).flatMap((group) => {
    const across = group.filter((rule) => isAcross(rule));
    const down = group.filter((rule) => !isAcross(rule));
    const grid = gridOf(
      across.map(({ left, right, top, bottom }) => ({ at: (top + bottom) / 2, from: left, to: right })),
      down.map(({ left, right, top, bottom }) => ({ at: (left + right) / 2, from: top, to: bottom })),
    );
    return grid ? [grid] : [];
  });
}

function isAcross({ left, top, right, bottom }: Box): boolean {
  return right - left >= bottom - top;
}

/** Boxes in groups of those that touch each other. */
function touching(rules: readonly Box[]): Box[][] {
  const sorted = [...rules].sort((a, b) => a.top - b.top);
  const parents = sorted.map((_, at) => at);
  const rootOf = (at: number): number => {
    while (parents[at] !== at) at = parents[at] = parents[parents[at]!]!;
    return at;
  };
  // Those that may touch others further down.
  let open: number[] = [];
  sorted.forEach((rule, at) => {
    open = open.filter((other) => sorted[other]!.bottom + SAME >= rule.top);
    for (const other of open) {
      const { left, right } = sorted[other]!;
      if (left - SAME <= rule.right && rule.left <= right + SAME) parents[rootOf(at)] = rootOf(other);
    }
    open.push(at);
  });
  const groups = new Map<number, Box[]>();
  sorted.forEach((rule, at) => groups.set(rootOf(at), [...(groups.get(rootOf(at)) ?? []), rule]));
  return [...groups.values()];
}

/** The places of lines, those that are the same once. */
function placesOf(lines: readonly Line[]): number[] {
  const places: number[] = [];
  for (const { at } of [...lines].sort((a, b) => a.at - b.at))
    if (places.length === 0 || at - places.at(-1)! > SAME) places.push(at);
  return places;
}

function gridOf(across: readonly Line[], down: readonly Line[]): Grid | undefined {
  const [ys, xs] = [placesOf(across), placesOf(down)];
  // Tables are often open at their sides: the ends of the lines across stand for them.
  const ends = [Math.min(...across.map(({ from }) => from)), Math.max(...across.map(({ to }) => to))];
  if (ys.length >= 2 && xs.length >= 1) {
    if (xs[0]! - ends[0]! > 2 * SAME) xs.unshift(ends[0]!);
    if (ends[1]! - xs.at(-1)! > 2 * SAME) xs.push(ends[1]!);
  }
  const [rows, columns] = [ys.length - 1, xs.length - 1];
  if (rows < 1 || columns < 1 || rows * columns < 2 || rows * columns > MOST_CELLS) return undefined;
  const isDrawn = (lines: readonly Line[], at: number, from: number, to: number) => {
    const drawn = lines
      .filter((line) => Math.abs(line.at - at) <= SAME)
      .reduce((sum, line) => sum + Math.max(0, Math.min(to, line.to) - Math.max(from, line.from)), 0);
    return drawn >= DRAWN * (to - from);
  };
  /** Whether a cell goes on to the right, or down. */
  const goesRight = (row: number, column: number) => !isDrawn(down, xs[column + 1]!, ys[row]!, ys[row + 1]!);
  const goesDown = (row: number, column: number) =>
    !isDrawn(across, ys[row + 1]!, xs[column]!, xs[column + 1]!);
  const taken = new Set<number>();
  const cells: GridCell[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      if (taken.has(row * columns + column)) continue;
      let colspan = 1;
      while (
        column + colspan < columns &&
        !taken.has(row * columns + column + colspan) &&
        goesRight(row, column + colspan - 1)
      )
        colspan++;
      const range = Array.from({ length: colspan }, (_, each) => column + each);
      let rowspan = 1;
      while (row + rowspan < rows && range.every((each) => goesDown(row + rowspan - 1, each))) rowspan++;
      for (let under = row; under < row + rowspan; under++)
        for (const each of range) taken.add(under * columns + each);
      cells.push({
        ...{ row, column, rowspan, colspan },
        ...{ left: xs[column]!, right: xs[column + colspan]! },
        ...{ top: ys[row]!, bottom: ys[row + rowspan]! },
      });
    }
  // One box is a frame around text.
  if (cells.length < 2) return undefined;
  return { rows, columns, cells, left: xs[0]!, right: xs.at(-1)!, top: ys[0]!, bottom: ys.at(-1)! };
}

/** The pieces that stand in the cells of a table, by their cells, and the others. A piece over a line between two cells is cut there. */
export function piecesInGrid(
  { cells, ...box }: Grid,
  pieces: readonly Piece[],
): { inside: Map<GridCell, Piece[]>; outside: Piece[] } {
  const inside = new Map<GridCell, Piece[]>();
  const outside: Piece[] = [];
  for (const piece of pieces) {
    const { left, right, top, bottom } = boxOfPiece(piece);
    const middle = (top + bottom) / 2;
    if (middle < box.top || middle > box.bottom || right < box.left || left > box.right) {
      outside.push(piece);
      continue;
    }
    const sides = cells.filter(
      (cell) =>
        cell.top <= middle &&
        middle <= cell.bottom &&
        cell.left > left + piece.size / 3 &&
        cell.left < right - piece.size / 3,
    );
    const cuts = sides.map((cell) => wordAt(piece, cell.left));
    for (const part of cutAt(
      piece,
      [...new Set(cuts)].sort((a, b) => a - b),
    )) {
      const centre = (part.x + part.right) / 2;
      const cell = cells.find(
        (each) => each.left <= centre && centre <= each.right && each.top <= middle && middle <= each.bottom,
      );
      const text = part.text.trim();
      if (!cell) outside.push({ ...part, text });
      else if (text !== "") inside.set(cell, [...(inside.get(cell) ?? []), { ...part, text }]);
    }
  }
  return { inside, outside };
}
