import PostalMime, { type Address, type Attachment, type Email } from "postal-mime";
import { mendedSigns } from "../../content/decode.js";
import { DrawerError } from "../../content/error.js";
import { mailWords } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { ReadDocument } from "../format.js";
import { readLetter, type Enclosure } from "./letter.js";

/** How deep parts of a mail stand in each other, and how long its headers may be, in bytes: more than any real one has. */
const MOST = { depth: 50, headers: 1024 * 1024 };

/**
 * Reads a mail (RFC 5322, RFC 2045 to 2049): who wrote it to whom, when and about what, as a table of pairs; then what it says, with the
 * pictures that it brings. Nothing is fetched.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `too-large`
 */
export async function readMail(bytes: Uint8Array, file: string): Promise<ReadDocument> {
  const mail = await parseMime(bytes, file);
  const { subject, from, date, html, text } = mail;
  if (from === undefined && date === undefined && subject === undefined)
    throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "mail" });
  return readLetter({
    from: addresses(from ? [from] : []),
    to: addresses(mail.to),
    copy: addresses(mail.cc),
    date: mail.headers.find(({ key }) => key === "date")?.value,
    subject,
    ...(html !== undefined && { html }),
    ...(text !== undefined && { text }),
    attachments: mail.attachments.map(enclosureOf),
  });
}

/**
 * Takes apart what is made of parts (RFC 2045 to 2049).
 * @throws DrawerError `unreadable`
 */
export async function parseMime(bytes: Uint8Array, file: string): Promise<Email> {
  try {
    const mail = await PostalMime.parse(bytes, {
      // A mail that is attached is an attachment: what it says is not what this one says.
      forceRfc822Attachments: true,
      maxNestingDepth: MOST.depth,
      maxHeadersSize: MOST.headers,
    });
    return mended(mail);
  } catch (cause) {
    throw new DrawerError(formatErrors, "unreadable/damaged", { file }, { cause });
  }
}

/** The same, with each text as its encoding has it. */
function mended<Value>(value: Value): Value {
  if (typeof value === "string") return mendedSigns(value) as Value;
  if (Array.isArray(value)) return value.map(mended) as Value;
  if (
    typeof value !== "object" ||
    value === null ||
    ArrayBuffer.isView(value) ||
    value instanceof ArrayBuffer
  )
    return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, each]) => [key, mended(each as unknown)]),
  ) as Value;
}

function addresses(list: readonly Address[] | undefined): string[] {
  return (list ?? []).flatMap((each): string[] =>
    "group" in each && each.group
      ? [`${each.name}: ${addresses(each.group).join(", ")}`]
      : [each.name ? `${each.name} <${each.address}>` : (each.address ?? "")],
  );
}

/** A part that is no text of its own. One that is a mail, and one without a name, is called by its kind. */
export function enclosureOf({ filename, mimeType, content, contentId }: Attachment): Enclosure {
  return {
    name: filename ?? (mimeType === "message/rfc822" ? mailWords.another : mimeType),
    bytes: typeof content === "string" ? new TextEncoder().encode(content) : new Uint8Array(content),
    mediaType: mimeType,
    ...(contentId !== undefined && { contentId }),
  };
}
