import { closeSync, existsSync, openSync, readFileSync, readSync, statSync } from "node:fs";

/** A value of a record. */
export type Value = string | number | bigint | Uint8Array | null;

/**
 * Reads the records of all tables in a SQLite database file straight from its pages, whichever of them can still be
 * read, without the tree that should lead to them (the file format as described at sqlite.org/fileformat2.html). Pages
 * that are in the write-ahead log are read from there. What does not hold together is passed over.
 *
 * @param path the database file; its log is looked for beside it
 */
export function* readRecords(path: string): Generator<Value[]> {
  const pages = readPages(path);
  for (const page of pages.values()) yield* recordsOf(page, pages);
}

/**
 * Reads the records of every page that the files hold, those too that were written over since: of the database as it was before its
 * log, and of each part of the log, committed or not.
 */
export function* readOldRecords(path: string): Generator<Value[]> {
  const pages = readPages(path);
  const bytes = readFileSync(path);
  for (let start = 0; start + PAGE <= bytes.length; start += PAGE)
    yield* recordsOf(bytes.subarray(start, start + PAGE), pages);
  const log = `${path}-wal`;
  if (!existsSync(log)) return;
  const frames = readFileSync(log);
  for (let at = 32; at + 24 + PAGE <= frames.length; at += 24 + PAGE)
    yield* recordsOf(frames.subarray(at + 24, at + 24 + PAGE), pages);
}

/**
 * Whether a database file is shorter than its own head says, and no write-ahead log is there to make up for it.
 * Reading the pages that are still there would not show it.
 */
export function isCutShort(path: string): boolean {
  const log = statSync(`${path}-wal`, { throwIfNoEntry: false });
  if (log && log.size > 0) return false;
  const head = headOf(path);
  const isDatabase = head.toString("latin1", 0, 15) === "SQLite format 3";
  // The count of pages holds only when it was written by the change that is counted last.
  const isCounted = isDatabase && head.readUInt32BE(24) === head.readUInt32BE(92);
  return isCounted && statSync(path).size < head.readUInt16BE(16) * head.readUInt32BE(28);
}

/** The head of a database file, 100 bytes; what the file is too short for is zero. */
export function headOf(path: string): Buffer {
  const file = openSync(path, "r");
  try {
    const head = Buffer.alloc(100);
    readSync(file, head);
    return head;
  } finally {
    closeSync(file);
  }
}

const PAGE = 4096;
const LEAF_OF_TABLE = 0x0d;
const LEAF_OF_INDEX = 0x0a;
const INTERIOR_OF_INDEX = 0x02;

type Pages = ReadonlyMap<number, Uint8Array>;

function readPages(path: string): Map<number, Uint8Array> {
  const bytes = readFileSync(path);
  const pages = new Map<number, Uint8Array>();
  for (let start = 0; start + PAGE <= bytes.length; start += PAGE)
    pages.set(start / PAGE + 1, bytes.subarray(start, start + PAGE));
  const log = `${path}-wal`;
  if (existsSync(log)) overlay(pages, readFileSync(log));
  return pages;
}

/** Puts the pages of a write-ahead log in place of older ones, as far as they were committed. */
function overlay(pages: Map<number, Uint8Array>, log: Buffer): void {
  if (log.length < 32 || log.readUInt32BE(8) !== PAGE) return;
  let pending: [number, Uint8Array][] = [];
  for (let at = 32; at + 24 + PAGE <= log.length; at += 24 + PAGE) {
    // Frames from before the log was last begun again carry another salt.
    if (log.compare(log, 16, 24, at + 8, at + 16) !== 0) return;
    pending.push([log.readUInt32BE(at), log.subarray(at + 24, at + 24 + PAGE)]);
    if (log.readUInt32BE(at + 4) === 0) continue;
    for (const [number, page] of pending) pages.set(number, page);
    pending = [];
  }
}

function* recordsOf(page: Uint8Array, pages: Pages): Generator<Value[]> {
  const view = new DataView(page.buffer, page.byteOffset, page.length);
  const type = page[0]!;
  if (type !== LEAF_OF_TABLE && type !== LEAF_OF_INDEX && type !== INTERIOR_OF_INDEX) return;
  const cells = view.getUint16(3);
  const header = type === INTERIOR_OF_INDEX ? 12 : 8;
  if (header + 2 * cells > PAGE) return;
  for (let cell = 0; cell < cells; cell++) {
    try {
      yield readRecord(readPayload(page, view.getUint16(header + 2 * cell), type, pages));
    } catch (error) {
      // A cell that points outside of what is there: others on the page may be whole.
      if (!(error instanceof RangeError)) throw error;
    }
  }
}

/** The bytes of a cell, with those that did not fit on its page. */
function readPayload(page: Uint8Array, start: number, type: number, pages: Pages): Uint8Array {
  let at = type === INTERIOR_OF_INDEX ? start + 4 : start;
  const [length, afterLength] = varint(page, at);
  at = afterLength;
  if (type === LEAF_OF_TABLE) [, at] = varint(page, at);
  if (length < 2 || length > 1 << 30) throw new RangeError("no cell");
  const most = type === LEAF_OF_TABLE ? PAGE - 35 : Math.floor(((PAGE - 12) * 64) / 255) - 23;
  if (length <= most) return slice(page, at, length);
  const least = Math.floor(((PAGE - 12) * 32) / 255) - 23;
  const some = least + ((length - least) % (PAGE - 4));
  const here = some <= most ? some : least;
  const payload = new Uint8Array(length);
  payload.set(slice(page, at, here));
  let filled = here;
  let next = uint32(slice(page, at + here, 4));
  while (filled < length) {
    const more = pages.get(next);
    if (!more) throw new RangeError("the page is not there");
    const part = more.subarray(4, 4 + Math.min(PAGE - 4, length - filled));
    payload.set(part, filled);
    filled += part.length;
    next = uint32(more);
  }
  return payload;
}

function readRecord(payload: Uint8Array): Value[] {
  const view = new DataView(payload.buffer, payload.byteOffset, payload.length);
  const [headerEnd, first] = varint(payload, 0);
  const values: Value[] = [];
  let at = headerEnd;
  for (let head = first; head < headerEnd;) {
    let type: number;
    [type, head] = varint(payload, head);
    const length = type >= 12 ? (type - 12) >> 1 : ([0, 1, 2, 3, 4, 6, 8, 8, 0, 0][type] ?? NaN);
    const bytes = slice(payload, at, length);
    if (type >= 12) values.push(type % 2 === 0 ? bytes : new TextDecoder().decode(bytes));
    else if (type === 0) values.push(null);
    else if (type === 7) values.push(view.getFloat64(at));
    else values.push(type >= 8 ? type - 8 : integer(bytes));
    at += length;
  }
  return values;
}

function integer(bytes: Uint8Array): number {
  return Number(
    bytes.reduce(
      (sum, byte, index) => (sum << 8n) | BigInt(index === 0 && byte > 127 ? byte - 256 : byte),
      0n,
    ),
  );
}

/** A number of one to nine bytes, seven bits in each, and where it ends. */
function varint(bytes: Uint8Array, start: number): [value: number, end: number] {
  let value = 0;
  for (let at = start; at < start + 8; at++) {
    const byte = slice(bytes, at, 1)[0]!;
    value = value * 128 + (byte & 127);
    if (byte < 128) return [value, at + 1];
  }
  throw new RangeError("too large a number");
}

function uint32(bytes: Uint8Array): number {
  return new DataView(bytes.buffer, bytes.byteOffset, 4).getUint32(0);
}

function slice(bytes: Uint8Array, start: number, length: number): Uint8Array {
  if (!(length >= 0) || start + length > bytes.length) throw new RangeError("past the end");
  return bytes.subarray(start, start + length);
}
