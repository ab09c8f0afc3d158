import type { Content } from "../content/model.js";
import { notice, type Notice } from "../content/notice.js";
import { contentNotices } from "../messages/en/content.js";
import type { Piece } from "./layout.js";

/** What two pieces have in common that say and show the same. */
export function sameAs(content: Content): string {
  return JSON.stringify(content);
}

/** The pieces, each once, where an earlier one says and shows the same; and what is told of those that were left out. */
export function withoutRepeatedPieces(pieces: readonly Piece[]): {
  readonly once: readonly Piece[];
  readonly notices: readonly Notice[];
} {
  const seen = new Set<string>();
  const once = pieces.filter(({ content }) => {
    const same = sameAs(content);
    return !seen.has(same) && seen.add(same);
  });
  const count = pieces.length - once.length;
  return { once, notices: count === 0 ? [] : [notice(contentNotices, "left-out/repeats", { count })] };
}
