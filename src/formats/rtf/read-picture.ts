/** A picture that is being read. */
export class PictureReader {
  /** Its bytes, in hexadecimal, where they do not stand in the file themselves. */
  text = "";
  bytes: Uint8Array | undefined;
  /** Whether it is a bitmap without the head of its file. */
  isBitmap = false;
  readonly #facts = new Map<string, string>();
  #name = "";

  /** Takes a piece of the name that something is said under. */
  name(text: string): void {
    this.#name += text;
  }

  /** Takes a piece of what is said. */
  fact(text: string): void {
    const name = this.#name.trim();
    this.#facts.set(name, (this.#facts.get(name) ?? "") + text);
  }

  /** Begins another name. */
  beginName(): void {
    this.#name = "";
  }

  /** What the picture shows, in words. */
  get alt(): string {
    return this.#facts.get("wzDescription")?.trim() ?? "";
  }

  /** The bytes of its file. */
  get file(): Uint8Array {
    const bytes = this.bytes ?? bytesOfHex(this.text);
    return this.isBitmap ? withBmpHead(bytes) : bytes;
  }
}

/** How long the head of a BMP is, before that of the bitmap. */
const BMP_HEAD = 14;

/** A bitmap as a file (BITMAPFILEHEADER): RTF holds it without what stands before it there. */
function withBmpHead(bitmap: Uint8Array): Uint8Array {
  const view = new DataView(bitmap.buffer, bitmap.byteOffset, bitmap.byteLength);
  if (bitmap.length < 40) return bitmap;
  const [head, bits, used] = [view.getUint32(0, true), view.getUint16(14, true), view.getUint32(32, true)];
  const colors = used > 0 ? used : bits <= 8 ? 2 ** bits : 0;
  const bytes = new Uint8Array(BMP_HEAD + bitmap.length);
  const file = new DataView(bytes.buffer);
  bytes.set([0x42, 0x4d]);
  file.setUint32(2, bytes.length, true);
  file.setUint32(10, BMP_HEAD + head + 4 * colors, true);
  bytes.set(bitmap, BMP_HEAD);
  return bytes;
}

function bytesOfHex(text: string): Uint8Array {
  const digits = text.replace(/[^0-9a-f]/gi, "");
  const bytes = new Uint8Array(digits.length >> 1);
  for (let at = 0; at < bytes.length; at++) bytes[at] = Number.parseInt(digits.slice(2 * at, 2 * at + 2), 16);
  return bytes;
}
