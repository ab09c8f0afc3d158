import { bytesOfLetters, lettersOf } from "../../content/byte-letters.js";
import { DrawerError } from "../../content/error.js";
import { mailWords } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { AttachedFile, ReadDocument } from "../format.js";

/** The line before a mail: who sent it, and when. */
const BEGINNING = /(?:^|\n)(From [^\n]*\d{4}[^\n]*\n)/g;
/** How much of a mail its subject is looked for in, in bytes. */
const HEAD = 16 * 1024;

/**
 * Reads a file of mails (RFC 4155): each is attached to it, by its subject. Lines that were quoted because they begin as a mail does
 * are as they were.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`
 */
export function readMbox(bytes: Uint8Array, file: string): ReadDocument {
  // Each byte is a letter, so places in the text are places in the file.
  const text = lettersOf(bytes);
  const beginnings = [...text.matchAll(BEGINNING)].map((found) => ({
    from: found.index + found[0].length,
    before: found.index,
  }));
  if (beginnings[0]?.before !== 0)
    throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "mbox" });
  const attached = beginnings.map(({ from }, at): AttachedFile => {
    const to = beginnings[at + 1]?.before ?? text.length;
    const mail = text.slice(from, to).replace(/^>(>*From )/gm, "$1");
    return { name: subjectOf(mail) ?? mailWords.numbered(at + 1), bytes: bytesOfLetters(mail), type: "mail" };
  });
  return { content: [], pictures: new Map(), notices: [], attached };
}

/** What a mail says that it is about, where that is plain letters; nothing otherwise: it is read when it is looked into. */
function subjectOf(mail: string): string | undefined {
  const head = mail.slice(0, HEAD).split(/\r?\n\r?\n/)[0]!;
  const subject = /^subject:[ \t]*([^\r\n]*(?:\r?\n[ \t]+[^\r\n]*)*)/im
    .exec(head)?.[1]
    ?.replace(/\s+/g, " ")
    .trim();
  return subject === undefined || subject === "" || /=\?|[^ -~]/.test(subject) ? undefined : subject;
}
