import { lettersOf } from "../../content/byte-letters.js";

/** A file of a zip, as the directory at its end tells it (APPNOTE.TXT, 4.3.12). */
export interface ZipEntry {
  /** Whether it is packed by DEFLATE; otherwise it stands there as it is. */
  readonly isPacked: boolean;
  /** How many bytes it comes to. */
  readonly size: number;
  /** The checksum of what it comes to (4.4.7). */
  readonly crc: number;
  /** Its bytes as they stand in the zip. */
  readonly stored: Uint8Array;
  /** All that stands in the zip for it before what stands there for the next: its header, its bytes, what may follow them. */
  readonly record: Uint8Array;
  /** What the directory has of it. */
  readonly listed: Uint8Array;
}

const SIGNATURES = { end: 0x06054b50, end64: 0x06064b50, end64Locator: 0x07064b50, entry: 0x02014b50 };
/** The length of what ends a directory, and the most that a comment after it may take. */
const END = { length: 22, comment: 0xffff };
/** More files than any document has. */
const MOST = 65_535;
const STORED = 0;
const DEFLATED = 8;
/** What stands for a number that is told in the extra field of the 64-bit form (4.5.3). */
const ELSEWHERE = 0xffffffff;

/**
 * The files of a zip, by their names.
 * @throws RangeError or Error when the directory is not whole, or a file is packed in a way that documents are not
 */
export function readZipDirectory(bytes: Uint8Array): Map<string, ZipEntry> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const u16 = (at: number) => view.getUint16(at, true);
  const u32 = (at: number) => view.getUint32(at, true);
  const u64 = (at: number) => Number(view.getBigUint64(at, true));
  const end = endOf(view);
  const isLong = end >= 20 && u32(end - 20) === SIGNATURES.end64Locator;
  const end64 = isLong ? u64(end - 12) : 0;
  if (isLong && u32(end64) !== SIGNATURES.end64) throw new Error("its directory is not where it says");
  const count = isLong ? u64(end64 + 32) : u16(end + 10);
  if (count > MOST) throw new Error("it has more files than a document");
  const directory = isLong ? u64(end64 + 48) : u32(end + 16);
  const found: (Omit<ZipEntry, "record"> & { name: string; offset: number })[] = [];
  for (let at = directory, left = count; left > 0; left--) {
    if (u32(at) !== SIGNATURES.entry) throw new Error("its directory is damaged");
    const [flags, method] = [u16(at + 8), u16(at + 10)];
    const [nameLength, extraLength, commentLength] = [u16(at + 28), u16(at + 30), u16(at + 32)];
    const nameAt = at + 46;
    const facts = { size: u32(at + 24), stored: u32(at + 20), offset: u32(at + 42) };
    readLongFacts(view, nameAt + nameLength, extraLength, facts);
    // 11: the name is UTF-8 (4.4.4); those of office files are plain anyway.
    const letters = bytes.subarray(nameAt, nameAt + nameLength);
    const name = flags & 0x800 ? new TextDecoder().decode(letters) : lettersOf(letters);
    if (method !== STORED && method !== DEFLATED) throw new Error(`${name} is packed by method ${method}`);
    const from = facts.offset + 30 + u16(facts.offset + 26) + u16(facts.offset + 28);
    if (from + facts.stored > bytes.length) throw new Error(`${name} is cut short`);
    const next = nameAt + nameLength + extraLength + commentLength;
    found.push({
      ...{ name, offset: facts.offset, isPacked: method === DEFLATED, size: facts.size, crc: u32(at + 16) },
      ...{ stored: bytes.subarray(from, from + facts.stored), listed: bytes.subarray(at, next) },
    });
    at = next;
  }
  // In the order in which they stand there.
  found.sort((one, other) => one.offset - other.offset);
  return new Map(
    found.map(({ name, offset, ...entry }, index) => {
      const record = bytes.subarray(offset, found[index + 1]?.offset ?? directory);
      return [name, { ...entry, record }];
    }),
  );
}

/** Where the end of the directory begins: the last place that has its signature. */
function endOf(view: DataView): number {
  const last = view.byteLength - END.length;
  for (let at = last; at >= Math.max(0, last - END.comment); at--)
    if (view.getUint32(at, true) === SIGNATURES.end) return at;
  throw new Error("it has no directory");
}

/** Numbers that need more than 32 bits stand in an extra field of their own, in this order. */
function readLongFacts(
  view: DataView,
  from: number,
  length: number,
  facts: { size: number; stored: number; offset: number },
): void {
  for (let at = from; at + 4 <= from + length; at += 4 + view.getUint16(at + 2, true)) {
    if (view.getUint16(at, true) !== 1) continue;
    let place = at + 4;
    for (const name of ["size", "stored", "offset"] as const) {
      if (facts[name] !== ELSEWHERE) continue;
      facts[name] = Number(view.getBigUint64(place, true));
      place += 8;
    }
    return;
  }
}
