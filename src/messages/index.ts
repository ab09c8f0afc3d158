import { errors } from "./en/errors.js";
import { notices } from "./en/notices.js";
import { spokenSentence } from "./spoken.js";

/** The sentences of Drawer's refusals, by their reason. */
export type Errors = typeof errors;
/** The sentences of what Drawer tells, by their reason. */
export type Notices = typeof notices;

/** Which sentence an error is told by: a code, or a code and what is particular, parted by a slash. */
export type ErrorReason = keyof Errors;
/** Which sentence a notice is told by. */
export type NoticeReason = keyof Notices;

type DataOf<Sentence extends (data: never) => string> =
  Parameters<Sentence> extends [] ? Readonly<Record<string, never>> : Parameters<Sentence>[0];

/** What the sentence of an error is made from: plain data. */
export type ErrorData<Reason extends ErrorReason> = DataOf<Errors[Reason]>;
/** What the sentence of a notice is made from: plain data. */
export type NoticeData<Reason extends NoticeReason> = DataOf<Notices[Reason]>;

/** The code of a reason: the part before its slash. */
export type CodeOf<Reason extends string> = Reason extends `${infer Code}/${string}` ? Code : Reason;

/** The code of a reason. */
export function codeOf<Reason extends string>(reason: Reason): CodeOf<Reason> {
  return reason.split("/", 1)[0] as CodeOf<Reason>;
}

/** The sentence of an error. */
export function errorMessage<Reason extends ErrorReason>(reason: Reason, data: ErrorData<Reason>): string {
  return ((spokenSentence("errors", reason) ?? errors[reason]) as (data: ErrorData<Reason>) => string)(data);
}

/** The sentence of a notice. */
export function noticeMessage<Reason extends NoticeReason>(reason: Reason, data: NoticeData<Reason>): string {
  return ((spokenSentence("notices", reason) ?? notices[reason]) as (data: NoticeData<Reason>) => string)(
    data,
  );
}
