import type { PageFacts } from "./page-facts.js";
import type { Piece } from "./pieces.js";
import { textOf } from "./regions.js";
import { rowsOf, segmentsOf, type Segment } from "./segments.js";

/** How much of a page at its top and at its foot heads and feet stand in. */
const EDGE = 0.14;
/** How many lines there may be of them. */
const LINES = 3;
/** Heads of different pages stand as near as this to the same place, in points. */
const SAME = 5;

/** A line near an edge of a page: what it says, with its numbers left open, and where it stands. */
export interface EdgeLine {
  readonly text: string;
  readonly y: number;
  readonly pieces: readonly Piece[];
}

/** The lines near the top and the foot of a page. */
export function edgeLinesOf({ height }: PageFacts, pieces: readonly Piece[]): EdgeLine[] {
  const near = pieces.filter(({ y }) => y < height * EDGE || y > height * (1 - EDGE));
  const rows = rowsOf(segmentsOf(near)).map((row: Segment[]) => ({
    text: row
      .map(textOf)
      .join(" ")
      .replace(/\d+/g, "#")
      .replace(/^[ivxlc]+$/i, "#"),
    y: row[0]!.y,
    pieces: row.flatMap((segment) => segment.pieces),
  }));
  const top = rows.filter(({ y }) => y < height / 2);
  return [...top.slice(0, LINES), ...rows.slice(top.length).slice(-LINES)];
}

/** What of a page is its running heads and feet: its pieces, by what tells them from the others, and how many lines they are. */
export interface Furniture {
  readonly pieces: ReadonlySet<string>;
  readonly lines: number;
}

/** The pieces of a page that are its running heads and feet: what other pages say at the same place. */
export function furnitureOf(lines: readonly EdgeLine[], others: readonly (readonly EdgeLine[])[]): Furniture {
  const found = lines.filter(({ text, y }) =>
    others.some((page) => page.some((other) => other.text === text && Math.abs(other.y - y) <= SAME)),
  );
  return { pieces: new Set(found.flatMap(({ pieces }) => pieces.map(placeOf))), lines: found.length };
}

/** What tells a piece of a page from the others. */
export function placeOf({ x, y, text }: Piece): string {
  return `${x.toFixed(1)} ${y.toFixed(1)} ${text}`;
}
