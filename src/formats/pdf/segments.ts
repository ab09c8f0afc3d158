import type { Box } from "./page-facts.js";
import { boxOfPiece, type Piece } from "./pieces.js";

/** Text of one line that stands together, with no more room in it than between words. */
export interface Segment extends Box {
  readonly pieces: readonly Piece[];
  /** Its base line. */
  readonly y: number;
  /** The size of most of it. */
  readonly size: number;
}

/** Room between words is narrower than this, in the size of the text. */
const WORD_ROOM = 0.75;
/** Letters whose base lines are as near as this are of one line, in the size of the text. */
const ONE_LINE = 0.25;

/** Pieces as segments: those that follow each other in the file and stand beside each other; then those that only stand so. */
export function segmentsOf(pieces: readonly Piece[]): Segment[] {
  const open: Piece[][] = [];
  for (const piece of pieces) {
    const last = open.at(-1);
    const joined = last && joinedTo(last, piece);
    if (joined) open[open.length - 1] = joined;
    else open.push([piece]);
  }
  return joinNeighbours(open.map(segmentOf));
}

/** The pieces of a segment with one more; nothing when that is of another. */
function joinedTo(before: readonly Piece[], piece: Piece): Piece[] | undefined {
  const base = before.reduce((one, other) => (other.size > one.size ? other : one));
  const size = Math.max(base.size, piece.size);
  const [left, right] = [
    Math.min(...before.map(({ x }) => x)),
    Math.max(...before.map((each) => each.right)),
  ];
  const room = piece.x >= left + (right - left) / 2 ? piece.x - right : left - piece.right;
  if (room > WORD_ROOM * size || room < -0.6 * size) return undefined;
  const rise = base.y - piece.y;
  if (Math.abs(rise) <= ONE_LINE * Math.min(base.size, piece.size) && piece.size > 0.85 * base.size)
    return [...before, piece];
  if (piece.size <= 0.85 * base.size && Math.abs(rise) <= 0.75 * base.size)
    return [...before, shifted(piece, rise, base.size)];
  // A line that begins with small letters above it.
  const isSmall = base.size <= 0.85 * piece.size && Math.abs(rise) <= 0.75 * piece.size;
  return isSmall ? [...before.map((each) => shifted(each, -rise, piece.size)), piece] : undefined;
}

function shifted(piece: Piece, rise: number, size: number): Piece {
  return Math.abs(rise) < 0.12 * size ? piece : { ...piece, shift: rise > 0 ? "sup" : "sub" };
}

function segmentOf(pieces: readonly Piece[]): Segment {
  const onLine = pieces.filter(({ shift }) => shift === undefined);
  const of = onLine.length > 0 ? onLine : pieces;
  const boxes = of.map(boxOfPiece);
  return {
    pieces: inReadingOrder(pieces),
    left: Math.min(...pieces.map(({ x }) => x)),
    right: Math.max(...pieces.map(({ right }) => right)),
    top: Math.min(...boxes.map(({ top }) => top)),
    bottom: Math.max(...boxes.map(({ bottom }) => bottom)),
    y: of[0]!.y,
    size: sizeOf(of),
  };
}

/** The size of most letters of some texts; 0 where there are none. */
export function usualSize(texts: readonly { readonly letters: number; readonly size: number }[]): number {
  const counts = new Map<number, number>();
  for (const { letters, size } of texts) {
    const key = Math.round(size * 10) / 10;
    counts.set(key, (counts.get(key) ?? 0) + letters);
  }
  return [...counts].reduce((best, each) => (each[1] > best[1] ? each : best), [0, 0])[0];
}

/** The size of most of the text of some pieces. */
export function sizeOf(pieces: readonly Piece[]): number {
  return usualSize(pieces.map(({ text, size }) => ({ letters: text.length, size })));
}

/** Pieces in the order in which they are read: from right to left where most of them are written so. */
function inReadingOrder(pieces: readonly Piece[]): Piece[] {
  const letters = (wanted: boolean) =>
    pieces.reduce((sum, { text, isRightToLeft }) => (isRightToLeft === wanted ? sum + text.length : sum), 0);
  const ordered = [...pieces].sort((a, b) => a.x - b.x);
  if (letters(true) <= letters(false)) return ordered;
  // Those from left to right among them keep their order; a sign at their left ends what they say.
  const runs: Piece[][] = [];
  for (const piece of ordered.reverse()) {
    const last = runs.at(-1);
    if (last && runsRight(piece) && runsRight(last[0]!)) last.unshift(piece);
    else runs.push([piece]);
  }
  return runs
    .flat()
    .map((piece) =>
      runsRight(piece) ? { ...piece, text: piece.text.replace(/^([.,;:!?…]+)(.+)$/u, "$2$1") } : piece,
    );
}

/** Whether a piece runs to the right in a line that runs to the left: signs go with the line. */
function runsRight({ text, isRightToLeft }: Piece): boolean {
  return !isRightToLeft && /[\p{L}\p{N}]/u.test(text);
}

/** Joins segments that stand beside each other on a line, in whatever order the file has them. */
function joinNeighbours(segments: readonly Segment[]): Segment[] {
  return rowsOf(segments).flatMap((row) => {
    const joined: Segment[] = [];
    for (const segment of row) {
      const last = joined.at(-1);
      const size = Math.max(segment.size, last?.size ?? 0);
      const room = last ? segment.left - last.right : Infinity;
      const isNear = last && room <= WORD_ROOM * size && room >= -0.6 * size;
      if (isNear && Math.abs(last.y - segment.y) <= ONE_LINE * Math.min(last.size, segment.size))
        joined[joined.length - 1] = segmentOf([...last.pieces, ...segment.pieces]);
      else joined.push(segment);
    }
    return joined;
  });
}

/** Segments by the lines that they stand on, from the top, each line from the left. */
export function rowsOf<Each extends Box & { readonly y: number; readonly size: number }>(
  segments: readonly Each[],
): Each[][] {
  const rows: Each[][] = [];
  for (const segment of [...segments].sort((a, b) => a.y - b.y)) {
    const last = rows.at(-1);
    const first = last?.[0];
    if (first && segment.y - first.y <= ONE_LINE * Math.min(first.size, segment.size) + 0.5)
      last!.push(segment);
    else rows.push([segment]);
  }
  for (const row of rows) row.sort((a, b) => a.left - b.left);
  return rows;
}
