/** How many bytes become letters at a time. */
const PIECE = 8192;

/**
 * Bytes as text of which each letter is one byte, so that places in the text are places in the bytes. (A decoder of that name would not
 * do: what encodings call Latin-1 has other signs for the bytes from 80 to 9F.)
 */
export function lettersOf(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += PIECE)
    text += String.fromCharCode.apply(undefined, bytes.subarray(at, at + PIECE) as unknown as number[]);
  return text;
}

/** The bytes of a text of which each letter is one. */
export function bytesOfLetters(text: string): Uint8Array {
  const bytes = new Uint8Array(text.length);
  for (let at = 0; at < text.length; at++) bytes[at] = text.charCodeAt(at);
  return bytes;
}
