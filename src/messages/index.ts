import type { contentErrors } from "./en/errors/content.js";
import type { officeErrors } from "./en/errors/office.js";
import type { filesErrors } from "./en/errors/files.js";
import type { drawerErrors } from "./en/errors/drawer.js";
import type { sqliteErrors } from "./en/errors/sqlite.js";
import type { indexeddbErrors } from "./en/errors/indexeddb.js";
import type { remoteErrors } from "./en/errors/remote.js";
import type { desktopErrors } from "./en/errors/desktop.js";
import type { pageErrors } from "./en/errors/page.js";
import type { cliErrors } from "./en/errors/cli.js";
import type { contentNotices } from "./en/notices/content.js";
import type { officeNotices } from "./en/notices/office.js";
import type { drawerNotices } from "./en/notices/drawer.js";
import type { sqliteNotices } from "./en/notices/sqlite.js";
import type { indexeddbNotices } from "./en/notices/indexeddb.js";
import type { placingNotices } from "./en/notices/placing.js";
import type { pageNotices } from "./en/notices/page.js";
import type { cliNotices } from "./en/notices/cli.js";
import { spokenSentence } from "./spoken.js";

/** The sentences of Drawer's refusals, by their reason: a catalogue for each room, which is loaded with it. */
export type Errors = typeof contentErrors &
  typeof officeErrors &
  typeof filesErrors &
  typeof drawerErrors &
  typeof sqliteErrors &
  typeof indexeddbErrors &
  typeof remoteErrors &
  typeof desktopErrors &
  typeof pageErrors &
  typeof cliErrors;
/** The sentences of what Drawer tells, by their reason. */
export type Notices = typeof contentNotices &
  typeof officeNotices &
  typeof drawerNotices &
  typeof sqliteNotices &
  typeof indexeddbNotices &
  typeof placingNotices &
  typeof pageNotices &
  typeof cliNotices;
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
  return ((spokenSentence(kind, reason) ?? catalogue[reason]) as (data: Data) => string)(data);
}
