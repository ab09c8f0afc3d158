import { lettersOf } from "../../content/byte-letters.js";
import { decodeAs } from "../../content/decode.js";

/**
 * Decodes the bytes of a text file: by its byte order mark, for HTML by what its head declares, as UTF-8 where they are
 * that, and otherwise as Windows-1252, which every other old western file is read as by browsers too.
 * @param bytes a text in any of the usual encodings
 * @param kind what the text is, where that says how it names its encoding
 */
export function decodeText(bytes: Uint8Array, kind: "text" | "html" = "text"): string {
  return decoded(bytes, kind).text;
}

/** Whether nothing says what the bytes of a text file are encoded in, so that reading them as Windows-1252 is a guess. */
export function isGuessed(bytes: Uint8Array, kind: "text" | "html"): boolean {
  return decoded(bytes, kind).isGuess;
}

function decoded(bytes: Uint8Array, kind: "text" | "html"): { text: string; isGuess: boolean } {
  const known = (text: string) => ({ text, isGuess: false });
  const [a, b, c] = bytes;
  if (a === 0xff && b === 0xfe) return known(new TextDecoder("utf-16le").decode(bytes));
  if (a === 0xfe && b === 0xff) return known(new TextDecoder("utf-16be").decode(bytes));
  const marked = a === 0xef && b === 0xbb && c === 0xbf;
  const declared = kind === "html" && !marked ? asDeclared(bytes) : undefined;
  if (declared !== undefined) return known(declared);
  try {
    return known(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch {
    return { text: decodeAs("windows-1252", bytes), isGuess: true }; // not UTF-8, so it is an old file
  }
}

function asDeclared(bytes: Uint8Array): string | undefined {
  const head = lettersOf(bytes.subarray(0, 1024));
  const label = /<meta[^>]*charset\s*=\s*["']?\s*([\w-]+)/i.exec(head)?.[1];
  try {
    return label === undefined || /^utf-?16/i.test(label) ? undefined : decodeAs(label, bytes);
  } catch {
    return undefined; // an encoding that nobody knows is as good as none
  }
}
