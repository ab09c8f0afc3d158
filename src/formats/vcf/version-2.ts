import { bytesOfLetters, lettersOf } from "../../content/byte-letters.js";
import { decodeAs } from "../../content/decode.js";

/** A line of a card: its name, what is said of it, and its value. */
const LINE = /^((?:[\w-]+\.)?[\w-]+)((?:;[^:]*)?):([^]*)$/;

/**
 * Cards of the version before 3.0 as those of 3.0 are written: in vCard 2.1 text may be quoted-printable and in any character set, kinds
 * are said without a name, and a comma is a comma.
 *
 * @param bytes the whole file
 * @param text the same as text
 */
export function asVersion3(bytes: Uint8Array, text: string): string {
  if (!/^VERSION:2\.1\s*$/im.test(text)) return text;
  // Each byte is a letter, so that what is quoted can be any character set.
  const latin = lettersOf(bytes);
  const lines: string[] = [];
  for (const line of latin.split(/\r?\n/)) {
    const last = lines.at(-1);
    const goesOn = last !== undefined && /^[^:]*ENCODING=QUOTED-PRINTABLE/i.test(last) && last.endsWith("=");
    if (goesOn) lines[lines.length - 1] = last.slice(0, -1) + line;
    else lines.push(line);
  }
  return lines.map((line) => asLine(line)).join("\r\n");
}

function asLine(line: string): string {
  const [, name, said = "", value] = LINE.exec(line) ?? [];
  if (name === undefined || value === undefined) return line;
  if (/^version$/i.test(name)) return "VERSION:3.0";
  const parameters = said.split(";").filter(Boolean);
  const charset = parameters.find((each) => /^charset=/i.test(each))?.slice(8) ?? "utf-8";
  const isQuoted = parameters.some((each) => /^(?:encoding=)?quoted-printable$/i.test(each));
  const kinds = parameters.filter((each) => !/^(?:charset|encoding)=|^quoted-printable$/i.test(each));
  const bytes = isQuoted
    ? value.replace(/=([0-9a-f]{2})/gi, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)))
    : value;
  const text = decoded(bytes, charset);
  const isBinary = parameters.some((each) => /^(?:encoding=)?(?:base64|b)$/i.test(each));
  const types = kinds.map((each) => (/=/.test(each) ? each : `TYPE=${each}`)).map((each) => `;${each}`);
  if (isBinary) return `${name};ENCODING=b${types.join("")}:${value.replace(/\s+/g, "")}`;
  const escaped = text.replace(/\r?\n/g, "\\n").replace(/(?<!\\),/g, "\\,");
  return `${name}${types.join("")}:${escaped}`;
}

function decoded(latin: string, charset: string): string {
  const bytes = bytesOfLetters(latin);
  try {
    return decodeAs(charset, bytes, { fatal: true });
  } catch {
    // A character set that nobody knows, or that the text is not in: that of most old files.
    return decodeAs("windows-1252", bytes);
  }
}
