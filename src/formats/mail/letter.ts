import { toBase64 } from "../../content/base64.js";
import { makeCell, makeTable } from "../../content/make-table.js";
import { paragraph, type Content, type Flow, type Table } from "../../content/model.js";
import { mailWords } from "../../messages/en/content.js";
import type { AttachedFile, ReadDocument } from "../format.js";
import { readHtmlDocument } from "../html/read.js";
import { readText } from "../text/read.js";

/** How deep quotes stand in each other: deeper than in any real mail. */
const DEEPEST_QUOTE = 20;

/** A mail, however it is kept. */
export interface Letter {
  /** People, as they are written: with their address in angle brackets behind their name. */
  readonly from: readonly string[];
  readonly to: readonly string[];
  readonly copy: readonly string[];
  /** As the mail says it: with the time where it was written. */
  readonly date: string | undefined;
  readonly subject: string | undefined;
  /** What it says, in one of these forms. */
  readonly html?: string;
  readonly text?: string;
  readonly body?: ReadDocument;
  readonly attachments: readonly Enclosure[];
}

/** Something that comes with a mail. */
export interface Enclosure {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly mediaType: string;
  /** What HTML calls it by (RFC 2392). */
  readonly contentId?: string;
}

/** A mail as a document: who, when and about what as a table of pairs; then what it says, with the pictures that it brings. */
export async function readLetter(letter: Letter): Promise<ReadDocument> {
  const { html, subject } = letter;
  const body = letter.body ?? (await bodyOf(letter));
  const content: Flow[] = [headOf(letter), ...body.content];
  return {
    ...{ content, pictures: body.pictures },
    ...(subject !== undefined && subject.trim() !== "" && { title: subject.trim() }),
    notices: body.notices,
    attached: letter.attachments
      .filter((each) => !isInText(each, html))
      .map(({ name, bytes, mediaType }) => ({ name, bytes, ...kindOf(mediaType) })),
    noticesOf: (flows) => body.noticesOf?.(flows) ?? [],
  };
}

/** The headers that people read, each with its name. */
function headOf({ from, to, copy, date, subject }: Letter): Table {
  const pairs: [string, string | undefined][] = [
    [mailWords.from, from.join(", ")],
    [mailWords.to, to.join(", ")],
    [mailWords.copy, copy.join(", ")],
    [mailWords.date, date?.replace(/\s*\([^)]*\)\s*$/, "").trim()],
    [mailWords.subject, subject?.trim()],
  ];
  const rows = pairs.flatMap(([name, said]) =>
    said ? [[name, said].map((text) => makeCell([paragraph(text)], {}))] : [],
  );
  return { ...makeTable(rows, 0), headerRows: 0 };
}

/** What a mail says: its HTML, with the pictures that it brings; or its text. */
async function bodyOf({ html, text, attachments: all }: Letter): Promise<ReadDocument> {
  if (html === undefined || html.trim() === "") return textBody(text ?? "");
  const pictures = new Map(all.flatMap((each) => (each.contentId ? [[idOf(each), each] as const] : [])));
  // As addresses that hold them (RFC 2392, RFC 2397).
  const brought = html.replace(/\bcid:([^"'\s>)]+)/gi, (written, id: string) => {
    const picture = pictures.get(decoded(id));
    return picture && /^image\//i.test(picture.mediaType)
      ? `data:${picture.mediaType};base64,${toBase64(picture.bytes)}`
      : written;
  });
  return readHtmlDocument(brought);
}

/** What HTML calls something by that comes with it; nothing to call it by is the empty text. */
export function idOf({ contentId = "" }: Enclosure): string {
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

/** Whether the text shows what is enclosed, as a picture. */
function isInText(enclosure: Enclosure, html: string | undefined): boolean {
  const id = idOf(enclosure);
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
    while (end < lines.length && lines[end]!.startsWith(">") && depth < DEEPEST_QUOTE) end++;
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

/** What something is by its media type. */
function kindOf(mediaType: string): Pick<AttachedFile, "type"> {
  const type = TYPES[mediaType.toLowerCase()];
  return type === undefined ? {} : { type };
}

/** What media types say of attachments without a name that does. */
const TYPES: Readonly<Record<string, string>> = {
  "message/rfc822": "mail",
  "text/plain": "text",
  "text/html": "html",
  "text/csv": "csv",
  "text/calendar": "ics",
  "text/vcard": "vcf",
};
