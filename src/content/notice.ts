import type { Notices } from "../messages/core/catalogues.js";
import {
  codeOf,
  sentenceOf,
  type CodeOf,
  type NoticeData,
  type NoticeReason,
} from "../messages/core/sentence.js";
import type { Content } from "./model.js";

/** What a notice is about. Codes are stable and meant for programs (`docs/codes.md`). */
export type NoticeCode = CodeOf<NoticeReason>;

/**
 * What Drawer tells after an action: a code for programs and a sentence for people. A notice is not an error: the action
 * was done, or rightly not done.
 */
export interface Notice {
  readonly code: NoticeCode;
  readonly message: string;
  /** Which sentence it is told by. */
  readonly reason: NoticeReason;
  /** What the sentence is made from: plain data. */
  readonly data: unknown;
}

/**
 * Makes a notice.
 * @param catalogue the sentences of a room, among them that of the reason
 */
export function notice<Reason extends NoticeReason>(
  catalogue: NoInfer<Pick<Notices, Reason>>,
  reason: Reason,
  data: NoticeData<Reason>,
): Notice {
  return { code: codeOf(reason), message: sentenceOf("notices", catalogue, reason, data), reason, data };
}

/** Notices without those whose sentence has been told before. */
export function toldOnce(notices: readonly Notice[]): Notice[] {
  const told = new Set<string>();
  return notices.filter(({ message }) => !told.has(message) && told.add(message));
}

/** A notice of another process, in the language that is spoken here. */
export function noticeOf({ reason, data, message }: Notice): Notice {
  const catalogue = { [reason]: () => message } as unknown as Pick<Notices, NoticeReason>;
  return notice(catalogue, reason, data as NoticeData<NoticeReason>);
}

/** Content read from somewhere, the bytes of its pictures, and what had to be left out. */
export interface Reading {
  readonly content: Content;
  /** The bytes of the content's pictures, by hash. */
  readonly pictures: ReadonlyMap<string, Uint8Array>;
  readonly notices: readonly Notice[];
}
