/** What a message may hold. */
interface Budget {
  readonly depth: number;
  readonly values: number;
  readonly extension: number;
}

/**
 * Whether a message in MessagePack keeps within a budget, told from the heads of its values alone, before anything is made of it:
 * an empty array takes one byte there and some fifty in memory.
 *
 * @param bytes the message; one that is cut off is not within it
 * @param budget how deep, how many, and the type of the extensions that hold a value
 */
export function isWithin(bytes: Uint8Array, { depth, values, extension }: Budget): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  /** How many values are still to come at each depth. */
  const open: number[] = [1];
  let count = 0;
  let coming = 1;
  for (let at = 0; at < bytes.length && open.length > 0;) {
    if (++count > values) return false;
    open[open.length - 1]!--;
    coming--;
    const { skip, inside } = headAt(view, at, extension);
    at += skip;
    if (inside > 0) open.push(inside);
    coming += inside;
    // Each takes a byte at least; room is made for as many as are announced.
    if (coming > bytes.length - at) return false;
    while (open.at(-1) === 0) open.pop();
    if (open.length > depth) return false;
  }
  return true;
}

/** What stands at a place: how many bytes to pass over for the next head, and how many values stand inside. */
interface Head {
  readonly skip: number;
  readonly inside: number;
}

const END: Head = { skip: Infinity, inside: 0 };

/** The head of a value (the MessagePack specification, “Formats”). */
function headAt(view: DataView, at: number, extension: number): Head {
  const type = view.getUint8(at);
  const size = (bytes: 1 | 2 | 4): number => {
    if (at + 1 + bytes > view.byteLength) return Infinity;
    return bytes === 1
      ? view.getUint8(at + 1)
      : bytes === 2
        ? view.getUint16(at + 1)
        : view.getUint32(at + 1);
  };
  const holds = (inside: number, head: number): Head =>
    Number.isFinite(inside) ? { skip: head, inside } : END;
  const spans = (skip: number): Head => ({ skip, inside: 0 });
  if (type <= 0x7f || type >= 0xe0) return spans(1);
  if (type <= 0x8f) return holds(2 * (type & 0x0f), 1);
  if (type <= 0x9f) return holds(type & 0x0f, 1);
  if (type <= 0xbf) return spans(1 + (type & 0x1f));
  // How many bytes say a length or a count, by the place of the type among its like.
  const length = [1, 2, 4] as const;
  const sized = (bytes: 1 | 2 | 4): Head => spans(1 + bytes + size(bytes));
  const extended = (bytes: number, held: number): Head => {
    const typeAt = at + 1 + bytes;
    const isOurs = typeAt < view.byteLength && view.getInt8(typeAt) === extension;
    return isOurs ? { skip: 2 + bytes, inside: 1 } : spans(2 + bytes + held);
  };
  if (type <= 0xc3) return spans(1);
  if (type <= 0xc6) return sized(length[type - 0xc4]!);
  if (type <= 0xc9) return extended(length[type - 0xc7]!, size(length[type - 0xc7]!));
  if (type <= 0xcb) return spans(type === 0xca ? 5 : 9);
  if (type <= 0xd3) return spans(1 + 2 ** (type % 4));
  if (type <= 0xd8) return extended(0, 2 ** (type - 0xd4));
  if (type <= 0xdb) return sized(length[type - 0xd9]!);
  const bytes = type % 2 === 0 ? 2 : 4;
  return holds((type < 0xde ? 1 : 2) * size(bytes), 1 + bytes);
}
