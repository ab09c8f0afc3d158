import { parseCells, writeCells, type Rectangle } from "../content/cells.js";
import { DrawerError } from "../content/error.js";
import { filesErrors } from "../messages/en/files.js";

/** A place in a document, as it is written on the command line and in messages. */
export type Spot =
  | { readonly type: "paragraphs" | "lines" | "slides" | "pages"; readonly from: number; readonly to: number }
  | { readonly type: "table" | "picture" | "section"; readonly number: number; readonly cells?: Rectangle };

/**
 * Reads a spot of a document: `p3`, `p3..p6`, `l10..l14`, `t1`, `t1!A1:C2`, `i1`, `s2`, of slides also `sl3`, `sl2..sl4`, of a PDF
 * `pg3`, `pg2..pg4`.
 * @param text as it is written: `p3..p6`
 * @throws DrawerError `bad-spot`
 */
export function parseSpot(text: string): Spot {
  const range = /^(pg|p|l|sl)([1-9]\d{0,8})(?:\.\.\1?([1-9]\d{0,8}))?$/.exec(text);
  if (range) {
    const ends = [Number(range[2]), Number(range[3] ?? range[2])];
    return {
      type: RANGES[range[1] as keyof typeof RANGES],
      from: Math.min(...ends),
      to: Math.max(...ends),
    };
  }
  const single = /^([tis])([1-9]\d{0,8})$/.exec(text);
  if (single) return { type: KINDS[single[1]!]!, number: Number(single[2]) };
  const part = /^t([1-9]\d{0,8})!(.+)$/.exec(text);
  const cells = part && parseCells(part[2]!);
  if (cells) return { type: "table", number: Number(part[1]), cells };
  throw new DrawerError(filesErrors, "bad-spot", { spot: text });
}

/** A spot as it is written: its ends in order, its cells in capitals. */
export function canonicalSpot(spot: Spot): string {
  switch (spot.type) {
    case "paragraphs":
    case "lines":
    case "slides":
    case "pages": {
      const letter = Object.entries(RANGES).find(([, type]) => type === spot.type)![0];
      return spot.from === spot.to ? `${letter}${spot.from}` : `${letter}${spot.from}..${letter}${spot.to}`;
    }
    case "table":
    case "picture":
    case "section": {
      const letter = Object.keys(KINDS).find((one) => KINDS[one] === spot.type)!;
      return `${letter}${spot.number}${spot.cells ? `!${writeCells(spot.cells)}` : ""}`;
    }
  }
}

const RANGES = { p: "paragraphs", l: "lines", sl: "slides", pg: "pages" } as const;
const KINDS: Readonly<Record<string, "table" | "picture" | "section">> = {
  t: "table",
  i: "picture",
  s: "section",
};
