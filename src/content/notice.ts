import type { Content } from "./model.js";

/**
 * What Drawer tells after an action: a stable code for programs and a sentence for people. A notice is not an error:
 * the action was done, or rightly not done.
 */
export interface Notice {
  readonly code: NoticeCode;
  readonly message: string;
}

/** What a notice is about. */
export type NoticeCode =
  | "collected"
  | "blank"
  | "repeat"
  | "nearly-full"
  | "made-room"
  | "aged"
  | "waits"
  | "closed"
  | "read-only"
  | "private"
  | "appended"
  | "merged"
  | "split"
  | "moved"
  | "copied"
  | "labelled"
  | "kept"
  | "released"
  | "hidden"
  | "unhidden"
  | "discarded"
  | "emptied"
  | "forgotten"
  | "restored"
  | "undone"
  | "redone"
  | "placed"
  | "dealing"
  | "dealt"
  | "done"
  | "recipe"
  | "rule"
  | "paused"
  | "resumed"
  | "exported"
  | "imported"
  | "recovered"
  | "empty"
  | "left-out"
  | "not-shown";

/** Content read from somewhere, the bytes of its pictures, and what had to be left out. */
export interface Reading {
  readonly content: Content;
  /** The bytes of the content's pictures, by hash. */
  readonly pictures: ReadonlyMap<string, Uint8Array>;
  readonly notices: readonly Notice[];
}
