import { lettersOf } from "../../content/byte-letters.js";
import { decodeAs } from "../../content/decode.js";
import type { ReadDocument } from "../format.js";
import { readLetter, type Letter } from "../mail/letter.js";
import { encodingOfPage } from "../rtf/encodings.js";
import { htmlInRtf } from "../rtf/html-in-rtf.js";
import { readRtf } from "../rtf/read.js";
import { decodeText } from "../text/decode.js";
import { readInThread } from "../thread/read-in-thread.js";
import type { MsgMail } from "./node/parse.js";

/**
 * Reads a mail of one mail program: who wrote it to whom, when and about what, then what it says, with what is attached.
 * @throws DrawerError `unreadable`, `too-large`, `unknown-format` where the package that reads it is not installed
 */
export async function readMsg(bytes: Uint8Array, file: string): Promise<ReadDocument> {
  const mail = await readInThread("msg", bytes, file);
  return readLetter(letterOf(mail, file));
}

function letterOf(mail: MsgMail, file: string): Letter {
  const date = /^date:[ \t]*(.*(?:\r?\n[ \t].*)*)/im.exec(mail.headers ?? "")?.[1]?.replace(/\s+/g, " ");
  const written = (people: MsgMail["to"]) =>
    people.map(({ name, address }) => (name && address ? `${name} <${address}>` : name || address));
  return {
    from: written(mail.from ? [mail.from] : []),
    to: written(mail.to),
    copy: written(mail.copy),
    date: date ?? mail.sent,
    subject: mail.subject,
    ...bodyOf(mail, file),
    attachments: mail.attachments.map(({ name, bytes, contentId, type }) => ({
      ...{ name, bytes, mediaType: type ?? "" },
      ...(contentId !== undefined && { contentId }),
    })),
  };
}

/** What it says: HTML, also where that stands in Rich Text Format; that; or text. */
function bodyOf({ html, page, rtf, text }: MsgMail, file: string): Pick<Letter, "html" | "text" | "body"> {
  if (typeof html === "string") return { html };
  if (html && html.length > 0)
    return {
      html: page === undefined ? decodeText(html, "html") : decodeAs(encodingOfPage(page), html),
    };
  const inside = rtf && htmlInRtf(rtf);
  if (inside !== undefined) return { html: inside };
  // Programs make Rich Text Format of text too, and say so.
  if (rtf && !/\\fromtext\b/.test(lettersOf(rtf.subarray(0, 500)))) return { body: readRtf(rtf, file) };
  return { text: text ?? "" };
}
