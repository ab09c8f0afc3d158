import * as v from "valibot";
import { pack, unpackAsked } from "../stores/remote/wire.js";
import { count, name } from "./schemas.js";
import { digest, encodeBytes, isSigned, sign } from "./sealing.js";

/**
 * What goes to the hub: a header that it can read, which a device has signed, and a sealed body. The header binds the body to its
 * place: a group, a device, a number there, the record before it, and what it is about.
 */
export interface SealedRecord {
  /** The header, as it was signed: MessagePack. */
  readonly header: Uint8Array;
  /** Ed25519, by the device. */
  readonly signature: Uint8Array;
  /** Nothing when a later record has taken its place: the header is kept until every device has heard it. */
  readonly body: Uint8Array | null;
}

/**
 * What a record is about: a snippet; a snippet that is there no more, so that the record may go when all have heard it; the devices
 * themselves; or a key.
 */
export type RecordSort = (typeof SORTS)[number];
const SORTS = ["snippet", "forgotten", "devices", "key"] as const;

/** The header of a record. */
export interface RecordHeader {
  readonly group: string;
  readonly device: string;
  /** The number of the record among those of its device, from 1. */
  readonly number: number;
  /** The name of the record before it, of the same device; `""` for the first. */
  readonly before: string;
  readonly sort: RecordSort;
  /** What it is about, by a name that tells nothing. A later record of the same takes its place. */
  readonly slot: string;
  /** The place in the hub's order up to which the device had heard all when it wrote this. */
  readonly seen: number;
  /** The id of the key that its body is sealed under. */
  readonly key: string;
  /** The contents that it needs, by names that tell nothing. */
  readonly blobs: readonly string[];
  /** SHA-256 of the body, and its length. */
  readonly body: { readonly hash: Uint8Array; readonly bytes: number };
}

const PURPOSE = "record";
const FORM = 1;

/** How many contents one record needs at most. */
export const MOST_BLOBS = 4000;

const HEADER = v.strictObject({
  form: v.literal(FORM),
  ...{
    group: name,
    device: name,
    number: v.pipe(count, v.minValue(1)),
    before: v.union([v.literal(""), name]),
  },
  ...{ sort: v.picklist(SORTS), slot: name, seen: count, key: v.union([v.literal(""), name]) },
  blobs: v.pipe(v.array(name), v.maxLength(MOST_BLOBS)),
  body: v.strictObject({ hash: v.pipe(v.instance(Uint8Array), v.length(32)), bytes: count }),
});

/** Writes and signs a record. */
export function writeRecord(
  header: Omit<RecordHeader, "body">,
  body: Uint8Array,
  secret: Uint8Array,
): SealedRecord {
  const bytes = pack({ form: FORM, ...header, body: { hash: digest(body), bytes: body.length } });
  return { header: bytes, signature: sign(secret, PURPOSE, bytes), body };
}

/** The header of a record; nothing when it is none, or its body is not the one that it was written with. */
export function readHeader({ header, body }: SealedRecord): RecordHeader | undefined {
  const read = v.safeParse(HEADER, unpackAsked(header));
  if (!read.success) return undefined;
  const { form: _, ...said } = read.output;
  if (body && (body.length !== said.body.bytes || encodeBytes(digest(body)) !== encodeBytes(said.body.hash)))
    return undefined;
  return said;
}

/** Whether a device has signed a record. */
export function isSignedBy(key: Uint8Array, { header, signature }: SealedRecord): boolean {
  return isSigned(key, PURPOSE, header, signature);
}

/** The name of a record, by which the next of the same device follows it. */
export function nameOfRecord({ header }: SealedRecord): string {
  return encodeBytes(digest(header));
}

/** What a body belongs to, without which it does not open. */
export function placeOf({ group, device, number, sort, slot }: Omit<RecordHeader, "body">): Uint8Array {
  return pack([group, device, number, sort, slot]);
}

/** A record as bytes. */
export function packRecord({ header, signature, body }: SealedRecord): Uint8Array {
  return pack([header, signature, body]);
}

const RECORD = v.strictTuple([
  v.instance(Uint8Array),
  v.instance(Uint8Array),
  v.nullable(v.instance(Uint8Array)),
]);

/** A record from bytes; nothing when they are none. */
export function unpackRecord(bytes: Uint8Array): SealedRecord | undefined {
  const read = v.safeParse(RECORD, unpackAsked(bytes));
  if (!read.success) return undefined;
  const [header, signature, body] = read.output;
  return { header, signature, body };
}
