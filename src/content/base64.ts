/** Bytes as base64 (RFC 4648, section 4). */
export function toBase64(bytes: Uint8Array): string {
  let binary = "";
  for (let at = 0; at < bytes.length; at += 0x8000)
    binary += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return btoa(binary);
}

/** The bytes of base64, spaces in it passed over; nothing when it is not base64. */
export function fromBase64(text: string): Uint8Array | undefined {
  try {
    return Uint8Array.from(atob(text.replace(/\s+/g, "")), (sign) => sign.charCodeAt(0));
  } catch (error) {
    if ((error as Error).name === "InvalidCharacterError") return undefined;
    throw error;
  }
}
