/** Text without the byte order mark before it, and without the NULs that some programs put at its end. */
export function withoutByteOrderMark(text: string): string {
  return text.replace(/^\uFEFF/, "").replace(/\u0000/g, "");
}
