import { safeLink, type Address } from "../../content/address.js";
import type { Box, PageFacts, PieceFacts } from "./page-facts.js";

/** A piece of text in a frame in which lines run to the right and follow each other downwards. */
export interface Piece {
  readonly text: string;
  readonly x: number;
  readonly right: number;
  /** Its base line. */
  readonly y: number;
  readonly size: number;
  readonly isBold: boolean;
  readonly isItalic: boolean;
  readonly isMonospace: boolean;
  readonly isRightToLeft: boolean;
  readonly link?: Address;
  /** Whether space stands before it in the file. */
  readonly isSpaced: boolean;
  /** Whether it stands above or below the line that it is part of. */
  readonly shift?: "sup" | "sub";
  readonly mark?: string;
}

/** The box of a piece, from the tops of its letters to their feet. */
export function boxOfPiece({ x, right, y, size }: Piece): Box {
  return { left: x, right, top: y - size * 0.8, bottom: y + size * 0.2 };
}

/** The ways in which the lines of a page may run: by their quarter turns, and vertical. */
type Direction = `${0 | 1 | 2 | 3}` | "vertical";

/** The pieces of a page by the directions of their lines, that of most of the text first. */
export function framesOf(page: PageFacts, pieces: readonly PieceFacts[]): Piece[][] {
  const links = page.links.flatMap(({ address, ...box }) => {
    const link = safeLink(address);
    return link ? [{ ...box, link }] : [];
  });
  const frames = new Map<Direction, { length: number; pieces: Piece[] }>();
  // Whether space was met since the last piece.
  let isSpaced = false;
  for (const facts of pieces) {
    const direction: Direction = facts.isVertical ? "vertical" : `${facts.turns}`;
    let frame = frames.get(direction);
    if (!frame) frames.set(direction, (frame = { length: 0, pieces: [] }));
    for (const part of partsOf(facts)) {
      if (part.text.trim() === "") {
        isSpaced = true;
        continue;
      }
      const piece = { ...part, isSpaced: isSpaced || /^\s/.test(part.text), text: part.text.trim() };
      isSpaced = /\s$/.test(part.text);
      frame.length += piece.text.length;
      frame.pieces.push(...(direction === "0" ? linked(piece, links) : [turned(piece, direction, page)]));
    }
  }
  return [...frames.values()].sort((a, b) => b.length - a.length).map((frame) => frame.pieces);
}

/** Text that is parted by room: as many pieces. */
function partsOf(facts: PieceFacts): Piece[] {
  const { text, x, y, width, size, isBold, isItalic, isMonospace, isRightToLeft, mark } = facts;
  const whole: Piece = {
    ...{ text, x, right: x + width, y, size, isBold, isItalic, isMonospace, isRightToLeft, isSpaced: false },
    ...(mark !== undefined && { mark }),
  };
  if (isMonospace || isRightToLeft || !/\S\s{3,}\S/.test(text)) return [whole];
  const cuts = [...text.matchAll(/\s{3,}/g)].flatMap(({ index, 0: room }) => [index, index + room.length]);
  return cutAt(whole, cuts);
}

/** A piece cut before these of its characters, where they stand when letters are as wide as they usually are. */
export function cutAt(piece: Piece, cuts: readonly number[]): Piece[] {
  const ends = [0, ...cuts.filter((cut) => cut > 0 && cut < piece.text.length), piece.text.length];
  return ends.slice(1).map((end, at) => ({
    ...piece,
    text: piece.text.slice(ends[at], end),
    x: placeOf(piece, ends[at]!),
    right: placeOf(piece, end),
    isSpaced: at === 0 ? piece.isSpaced : /\s/.test(piece.text[ends[at]! - 1] ?? ""),
  }));
}

/** Where a character of a piece begins. */
function placeOf({ text, x, right }: Piece, at: number): number {
  const all = lettersWide(text);
  return all === 0 ? x : x + ((right - x) * lettersWide(text.slice(0, at))) / all;
}

/** How wide text is, in letters of the usual width. */
export function lettersWide(text: string): number {
  let width = 0;
  for (const letter of text)
    width += /[ijltfrI.,;:'|!()[\] ]/.test(letter)
      ? 0.6
      : /[mwMW@—]/.test(letter)
        ? 1.6
        : /\p{Lu}/u.test(letter)
          ? 1.3
          : 1;
  return width;
}

/** The beginning of a word of a piece that is nearest to a place. */
export function wordAt(piece: Piece, place: number): number {
  const starts = [0, ...[...piece.text.matchAll(/(?<=\s)\S/g)].map(({ index }) => index), piece.text.length];
  return starts.reduce((best, start) =>
    Math.abs(placeOf(piece, start) - place) < Math.abs(placeOf(piece, best) - place) ? start : best,
  );
}

/** A piece, cut where a link begins and ends in it. */
function linked(piece: Piece, links: readonly (Box & { link: Address })[]): Piece[] {
  const { x, right, y, size } = piece;
  const middle = y - size * 0.3;
  const over = links.filter(
    (box) => box.top <= middle && middle <= box.bottom && box.left < right - 1 && x + 1 < box.right,
  );
  if (over.length === 0) return [piece];
  const cuts = over.flatMap(({ left, right: end }) => [wordAt(piece, left), wordAt(piece, end)]);
  return cutAt(
    piece,
    [...new Set(cuts)].sort((a, b) => a - b),
  ).map((part) => {
    const centre = (part.x + part.right) / 2;
    const box = over.find(({ left, right: end }) => left <= centre && centre <= end);
    const text = part.text.trim();
    return {
      ...part,
      text,
      ...(box && { link: box.link }),
      isSpaced: part.isSpaced || /^\s/.test(part.text),
    };
  });
}

/** A piece of turned or vertical lines, as if they ran to the right. */
function turned(piece: Piece, direction: Direction, { width, height }: PageFacts): Piece {
  const { x, y, right } = piece;
  const long = right - x;
  const moved = (along: number, across: number): Piece => ({
    ...piece,
    x: along,
    right: along + long,
    y: across,
  });
  switch (direction) {
    case "1":
    case "vertical":
      return moved(y, width - x);
    case "2":
      return moved(width - x, height - y);
    case "3":
      return moved(height - y, x);
    case "0":
      return piece;
  }
}
