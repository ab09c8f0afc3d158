import * as v from "valibot";
import { decodeContent, hashBytes, type Hash } from "../content/encode.js";
import { KINDS } from "../content/kind.js";
import { readPictureBytes } from "../content/picture.js";
import { snippet as isSnippet } from "../drawer/drawer-file-validator.js";
import { TEXT_LENGTH, type Entry } from "../drawer/model/entry.js";
import type { hubFaults } from "../messages/en/sync.js";
import { originFields } from "../stores/remote/questions.js";
import { unpackAsked } from "../stores/remote/wire.js";
import { deviceId, isMember, type Device } from "./devices.js";
import { groupAfter, unpackFact, unpackKeys, type Fact } from "./facts.js";
import { isOrderKey } from "./order.js";
import {
  isSignedBy,
  nameOfRecord,
  placeOf,
  readHeader,
  type RecordHeader,
  type SealedRecord,
} from "./records.js";
import type { Held, Registers } from "./registers.js";
import { count } from "./schemas.js";
import { keyedName, open } from "./sealing.js";
import { isStamp } from "./stamp.js";
import type { DeviceSecrets, GroupKey, Head, SyncState } from "./state.js";

/** A record as the hub gives it. */
export interface HubRecord extends SealedRecord {
  /** Its place in the hub's order of this group, from 1. */
  readonly at: number;
}

/** What another device tells of a snippet. */
export interface Incoming {
  readonly id: string;
  readonly registers: Registers;
  /** Contents that came within the record; each has its hash. */
  readonly contents: ReadonlyMap<Hash, Uint8Array>;
}

/** What records of the hub come to. */
export interface Page {
  /** The group, and how far it is heard, after them. */
  readonly state: SyncState;
  readonly secrets: DeviceSecrets;
  readonly snippets: readonly Incoming[];
  /** One that could not be opened, as its key has not come yet: it and those after it are left out. */
  readonly locked?: HubRecord;
}

/** That what a hub gives cannot be right. */
export class HubFault extends Error {
  override readonly name = "HubFault";

  constructor(readonly why: keyof typeof hubFaults) {
    super(why);
  }
}

const text = v.string();
const stamp = v.pipe(text, v.check(isStamp));
const register = <Value extends v.GenericSchema>(value: Value) => v.strictObject({ value, at: stamp });
const hash = v.pipe(text, v.regex(/^[0-9a-f]{64}$/));
const order = v.pipe(text, v.maxLength(2000), v.check(isOrderKey));
const held = {
  kind: v.picklist(KINDS),
  ...{ text: v.pipe(text, v.maxLength(TEXT_LENGTH)), content: hash },
  pictures: v.exactOptional(v.array(hash)),
  bytes: count,
  ...{ origin: v.strictObject(originFields), collectedAt: v.pipe(text, v.isoTimestamp()) },
};
const part: v.GenericSchema = v.strictObject({
  ...held,
  ...{ id: text, drawer: text, order: text, label: v.exactOptional(text) },
  ...{ kept: v.boolean(), private: v.literal(false) },
  parts: v.exactOptional(v.array(v.lazy(() => part))),
});

const SNIPPET = v.strictObject({
  id: v.pipe(text, v.uuid()),
  registers: v.strictObject({
    there: register(v.picklist(["here", "gone", "withdrawn", "forgotten"])),
    place: v.exactOptional(
      register(v.strictObject({ drawer: v.pipe(text, v.minLength(1), v.maxLength(200)), order })),
    ),
    label: v.exactOptional(register(v.nullable(text))),
    kept: v.exactOptional(register(v.boolean())),
    held: v.exactOptional(register(v.strictObject({ ...held, parts: v.exactOptional(v.array(part)) }))),
  }),
  contents: v.map(hash, v.instance(Uint8Array)),
});

/** How a page is read: on from what is heard, or back from where a device has joined. */
export type Direction = "on" | "back";

/**
 * Reads records of the hub: checks who wrote them, that none is left out or put in another place, and opens them.
 *
 * @param direction `back` for what stood there before this device joined: of that the first and the last may be missing
 * @throws HubFault when the hub cannot be trusted
 */
export function readPage(
  records: readonly HubRecord[],
  state: SyncState,
  secrets: DeviceSecrets,
  direction: Direction,
): Page {
  const page: OpenPage = { state, secrets, snippets: [] };
  for (const record of records) {
    const before = page.state;
    if (direction === "on" ? record.at <= before.heard : record.at >= (before.below ?? 0))
      throw new HubFault("swapped");
    const header = readHeader(record);
    if (!header || header.group !== state.group) throw new HubFault("swapped");
    const opened = openRecord(record, header, page, direction);
    if (opened === "locked") return { ...page, locked: record };
    page.state = { ...page.state, ...(direction === "on" ? { heard: record.at } : { below: record.at }) };
  }
  return page;
}

/** A page while it is read. */
interface OpenPage {
  state: SyncState;
  secrets: DeviceSecrets;
  readonly snippets: Incoming[];
}

function openRecord(
  record: HubRecord,
  header: RecordHeader,
  page: OpenPage,
  direction: Direction,
): "locked" | undefined {
  const { state } = page;
  const head = state.heads[header.device];
  const isOld = header.number <= (head?.number ?? 0);
  const isOwn = header.device === state.device;
  const writer = state.devices.find(({ id }) => id === header.device);
  if (isAfterRemoval(header, writer)) return undefined;
  // Of its own records a device misses none: the hub may have let go of them.
  if (!isOld && !isOwn && !follows(header, head)) throw new HubFault("gap");
  if (!writer && header.sort !== "devices") throw new HubFault("forged");
  if (writer && !isSignedBy(writer.signing, record)) throw new HubFault("forged");
  if (isOwn && header.number > state.own.number) throw new HubFault("copied");
  // What was heard is not heard again: an invitation that was used would be good once more.
  const isAwaited = state.replaced.includes(header.slot);
  if (isOld && direction === "on" && !isAwaited) return undefined;
  // What devices told each other before this one joined, its invitation has brought.
  if (direction === "back" && (header.sort === "devices" || header.sort === "key")) return undefined;
  if (!isOwn) {
    if (!record.body) noteReplaced(header, page, direction);
    else if (takeBody({ ...record, body: record.body }, header, page, writer !== undefined) === "locked")
      return "locked";
  }
  const replaced =
    record.body && isAwaited ? state.replaced.filter((slot) => slot !== header.slot) : undefined;
  const heard = isOld ? {} : { [header.device]: { number: header.number, record: nameOfRecord(record) } };
  page.state = {
    ...page.state,
    heads: { ...page.state.heads, ...heard },
    ...(replaced && { replaced }),
  };
  return undefined;
}

/** Whether a device has written a record after it was taken out of the group: nobody heeds it. */
function isAfterRemoval({ number }: RecordHeader, writer: Device | undefined): boolean {
  return writer !== undefined && !isMember(writer) && number > writer.removedAfter!;
}

/** That the body of a record is left out, as a later one has taken its place: that one is to come. */
function noteReplaced({ sort, slot }: RecordHeader, page: OpenPage, direction: Direction): void {
  if (sort === "devices" || sort === "key") throw new HubFault("gap");
  const { replaced } = page.state;
  if (direction === "on" && !replaced.includes(slot))
    page.state = { ...page.state, replaced: [...replaced, slot] };
}

function follows({ number, before }: RecordHeader, head: Head | undefined): boolean {
  return number === (head?.number ?? 0) + 1 && before === (head?.record ?? "");
}

function takeBody(
  record: HubRecord & { readonly body: Uint8Array },
  header: RecordHeader,
  page: OpenPage,
  isKnown: boolean,
): "locked" | undefined {
  const { state, secrets } = page;
  const place = placeOf(header);
  if (header.sort === "key") {
    page.secrets = withKeysIn(record.body, place, state.device, secrets);
    return undefined;
  }
  const key = secrets.keys.find(({ id }) => id === header.key);
  if (!key) return "locked";
  const body = open(key.secret, place, record.body);
  if (!body) throw new HubFault("swapped");
  if (header.sort === "devices") takeFact(unpackFact(body), record, header, page, isKnown);
  else page.snippets.push(snippetIn(body, header, secrets));
  return undefined;
}

/** The secrets of this device with the keys in a body that are handed on to it. */
function withKeysIn(
  body: Uint8Array,
  place: Uint8Array,
  device: string,
  secrets: DeviceSecrets,
): DeviceSecrets {
  const handed = unpackKeys(body, place, device, secrets.sealing) ?? [];
  return withKeys(
    secrets,
    handed.map((key) => ({ ...key, holders: [...key.holders, device] })),
  );
}

/** Secrets with more keys; of one that is known it is noted who has it too. */
export function withKeys(secrets: DeviceSecrets, more: readonly GroupKey[]): DeviceSecrets {
  const found = new Map(secrets.keys.map((key) => [key.id, key]));
  for (const key of more) {
    const known = found.get(key.id) ?? key;
    found.set(key.id, { ...known, holders: [...new Set([...known.holders, ...key.holders])] });
  }
  return { ...secrets, keys: [...found.values()] };
}

/**
 * The secrets of this device with all keys that devices of the group hand on to it in these records. Of one that is not known to be of
 * the group only the key is taken that opens the record that waits for it: who has come in may be told in that.
 * @param locked the record that waits
 */
export function withKeysOf(
  records: readonly HubRecord[],
  { devices, device }: SyncState,
  secrets: DeviceSecrets,
  locked: HubRecord,
): DeviceSecrets {
  let found = secrets;
  for (const record of records) {
    const header = readHeader(record);
    if (header?.sort !== "key" || !record.body) continue;
    const writer = devices.find(({ id }) => id === header.device);
    if (writer) {
      if (!isAfterRemoval(header, writer) && isSignedBy(writer.signing, record))
        found = withKeysIn(record.body, placeOf(header), device, found);
      continue;
    }
    const handed = unpackKeys(record.body, placeOf(header), device, secrets.sealing) ?? [];
    const opening = handed.filter((key) => opens(key, locked));
    // Those who have it for certain: nothing is sealed under what somebody has who is not of the group.
    const having = [device, header.device, readHeader(locked)!.device];
    found = withKeys(
      found,
      opening.map((key) => ({ ...key, holders: [...new Set([...key.holders, ...having])] })),
    );
  }
  return found;
}

/** Whether a key is the one under which a record was sealed. */
function opens({ id, secret }: GroupKey, record: HubRecord): boolean {
  const header = readHeader(record);
  if (header?.key !== id || !record.body) return false;
  return open(secret, placeOf(header), record.body) !== undefined;
}

/** The last record of a device after some more: those that it has signed, and of which each follows the one before. */
export function headAfter(
  records: readonly HubRecord[],
  { id, signing }: Device,
  head: Head | undefined,
): Head | undefined {
  let last = head;
  for (const record of records) {
    const header = readHeader(record);
    if (header?.device !== id || !isSignedBy(signing, record) || !follows(header, last)) continue;
    last = { number: header.number, record: nameOfRecord(record) };
  }
  return last;
}

function takeFact(
  fact: Fact | undefined,
  record: HubRecord,
  { device }: RecordHeader,
  page: OpenPage,
  isKnown: boolean,
): void {
  const isNew = fact?.fact === "joined" && !isKnown;
  if (isNew && !(deviceId(fact.signing) === device && isSignedBy(fact.signing, record)))
    throw new HubFault("forged");
  const after = fact && groupAfter(page.state, device, fact);
  if (!after) throw new HubFault("forged");
  page.state = after;
  if (fact.fact !== "joined") return;
  const keys = page.secrets.keys.map((key) =>
    fact.keys.includes(key.id) && !key.holders.includes(device)
      ? { ...key, holders: [...key.holders, device] }
      : key,
  );
  page.secrets = { ...page.secrets, keys };
}

function snippetIn(body: Uint8Array, { slot }: RecordHeader, { naming }: DeviceSecrets): Incoming {
  const read = v.safeParse(SNIPPET, unpackAsked(body));
  if (!read.success || keyedName(naming, "slot", read.output.id) !== slot) throw new HubFault("swapped");
  const { id, registers, contents } = read.output as Incoming;
  for (const [name, bytes] of contents) if (hashBytes(bytes) !== name) throw new HubFault("swapped");
  return { id, registers, contents };
}

/** The hashes of all contents that what a snippet holds needs: of its content and pictures, and those of its parts. */
export function neededBy({ content, pictures = [], parts = [] }: Held): Hash[] {
  return [...new Set([content, ...pictures, ...parts.flatMap(neededBy)])];
}

/** Whether what came as the contents of a snippet is what the content model can hold, and pictures that can be read. */
export function isSound(held: Held, contents: ReadonlyMap<Hash, Uint8Array>): boolean {
  return pieces(held).every(({ content, pictures = [] }) => {
    const bytes = contents.get(content);
    return (
      (!bytes || isContent(bytes)) &&
      pictures.every((picture) => !contents.has(picture) || readPictureBytes(contents.get(picture)!))
    );
  });
}

function pieces(one: Held): Held[] {
  return [one, ...(one.parts ?? []).flatMap((each: Entry) => pieces(each))];
}

function isContent(bytes: Uint8Array): boolean {
  try {
    const content = decodeContent(bytes);
    return isSnippet({ origin: {}, collectedAt: "2000-01-01T00:00:00.000Z", content });
  } catch {
    // What is no JSON is no content.
    return false;
  }
}
