import { plainText, type TextEdit } from "./xml-text.js";

/** A piece of text in a part: where it stands, without what stands around it. */
export interface TextPiece {
  readonly from: number;
  readonly to: number;
}

/** A name in double braces, which may be parted over pieces of text. */
export interface Braces {
  readonly name: string;
  /** Where it stands, piece by piece, and from where to where. */
  readonly pieces: readonly TextPiece[];
  readonly from: number;
  readonly to: number;
  /** Whether nothing else stands in its line. */
  readonly isAlone: boolean;
}

/** The names in double braces in the pieces of one line: `{{Name}}`. */
export function bracesIn(text: string, pieces: readonly TextPiece[]): Braces[] {
  const whole = pieces.map(({ from, to }) => text.slice(from, to)).join("");
  const found: Braces[] = [];
  for (const match of whole.matchAll(/\{\{\s*([^{}]{1,200}?)\s*\}\}/g)) {
    const [start, end] = [match.index, match.index + match[0].length];
    let at = 0;
    const parts: TextPiece[] = [];
    for (const { from, to } of pieces) {
      const length = to - from;
      const [first, last] = [Math.max(start, at), Math.min(end, at + length)];
      if (first < last) parts.push({ from: from + first - at, to: from + last - at });
      at += length;
    }
    found.push({
      ...{ name: plainText(match[1]!), pieces: parts, isAlone: whole.trim() === match[0] },
      ...{ from: parts[0]!.from, to: parts.at(-1)!.to },
    });
  }
  return found;
}

/** Puts something into pieces of text: the first takes it, and the others nothing. */
export function inPieces(pieces: readonly TextPiece[], xml: string): TextEdit[] {
  return pieces.map(({ from, to }, at) => ({ from, to, text: at === 0 ? xml : "" }));
}
