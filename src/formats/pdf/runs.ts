import { textRun, type Marks, type Run } from "../../content/model.js";
import { mergeRuns } from "../../content/runs.js";
import type { Piece } from "./pieces.js";

/** Scripts that put no space between words. */
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\u3000-\u303f\uff00-\uffef]/u;
/** Room between letters that is wider than this is a space, in the size of the text. */
const SPACE = 0.18;

/** The pieces of a line as runs. */
export function runsOfLine(pieces: readonly Piece[]): Run[] {
  return mergeRuns(
    pieces.flatMap((piece, at) => {
      const before = pieces[at - 1];
      const isApart = before !== undefined && areApart(before, piece);
      const marks = marksOf(piece);
      // Between two that look the same the space looks so too; otherwise it looks like nothing.
      const isSame = before && JSON.stringify(marksOf(before)) === JSON.stringify(marks);
      const space = isApart ? [textRun(" ", isSame ? marks : undefined)] : [];
      return [...space, textRun(piece.text, marks)];
    }),
  );
}

/** Whether there is space between two pieces: in the file, which has a line in the order in which it is drawn, or room. */
function areApart(before: Piece, piece: Piece): boolean {
  if (piece.x >= before.x) return piece.isSpaced || piece.x - before.right > SPACE * piece.size;
  return before.isSpaced || before.x - piece.right > SPACE * piece.size;
}

function marksOf({ isBold, isItalic, isMonospace, shift, link }: Piece): Marks {
  return {
    ...(isBold && { bold: true as const }),
    ...(isItalic && { italic: true as const }),
    ...(isMonospace && { code: true as const }),
    ...(shift && { [shift]: true as const }),
    ...(link && { link }),
  };
}

/** Words that are broken at the end of a line, and joined again, are counted here. */
export interface Rejoined {
  count: number;
}

/** A line after another of the same paragraph: with a space between, or where a word was broken, without its hyphen. */
export function joinLines(before: readonly Run[], after: readonly Run[], rejoined: Rejoined): Run[] {
  const last = before.at(-1);
  const next = after[0];
  if (last?.type !== "text" || next?.type !== "text") return mergeRuns([...before, ...after]);
  const text = last.text.trimEnd();
  if (/\p{L}[-\u00ad\u2010]$/u.test(text) && /^\p{Ll}/u.test(next.text)) {
    rejoined.count++;
    return mergeRuns([...before.slice(0, -1), textRun(text.slice(0, -1), last.marks), ...after]);
  }
  const isUnspaced = UNSPACED.test(text.at(-1) ?? "") && UNSPACED.test(next.text[0] ?? "");
  if (isUnspaced || /[^\s][-\u2010/]$/.test(text))
    return mergeRuns([...before.slice(0, -1), { ...last, text }, ...after]);
  const isSame = JSON.stringify(last.marks ?? {}) === JSON.stringify(next.marks ?? {});
  return mergeRuns([
    ...before.slice(0, -1),
    { ...last, text },
    textRun(" ", isSame ? last.marks : undefined),
    ...after,
  ]);
}
