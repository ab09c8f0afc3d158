import type { Errors, Notices } from "./catalogues.js";
import { translatedSentence } from "./language.js";

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

/** The sentence of a reason: in the language that is spoken, or in English, from the catalogue that is given. */
export function sentenceOf<Data>(
  kind: "notices" | "errors",
  catalogue: Readonly<Record<string, (data: never) => string>>,
  reason: string,
  data: Data,
): string {
  return ((translatedSentence(kind, reason) ?? catalogue[reason]) as (data: Data) => string)(data);
}
