/** A piece of an RTF file: where a group begins or ends, a control word with its number, or bytes of text. */
export type Token =
  | { readonly type: "open" | "close" }
  | { readonly type: "word"; readonly name: string; readonly number: number | undefined }
  | { readonly type: "byte"; readonly byte: number }
  | { readonly type: "binary"; readonly bytes: Uint8Array };

const BACKSLASH = 0x5c;
const OPEN = 0x7b;
const CLOSE = 0x7d;
/** A control word is no longer than this. */
const LONGEST = 40;

/** The pieces of an RTF file, in order. A control symbol (`\~`) is a word of one sign. */
export function* tokensOf(bytes: Uint8Array): Generator<Token> {
  const isLetter = (byte: number | undefined) =>
    byte !== undefined && (byte | 32) >= 0x61 && (byte | 32) <= 0x7a;
  const isDigit = (byte: number | undefined) => byte !== undefined && byte >= 0x30 && byte <= 0x39;
  for (let at = 0; at < bytes.length;) {
    const byte = bytes[at]!;
    if (byte === OPEN || byte === CLOSE) {
      yield { type: byte === OPEN ? "open" : "close" };
      at++;
      continue;
    }
    if (byte !== BACKSLASH) {
      at++;
      // Line ends of the file are none of the text.
      if (byte !== 0x0a && byte !== 0x0d && byte !== 0) yield { type: "byte", byte };
      continue;
    }
    const start = ++at;
    if (!isLetter(bytes[at])) {
      const sign = String.fromCharCode(bytes[at++] ?? 0x20);
      if (sign === "'") {
        const code = Number.parseInt(String.fromCharCode(...bytes.subarray(at, at + 2)), 16);
        at += 2;
        if (!Number.isNaN(code)) yield { type: "byte", byte: code };
      } else if (sign === "\n" || sign === "\r") yield { type: "word", name: "par", number: undefined };
      else yield { type: "word", name: sign, number: undefined };
      continue;
    }
    while (isLetter(bytes[at]) && at - start < LONGEST) at++;
    const name = String.fromCharCode(...bytes.subarray(start, at));
    const from = at;
    if (bytes[at] === 0x2d && isDigit(bytes[at + 1])) at++;
    while (isDigit(bytes[at]) && at - from < 12) at++;
    const number = at > from ? Number(String.fromCharCode(...bytes.subarray(from, at))) : undefined;
    if (bytes[at] === 0x20) at++;
    if (name === "bin" && number !== undefined && number >= 0) {
      yield { type: "binary", bytes: bytes.slice(at, at + number) };
      at += number;
    } else yield { type: "word", name, number };
  }
}
