import { lettersOf } from "../content/byte-letters.js";
import { readPictureBytes } from "../content/picture.js";
import { isEvenlyCut } from "./delimited/separator.js";
import { compoundType, flatOdfType } from "./heads.js";
import { formatOfName, namedFormat, type FormatName } from "./registry.js";
import { decodeText } from "./text/decode.js";

/**
 * Tells a file's format: a picture or a zipped document from its bytes, whatever its name is; HTML where the name ends in no
 * format that is read; anything else from the ending of its name.
 * @param bytes the whole file
 * @param name its name, for its ending
 * @throws DrawerError `unknown-format`
 */
export function tellFormat(bytes: Uint8Array, name: string): FormatName {
  if (readPictureBytes(bytes) && !/\.html?$/i.test(name)) return "picture";
  const told = tellByHead(bytes, headOf(bytes));
  if (told) return told;
  if (namedFormat(name) === undefined && MAILS.test(headOf(bytes))) return "mbox";
  // Programs write rows and pages under the endings of old office files, which know what to do with them.
  if (/\.(?:xl[st]|do[ct])$/i.test(name) && isText(bytes)) {
    const text = tellFormatOfBytes(bytes, decodeText(bytes));
    if (text === "html" || (text === "text") === /\.do[ct]$/i.test(name)) return text;
  }
  if (namedFormat(name) === undefined && HTML_START.test(headOf(bytes))) return "html";
  return formatOfName(name);
}

/** Tells what cannot be anything else, by how it begins; nothing otherwise. */
function tellByHead(bytes: Uint8Array, head: string): FormatName | undefined {
  const zipped = tellZipped(bytes);
  if (zipped) return zipped;
  if (isPdf(bytes)) return "pdf";
  const compound = compoundType(bytes);
  if (compound) return compound;
  const flat = flatOdfType(bytes);
  if (flat) return ODF[flat];
  if (XML_WORKBOOK.test(head)) return "xls";
  return RTF_START.test(head) ? "rtf" : linesFormat(head);
}

/** What begins with a line that only such files begin with: calendars, address books, saved pages. */
function linesFormat(head: string): FormatName | undefined {
  if (/^\uFEFF?BEGIN:VCALENDAR\s/i.test(head)) return "ics";
  if (/^\uFEFF?BEGIN:VCARD\s/i.test(head)) return "vcf";
  // Browsers that save a page say so of it; others name its first part.
  const isPage = /^Snapshot-Content-Location:/im.test(head) || /^From: ?<Saved by /im.test(head);
  return isPage && /^MIME-Version:/im.test(head) ? "mhtml" : undefined;
}

/** Whether bytes are text, as far as their beginning shows. */
function isText(bytes: Uint8Array): boolean {
  return !bytes.subarray(0, 2000).some((byte) => byte < 9);
}

function headOf(bytes: Uint8Array): string {
  return new TextDecoder().decode(bytes.subarray(0, 2000));
}

/** How a workbook begins that is one XML file, as programs of accounts write under several endings (SpreadsheetML of 2003). */
const XML_WORKBOOK =
  /^\uFEFF?\s*(?:<[?!][^>]*>\s*)*<(?:\w+:)?Workbook\s[^>]*"urn:schemas-microsoft-com:office:spreadsheet"/;

/** How Rich Text Format begins. */
const RTF_START = /^\uFEFF?\s*\{\\rtf/;

/** How a file of mails begins; it often has no ending. */
const MAILS = /^From [^\n]*\d{4}[^\n]*\n[\w-]+:/;

/** How HTML begins: after what some clipboards put before it, with an element. */
const HTML_START =
  /^(?:\uFEFF|\s|Version:\d[^<]*)*<(?:!doctype html|!--|html|head|body|meta|table|t[rdh]|p|div|span|h[1-6]|ul|ol|a|b|i|em|strong|img)\b/i;

/**
 * Tells the format of bytes that have no name: pictures, zipped documents, HTML, rows parted by tabs, semicolons or commas; otherwise text.
 * @param bytes all of it
 * @param text the same as text
 */
export function tellFormatOfBytes(bytes: Uint8Array, text: string): FormatName {
  if (readPictureBytes(bytes)) return "picture";
  const told = tellByHead(bytes, text.slice(0, 2000));
  if (told) return told;
  if (HTML_START.test(text.slice(0, 2000))) return "html";
  if (/^\uFEFF?(---|\+\+\+)[ \t]*\r?\n[\w-]+[ \t]*[:=][\s\S]*?\n\1[ \t]*(?:\r?\n|$)/.test(text))
    return "markdown";
  if (/^\uFEFF?sep=[,;|\t]\r?\n/i.test(text)) return "csv";
  if (isEvenlyCut(text, ";") || isEvenlyCut(text, ",")) return "csv";
  const lines = text.split("\n").filter((line) => line !== "");
  const tabs = lines.map((line) => line.split("\t").length);
  return lines.length > 0 && tabs[0]! > 1 && tabs.every((count) => count === tabs[0]) ? "tsv" : "text";
}

/** The formats of OpenDocument, by what their files say first. */
const ODF = { text: "odt", spreadsheet: "ods", presentation: "odp" } as const;

/** Which zipped document bytes are: by the type it names first, or by the parts it has; nothing when they are none. */
function tellZipped(bytes: Uint8Array): FormatName | undefined {
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return undefined;
  // The names of parts stand in their headers, and once more at the end of the file.
  const ends = [bytes.subarray(0, 65_536), bytes.subarray(-65_536)];
  const names = ends.map((end) => lettersOf(end)).join("\n");
  const odf = /mimetypeapplication\/vnd\.oasis\.opendocument\.(text|spreadsheet|presentation)/.exec(
    names,
  )?.[1];
  if (odf) return ODF[odf as keyof typeof ODF];
  if (names.includes("mimetypeapplication/epub+zip")) return "epub";
  if (names.includes("word/document")) return "docx";
  if (names.includes("ppt/presentation")) return "pptx";
  if (names.includes("xl/workbook.bin")) return "xls";
  return names.includes("xl/workbook") ? "xlsx" : undefined;
}

/** Whether bytes are a PDF: some programs put a few before its head. */
function isPdf(bytes: Uint8Array): boolean {
  return /^[^]{0,1000}%PDF-\d/.test(lettersOf(bytes.subarray(0, 1024)));
}
