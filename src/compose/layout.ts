import type { Content, Run } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import type { Origin } from "../content/origin.js";
import type { Recipe } from "./recipe.js";

/** A piece that goes into a block: a snippet, or anything that was read. Layouts get it tidied and styled. */
export interface Piece {
  readonly content: Content;
  /** The bytes of the content's pictures, by hash. */
  readonly pictures?: ReadonlyMap<string, Uint8Array>;
  readonly label?: string | undefined;
  readonly origin?: Origin | undefined;
  /** When it was collected: ISO 8601, in UTC. */
  readonly collectedAt?: string | undefined;
  /** For a layout that makes a table: its source, as it stands in a column of its own. */
  readonly source?: readonly Run[] | undefined;
}

/** What a layout makes of the pieces: content, and what it could not show. */
export interface LaidOut {
  readonly content: Content;
  readonly notices: readonly Notice[];
}

/** A layout makes one content of several pieces, in their order, and loses nothing of them without a notice. */
export type Layout = (pieces: readonly Piece[], recipe: Recipe) => LaidOut;

/** Content and nothing to tell. */
export function withoutNotices(content: Content): LaidOut {
  return { content, notices: [] };
}
