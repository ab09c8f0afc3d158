import type { Content } from "../content/model.js";
import type { Notice } from "../content/notice.js";

/** A piece that goes into a block: a snippet's content, tidied. */
export interface Piece {
  readonly content: Content;
}

/** What a layout makes of the pieces: content, and what it could not show. */
export interface LaidOut {
  readonly content: Content;
  readonly notices: readonly Notice[];
}

/** A layout makes one content of several pieces, in their order, and loses nothing of them without a notice. */
export type Layout = (pieces: readonly Piece[]) => LaidOut;
