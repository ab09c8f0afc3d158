import { hashesOf, type Entry } from "../drawer/model/entry.js";
import { ask, type Job } from "../stores/engine.js";
import { contents, entryOf } from "../stores/queries.js";
import { pack } from "../stores/remote/wire.js";
import type { SyncedRow, TouchedRow } from "../stores/schema.js";
import {
  nameOfRecord,
  packRecord,
  placeOf,
  writeRecord,
  type RecordHeader,
  type SealedRecord,
} from "./records.js";
import { isAlive, registersAfter, told, type Registers } from "./registers.js";
import { keyedName, seal } from "./sealing.js";
import { readState, writeState, type DeviceSecrets, type GroupKey, type SyncState } from "./state.js";

/** Contents up to this size go within their record, in bytes; larger ones by themselves, once. */
const WITHIN = 4096;
/** How many bytes of contents go within one record at most. */
const WITHIN_ALL = 16 * WITHIN;

/** How many snippets are told of in one transaction. */
const AT_ONCE = 200;

/** What is known of a snippet on all devices. */
export function* knownOf(id: string): Job<Registers | undefined> {
  const [row] = yield* ask((all) => all.get("synced", [[id]]));
  return row && registersIn(row);
}

/** The registers of a row. */
export function registersIn({ registers }: Pick<SyncedRow, "registers">): Registers {
  return JSON.parse(registers) as Registers;
}

/** The entry with an id, in whatever drawer. */
export function* entryById(id: string): Job<Entry | null> {
  const [row] = yield* ask((all) => all.get("entries", [[id]], "byId", ["entry"]));
  return row ? entryOf(row) : null;
}

/**
 * Works out what was done to a snippet here, and notes it in what is known of it.
 * @returns what the others are to be told; nothing when they know it
 */
export function* noteDone({ id, why, at }: TouchedRow, device: string): Job<Registers | undefined> {
  const [row] = yield* ask((all) => all.get("synced", [[id]]));
  const known = row && registersIn(row);
  const entry = yield* entryById(id);
  yield* ask((all) => all.delete("touched", [id]));
  // Here alone it left before, and nobody took it from the others.
  if (why === "forgotten" && row?.absent) return undefined;
  const isHeldMissing = entry !== null && row?.absent === "missing";
  const after = registersAfter(known, entry, { why, at, device, isHeldMissing });
  const registers = after ?? known;
  if (!registers) return undefined;
  const isAbsent = isHeldMissing || (!entry && isAlive(registers));
  const absent = isAbsent ? (row?.absent ?? "evicted") : null;
  yield* ask((all) => all.put("synced", { id, absent, registers: JSON.stringify(registers) }));
  return after ?? (why === "again" ? known : undefined);
}

/** Writes what was done here since the last time as records, which wait to be sent. Returns how many there were to look at. */
export function* writeOutgoing(secrets: DeviceSecrets, key: GroupKey): Job<number> {
  let state = (yield* readState())!;
  const rows = yield* ask((all) => all.range({ table: "touched", limit: AT_ONCE }));
  for (const row of rows) {
    const registers = yield* noteDone(row, state.device);
    if (registers) state = yield* writeSnippet(row.id, told(registers), state, secrets, key);
  }
  yield* writeState(state);
  return rows.length;
}

function* writeSnippet(
  id: string,
  registers: Registers,
  state: SyncState,
  secrets: DeviceSecrets,
  key: GroupKey,
): Job<SyncState> {
  const held = registers.held?.value;
  const hashes = held ? [...new Set(hashesOf(held as Entry))] : [];
  const stored = yield* contents(hashes);
  let sum = 0;
  const fits = ({ length }: Uint8Array) => length <= WITHIN && (sum += length) <= WITHIN_ALL;
  const within = new Map([...stored].filter(([, bytes]) => fits(bytes)));
  const apart = hashes.filter((hash) => !within.has(hash));
  const sort = held ? "snippet" : "forgotten";
  return yield* putOut(state, secrets, {
    ...{ sort, slot: keyedName(secrets.naming, "slot", id), key: key.id, contents: apart },
    body: (place) => seal(key.secret, place, pack({ id, registers, contents: within })),
  });
}

/** What a record is to say. */
interface Saying extends Pick<RecordHeader, "sort" | "slot" | "key"> {
  /** The hashes of the contents that go with it, by themselves. */
  readonly contents?: readonly string[];
  /** Makes the body, for its place. */
  readonly body: (place: Uint8Array) => Uint8Array;
}

/** Writes a record, the next of this device, and puts it where it waits to be sent. Returns the state after it. */
export function* putOut(
  state: SyncState,
  secrets: DeviceSecrets,
  { contents: hashes = [], body, ...said }: Saying,
): Job<SyncState> {
  const record = nextRecord(state, secrets, { ...said, contents: hashes, body });
  const number = state.own.number + 1;
  const row = { number, record: packRecord(record), contents: JSON.stringify(hashes) };
  yield* ask((all) => all.put("outbox", row));
  return { ...state, own: { number, record: nameOfRecord(record) } };
}

function nextRecord(
  { group, device, own, heard }: SyncState,
  { signing, naming }: DeviceSecrets,
  { contents: hashes = [], body, ...said }: Saying,
): SealedRecord {
  const header = {
    ...said,
    ...{ group, device, number: own.number + 1, before: own.record, seen: heard },
    blobs: hashes.map((hash) => keyedName(naming, "blob", hash)),
  };
  return writeRecord(header, body(placeOf(header)), signing.secret);
}
