import { Inflate, inflateSync, strFromU8 } from "fflate";
import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { OnProgress } from "../format.js";
import { crc32 } from "./crc32.js";
import { inflateAtOnce } from "./node/zlib.js";
import { readZipDirectory, type ZipEntry } from "./zip-directory.js";

/** How large the parts of a document that are read whole may be together, and one that is read piece by piece, in bytes. */
const UNPACKED_LIMIT = { whole: 256 * 1024 * 1024, stream: 2 * 1024 * 1024 * 1024 };
/** How much may be unpacked of a document altogether, in bytes: its sheets may all be the same part. */
const MOST_UNPACKED = 16 * 1024 * 1024 * 1024;
/** How large a part may be that is kept in memory for being gone through again, in bytes. */
const KEPT = 64 * 1024 * 1024;
/** How large one may be whose pieces are kept until it has been gone through again. */
const KEPT_ONCE = 128 * 1024 * 1024;
/** How much of a part is unpacked piece by piece before the rest is at once, and how large one may be for that, in bytes. */
const AT_ONCE = { after: 1024 * 1024, most: 128 * 1024 * 1024 };
/** How many bytes of what has been unpacked are read at a time. */
const SLICE = 256 * 1024;
/** How many packed bytes are unpacked at a time. */
const PIECE = 16 * 1024;

/** The parts of a zipped document. Each is unpacked when it is first asked for. */
export class Parts {
  readonly #entries: ReadonlyMap<string, ZipEntry>;
  readonly #whole = new Map<string, Uint8Array>();
  /** The pieces of parts that are kept until they are gone through again. */
  readonly #keptOnce = new Map<string, Uint8Array[]>();
  /** How many bytes have been unpacked of parts that are read whole. */
  #unpacked = 0;
  /** How many bytes have been unpacked of parts that are read piece by piece. */
  #streamed = 0;

  /**
   * Opens a document; nothing of it is unpacked yet.
   * @throws DrawerError `unreadable` when it is no whole zip file
   */
  constructor(
    bytes: Uint8Array,
    readonly file: string,
    readonly onProgress?: OnProgress,
  ) {
    this.#entries = this.#orDamaged(() => readZipDirectory(bytes));
  }

  /** What stands in the zip, in its order. */
  get entries(): ReadonlyMap<string, ZipEntry> {
    return this.#entries;
  }

  has(name: string): boolean {
    return this.#entries.has(name);
  }

  /**
   * A part's bytes; nothing when it is not there.
   * @throws DrawerError `unreadable`; `too-large` when what has been asked for unpacks to more than 256 MB
   */
  bytes(name: string): Uint8Array | undefined {
    const known = this.#whole.get(name);
    const entry = this.#entries.get(name);
    if (known || !entry) return known;
    this.#unpacked += entry.size;
    if (this.#unpacked > UNPACKED_LIMIT.whole) throw this.#tooLarge(UNPACKED_LIMIT.whole);
    const { isPacked, stored, size, crc } = entry;
    const bytes = isPacked ? this.#orDamaged(() => inflate(stored, size)) : stored;
    if (crc32(bytes) !== crc) throw this.#damaged();
    this.#whole.set(name, bytes);
    return bytes;
  }

  /** The first bytes of a part, at least so many where it has them. */
  head(name: string, least: number): Uint8Array {
    const pieces: Uint8Array[] = [];
    let length = 0;
    for (const piece of this.pieces(name)) {
      pieces.push(piece);
      length += piece.length;
      if (length >= least) break;
    }
    const bytes = new Uint8Array(length);
    let at = 0;
    for (const piece of pieces) {
      bytes.set(piece, at);
      at += piece.length;
    }
    return bytes;
  }

  /** A part's text (UTF-8); nothing when it is not there. */
  text(name: string): string | undefined {
    const bytes = this.bytes(name);
    return bytes && strFromU8(bytes);
  }

  /**
   * A part's text.
   * @throws DrawerError `unreadable` when it is not there
   */
  needed(name: string): string {
    const text = this.text(name);
    if (text !== undefined) return text;
    throw this.#missing(name);
  }

  #missing(part: string): DrawerError {
    return new DrawerError(formatErrors, "unreadable/part", { file: this.file, part });
  }

  /**
   * A part's bytes, piece by piece, unpacked as far as they are taken.
   * @param isAgain whether it will be gone through once more from its beginning: unless it is large, what has been unpacked is kept
   *   until then
   * @throws DrawerError `unreadable`, also when it is not there; `too-large` when it unpacks to more than 2 GB
   */
  *pieces(name: string, isAgain = false): Generator<Uint8Array, void> {
    const entry = this.#entries.get(name);
    const whole = this.#whole.get(name);
    if (whole) return yield* slicesOf(whole);
    const kept = this.#keptOnce.get(name);
    if (kept && !isAgain) {
      this.#keptOnce.delete(name);
      for (let piece = kept.shift(); piece; piece = kept.shift()) yield piece;
      return;
    }
    const keep: Uint8Array[] | undefined = isAgain && (entry?.size ?? Infinity) <= KEPT_ONCE ? [] : undefined;
    if (!entry) throw this.#missing(name);
    if (entry.size > UNPACKED_LIMIT.stream) throw this.#tooLarge(UNPACKED_LIMIT.stream);
    let [left, crc] = [entry.size, 0];
    for (const bytes of this.#inflated(entry)) {
      this.onProgress?.(entry.size - left, entry.size);
      left -= bytes.length;
      this.#streamed += bytes.length;
      if (this.#streamed > MOST_UNPACKED) throw this.#tooLarge(MOST_UNPACKED);
      // It comes to more than it says: nobody knows to how much.
      if (left < 0) throw this.#damaged();
      crc = crc32(bytes, crc);
      keep?.push(bytes);
      yield bytes;
    }
    if (crc !== entry.crc) throw this.#damaged();
    if (keep) this.#keptOnce.set(name, keep);
  }

  /** The bytes of a part as they are asked for; where that is quicker, all that follows its beginning is unpacked at once. */
  *#inflated({ isPacked, stored, size }: ZipEntry): Generator<Uint8Array, void> {
    const atOnce = isPacked && size <= AT_ONCE.most ? inflateAtOnce : undefined;
    const unpacked: Uint8Array[] = [];
    const inflate = new Inflate((piece) => void unpacked.push(piece));
    let length = 0;
    for (let at = 0; at < stored.length; at += PIECE) {
      if (atOnce && length > AT_ONCE.after) {
        const whole = this.#orDamaged(() => atOnce(stored, size));
        yield* slicesOf(whole.subarray(length));
        return;
      }
      const piece = stored.subarray(at, at + PIECE);
      if (isPacked) this.#orDamaged(() => inflate.push(piece, at + PIECE >= stored.length));
      else unpacked.push(piece);
      for (const bytes of unpacked.splice(0)) {
        length += bytes.length;
        yield bytes;
      }
    }
  }

  /** Unpacks a part that is gone through more than once, and keeps it, unless it is large. */
  keep(name: string): void {
    if ((this.#entries.get(name)?.size ?? Infinity) <= KEPT) this.bytes(name);
  }

  #orDamaged<Value>(does: () => Value): Value {
    try {
      return does();
    } catch (error) {
      throw this.#damaged(error);
    }
  }

  #damaged(cause?: unknown): DrawerError {
    return new DrawerError(formatErrors, "unreadable/damaged", { file: this.file }, { cause });
  }

  #tooLarge(most: number): DrawerError {
    return new DrawerError(formatErrors, "too-large/document", { file: this.file, what: "bytes", most });
  }
}

function inflate(packed: Uint8Array, size: number): Uint8Array {
  return inflateAtOnce?.(packed, size) ?? inflateSync(packed, { out: new Uint8Array(size) });
}

function* slicesOf(bytes: Uint8Array): Generator<Uint8Array, void> {
  for (let at = 0; at < bytes.length; at += SLICE) yield bytes.subarray(at, at + SLICE);
}

/** The refusal of a file that needs a password. */
export function locked(file: string): DrawerError {
  return new DrawerError(formatErrors, "locked", { file });
}
