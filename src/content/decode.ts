/** The signs that Windows-1252 has for the bytes from 80 to 9F (Encoding Standard, index windows-1252). */
const SIGNS = "€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ";

/**
 * Decodes bytes by the name of an encoding, as the Encoding Standard has it.
 *
 * @param encoding any of its names: what is called Latin-1 or ASCII is Windows-1252 there
 * @param options `fatal`: what is not of this encoding is refused
 * @throws RangeError for an encoding that nobody knows, TypeError for what is refused
 */
export function decodeAs(encoding: string, bytes: Uint8Array, options: TextDecoderOptions = {}): string {
  const decoder = new TextDecoder(encoding, options);
  const text = decoder.decode(bytes);
  return decoder.encoding === "windows-1252" ? withSigns(text) : text;
}

/**
 * Text that was decoded as Windows-1252 with the signs that it has there. Node 20 makes control characters of curly quotes, dashes and
 * the euro; where they are right already nothing changes.
 */
function withSigns(text: string): string {
  return text.replace(/[\u0080-\u009f]/g, (sign) => SIGNS[sign.charCodeAt(0) - 0x80]!);
}

/** Whether this program decodes Windows-1252 as the standard has it. */
const IS_RIGHT = new TextDecoder("windows-1252").decode(Uint8Array.of(0x80)) === "€";

/** What a package has decoded, in whatever encoding, with the signs of Windows-1252 where this program has made none of them. */
export function mendedSigns(text: string): string {
  return IS_RIGHT ? text : withSigns(text);
}
