import { mapLastLine } from "../content/traverse.js";
import { type Content, paragraph, type Run, textRun } from "../content/model.js";
import { originText, type Origin } from "../content/origin.js";
import type { Piece } from "./layout.js";
import type { Citation } from "./recipe.js";

/** Pieces with their sources named in them, and what is to stand below the block. */
export interface Cited {
  readonly pieces: readonly Piece[];
  readonly below: Content;
}

/**
 * Names where each piece came from: `inline` in brackets after it; `notes` by raised numbers in brackets, with the
 * sources under the block; `list` as a list of sources under the block. The same source is named once. What has no origin
 * is left alone.
 *
 * @param inColumn whether the layout makes a table, in which sources and numbers stand in a column of their own
 */
export function cited(pieces: readonly Piece[], cite: Citation, inColumn: boolean): Cited {
  if (cite === "none") return { pieces, below: [] };
  const sources: string[] = [];
  const numberOf = (source: string) => {
    if (!sources.includes(source)) sources.push(source);
    return sources.indexOf(source) + 1;
  };
  const named = pieces.map((piece) => {
    const source = piece.origin === undefined ? "" : sourceText(piece.origin, piece.collectedAt);
    if (source === "") return piece;
    const number = numberOf(source);
    if (cite === "list") return piece;
    const note = `[${number}]`;
    if (inColumn) return { ...piece, source: cite === "inline" ? source : note };
    const mark: Run = cite === "inline" ? textRun(` (${source})`) : textRun(note, { sup: true });
    return { ...piece, content: marked(piece.content, mark) };
  });
  if (cite === "inline") return { pieces: named, below: [] };
  const items = sources.map((source) => ({ flows: [paragraph(source)] }));
  return {
    pieces: named,
    below: items.length === 0 ? [] : [{ type: "list", ordered: cite === "notes", items }],
  };
}

/**
 * A source as it is named: what it is, the place in it, its address when that is not its name already; and for what has an
 * address, which may say something else tomorrow, the day on which it was collected.
 */
function sourceText(origin: Origin, collectedAt: string | undefined): string {
  const parts = [originText(origin)];
  if (origin.address !== undefined && !parts[0]!.includes(origin.address)) parts.push(origin.address);
  if (origin.address !== undefined && collectedAt !== undefined) parts.push(collectedAt.slice(0, 10));
  return parts.join(", ");
}

/** The content with a run at the end of its last line; where it ends in no line of text, in a line of its own. */
function marked(content: Content, mark: Run): Content {
  const alone = mark.type === "text" ? { ...mark, text: mark.text.trimStart() } : mark;
  return (
    mapLastLine(content, (line) => [...line, mark]) ?? [...content, { type: "paragraph", runs: [alone] }]
  );
}
