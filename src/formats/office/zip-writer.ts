import { Deflate, strToU8 } from "fflate";
import { crc32 } from "./crc32.js";
import type { ZipEntry } from "./zip-directory.js";

/** What a file of a zip holds: its text in UTF-8 or its bytes; a large one piece by piece. */
export type ZipContent = string | Uint8Array | Iterable<string>;

/** What stands in a zip for one file: its header and its bytes, and its entry in the directory by where that begins. */
interface Listed {
  readonly pieces: readonly Uint8Array[];
  readonly entry: (offset: number) => Uint8Array;
}

/** A file as it is packed. */
interface Packed {
  readonly name: Uint8Array;
  readonly isPacked: boolean;
  readonly pieces: readonly Uint8Array[];
  readonly crc: number;
  readonly size: number;
  readonly stored: number;
}

const SIGNATURES = { file: 0x04034b50, entry: 0x02014b50, end: 0x06054b50 };
/** Version 2.0: the least that reads DEFLATE (APPNOTE.TXT, 4.4.3). */
const VERSION = 20;
/** That names are UTF-8 (4.4.4). */
const UTF8 = 0x800;
/** 1 January 1980, the first day that a zip can tell: files do not differ by when they were written (4.4.6). */
const DATE = 0x21;
/** How many characters are packed at a time. */
const PIECE = 64 * 1024;

/** Writes a zip file by file (APPNOTE.TXT), each of which is packed as it comes, so that no more than the packed bytes are held. */
export class ZipWriter {
  readonly #files: Listed[] = [];

  /** Adds a file, packed by DEFLATE. */
  add(name: string, content: ZipContent): void {
    const pieces: Uint8Array[] = [];
    const deflate = new Deflate({ level: 6 }, (piece) => void pieces.push(piece));
    let [crc, size] = [0, 0];
    for (const bytes of piecesOf(content)) {
      crc = crc32(bytes, crc);
      size += bytes.length;
      deflate.push(bytes);
    }
    deflate.push(new Uint8Array(), true);
    const stored = pieces.reduce((sum, piece) => sum + piece.length, 0);
    this.#put({ name: strToU8(name), isPacked: true, pieces, crc, size, stored });
  }

  /** Adds a file as it is. */
  store(name: string, bytes: Uint8Array): void {
    const [size, stored] = [bytes.length, bytes.length];
    this.#put({
      ...{ name: strToU8(name), isPacked: false, pieces: [bytes], crc: crc32(bytes), size, stored },
    });
  }

  /** Adds a file of another zip as it stands there, packed as it is. */
  copy({ record, listed }: ZipEntry): void {
    this.#files.push({
      pieces: [record],
      entry(offset) {
        // A copy: what a buffer of Node slices is not one.
        const entry = new Uint8Array(listed);
        new DataView(entry.buffer).setUint32(42, offset, true);
        return entry;
      },
    });
  }

  #put(file: Packed): void {
    this.#files.push({
      pieces: [header(file, SIGNATURES.file, []), ...file.pieces],
      entry: (offset) => header(file, SIGNATURES.entry, [offset]),
    });
  }

  /** The zip. */
  bytes(): Uint8Array {
    let at = 0;
    const entries = this.#files.map(({ pieces, entry }) => {
      const listed = entry(at);
      for (const piece of pieces) at += piece.length;
      return listed;
    });
    const directory = at;
    const length = entries.reduce((sum, entry) => sum + entry.length, 0);
    const zip = new Uint8Array(directory + length + 22);
    at = 0;
    for (const piece of [...this.#files.flatMap(({ pieces }) => pieces), ...entries]) {
      zip.set(piece, at);
      at += piece.length;
    }
    const view = new DataView(zip.buffer, at);
    view.setUint32(0, SIGNATURES.end, true);
    view.setUint16(8, entries.length, true);
    view.setUint16(10, entries.length, true);
    view.setUint32(12, length, true);
    view.setUint32(16, directory, true);
    return zip;
  }
}

/** The header of a file (4.3.7), or, with its offset, its entry in the directory (4.3.12). */
function header(
  { name, isPacked, crc, size, stored }: Packed,
  signature: number,
  [offset]: readonly number[],
) {
  const isEntry = offset !== undefined;
  const bytes = new Uint8Array((isEntry ? 46 : 30) + name.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, signature, true);
  // An entry says by which version it was written too.
  if (isEntry) view.setUint16(4, VERSION, true);
  const at = isEntry ? 6 : 4;
  view.setUint16(at, VERSION, true);
  view.setUint16(at + 2, UTF8, true);
  view.setUint16(at + 4, isPacked ? 8 : 0, true);
  view.setUint16(at + 8, DATE, true);
  view.setUint32(at + 10, crc, true);
  view.setUint32(at + 14, stored, true);
  view.setUint32(at + 18, size, true);
  view.setUint16(at + 22, name.length, true);
  if (isEntry) view.setUint32(42, offset, true);
  bytes.set(name, isEntry ? 46 : 30);
  return bytes;
}

function* piecesOf(content: ZipContent): Generator<Uint8Array> {
  if (content instanceof Uint8Array) {
    yield content;
    return;
  }
  let text = "";
  for (const piece of typeof content === "string" ? [content] : content) {
    text += piece;
    if (text.length < PIECE) continue;
    yield strToU8(text);
    text = "";
  }
  yield strToU8(text);
}
