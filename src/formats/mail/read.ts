import PostalMime, { type Address, type Attachment, type Email } from "postal-mime";
import { toBase64 } from "../../content/base64.js";
import { DrawerError } from "../../content/error.js";
import { makeCell, makeTable } from "../../content/make-table.js";
import { paragraph, type Content, type Flow, type Table } from "../../content/model.js";
import { mailWords } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { AttachedFile, ReadDocument } from "../format.js";
import { readHtmlDocument } from "../html/read.js";
import { readText } from "../text/read.js";

/** How deep parts of a mail stand in each other, how long its headers may be, in bytes, and how deep quotes: more than any real one has. */
const MOST = { depth: 50, headers: 1024 * 1024, quotes: 20 };

/**
 * Reads a mail (RFC 5322, RFC 2045 to 2049): who wrote it to whom, when and about what, as a table of pairs; then what it says, with the
 * pictures that it brings. Nothing is fetched.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `too-large`
 */
export async function readMail(bytes: Uint8Array, file: string): Promise<ReadDocument> {
  const mail = await parsed(bytes, file);
  const { subject, from, date } = mail;
  if (from === undefined && date === undefined && subject === undefined)
    throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "mail" });
  const body = await bodyOf(mail);
  const others = mail.attachments.filter((each) => !isInText(each, mail.html));
  const content: Flow[] = [headOf(mail), ...body.content];
  return {
    ...{ content, pictures: body.pictures },
    ...(subject !== undefined && subject.trim() !== "" && { title: subject.trim() }),
    notices: body.notices,
    attached: others.map((each) => ({ name: nameOf(each), bytes: bytesOf(each), ...kindOf(each) })),
    noticesOf: (flows) => body.noticesOf?.(flows) ?? [],
  };
}

async function parsed(bytes: Uint8Array, file: string): Promise<Email> {
  try {
    return await PostalMime.parse(bytes, {
      // A mail that is attached is an attachment: what it says is not what this one says.
      forceRfc822Attachments: true,
      maxNestingDepth: MOST.depth,
      maxHeadersSize: MOST.headers,
    });
  } catch (cause) {
    throw new DrawerError(formatErrors, "unreadable/damaged", { file }, { cause });
  }
}

/** The headers that people read, each with its name. */
function headOf(mail: Email): Table {
  const date = mail.headers.find(({ key }) => key === "date")?.value;
  const pairs: [string, string | undefined][] = [
    [mailWords.from, addresses(mail.from ? [mail.from] : [])],
    [mailWords.to, addresses(mail.to)],
    [mailWords.copy, addresses(mail.cc)],
    // As the mail says it: with the time where it was written.
    [mailWords.date, date?.replace(/\s*\([^)]*\)\s*$/, "").trim()],
    [mailWords.subject, mail.subject?.trim()],
  ];
  const rows = pairs.flatMap(([name, said]) =>
    said ? [[name, said].map((text) => makeCell([paragraph(text)], {}))] : [],
  );
  return { ...makeTable(rows, 0), headerRows: 0 };
}

function addresses(list: readonly Address[] | undefined): string | undefined {
  const named = (list ?? []).flatMap((each): string[] =>
    "group" in each && each.group
      ? [`${each.name}: ${addresses(each.group) ?? ""}`]
      : [each.name ? `${each.name} <${each.address}>` : (each.address ?? "")],
  );
  return named.length > 0 ? named.join(", ") : undefined;
}

/** What a mail says: its HTML, with the pictures that it brings; or its text. */
async function bodyOf({ html, text, attachments: all }: Email): Promise<ReadDocument> {
  if (html === undefined || html.trim() === "") return textBody(text ?? "");
  const pictures = new Map(all.flatMap((each) => (each.contentId ? [[idOf(each), each] as const] : [])));
  // As addresses that hold them (RFC 2392, RFC 2397).
  const brought = html.replace(/\bcid:([^"'\s>)]+)/gi, (written, id: string) => {
    const picture = pictures.get(decoded(id));
    return picture && /^image\//i.test(picture.mimeType)
      ? `data:${picture.mimeType};base64,${toBase64(bytesOf(picture))}`
      : written;
  });
  return readHtmlDocument(brought);
}

function idOf({ contentId = "" }: Attachment): string {
  return contentId.trim().replace(/^<|>$/g, "");
}

function decoded(id: string): string {
  try {
    return decodeURIComponent(id);
  } catch {
    // It is written as it is.
    return id;
  }
}

function bytesOf({ content }: Attachment): Uint8Array {
  if (typeof content === "string") return new TextEncoder().encode(content);
  return new Uint8Array(content);
}

/** Whether the text shows an attachment, as a picture. */
function isInText(attachment: Attachment, html: string | undefined): boolean {
  const id = idOf(attachment);
  return id !== "" && html !== undefined && decoded(html).includes(`cid:${id}`);
}

/** What a mail of text says; lines that are quoted from another are quotes. */
function textBody(text: string): ReadDocument {
  return { ...readText(""), content: quoted(text.replace(/\r\n?/g, "\n").replace(/\n+$/, "").split("\n")) };
}

/** Lines as paragraphs; those after `>` as a quote of what stands behind it, so deep as people quote each other. */
function quoted(lines: readonly string[], depth = 0): Content {
  const flows: Flow[] = [];
  for (let at = 0; at < lines.length;) {
    let end = at;
    while (end < lines.length && lines[end]!.startsWith(">") && depth < MOST.quotes) end++;
    if (end > at) {
      const inner = lines.slice(at, end).map((line) => line.replace(/^> ?/, ""));
      flows.push({ type: "quote", flows: quoted(inner, depth + 1) });
      at = end;
      continue;
    }
    flows.push(paragraph(lines[at]!));
    at++;
  }
  return flows;
}

/** The name of what is attached; a mail, and what has none, is called by its kind. */
function nameOf({ filename, mimeType }: Attachment): string {
  return filename ?? (mimeType === "message/rfc822" ? mailWords.another : mimeType);
}

/** What an attachment is by its media type. */
function kindOf({ mimeType }: Attachment): Pick<AttachedFile, "type"> {
  const type = TYPES[mimeType.toLowerCase()];
  return type === undefined ? {} : { type };
}

/** What media types say of attachments without a name that does. */
const TYPES: Readonly<Record<string, string>> = {
  "message/rfc822": "mail",
  "text/plain": "text",
  "text/html": "html",
  "text/csv": "csv",
};
