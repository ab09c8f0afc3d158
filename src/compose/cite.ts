import { type Content, type NoteRun, paragraph, type Run, textRun } from "../content/model.js";
import { originText, type Origin } from "../content/origin.js";
import { mapLastLine } from "../content/traverse.js";
import type { Piece } from "./layout.js";
import type { Citation } from "./options.js";

/** Pieces with their sources named in them, and what is to stand below the block. */
export interface Cited {
  readonly pieces: readonly Piece[];
  readonly below: Content;
}

/**
 * Names where each piece came from: `inline` in brackets after it; `notes` by a note at its end; `list` as a list of
 * sources under the block. The same source is named once. What has no origin is left alone.
 *
 * @param inColumn whether the layout makes a table, in which sources and numbers stand in a column of their own
 */
export function cited(pieces: readonly Piece[], cite: Citation, inColumn: boolean): Cited {
  if (cite === "none") return { pieces, below: [] };
  const notes = new Map<string, NoteRun>();
  const noteOf = (source: string): NoteRun => {
    const note = notes.get(source) ?? { type: "note", flows: [paragraph(source)] };
    notes.set(source, note);
    return note;
  };
  const named = pieces.map((piece) => {
    const source = piece.origin === undefined ? "" : sourceText(piece.origin, piece.collectedAt);
    if (source === "") return piece;
    const note = noteOf(source);
    if (cite === "list") return piece;
    if (inColumn) return { ...piece, source: [cite === "inline" ? textRun(source) : note] };
    return { ...piece, content: marked(piece.content, cite === "inline" ? textRun(` (${source})`) : note) };
  });
  if (cite !== "list" || notes.size === 0) return { pieces: named, below: [] };
  const items = [...notes.values()].map(({ flows }) => ({ flows }));
  return { pieces: named, below: [{ type: "list", ordered: false, items }] };
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
