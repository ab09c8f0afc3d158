import * as v from "valibot";
import { ask, type Job } from "../stores/engine.js";
import { value } from "../stores/queries.js";
import { STORE_VALUES } from "../stores/schema.js";
import type { Device } from "./devices.js";
import { decodeBytes, encodeBytes, sealingPair, signingPair, type KeyPair } from "./sealing.js";

/** The last record of a device that was heard. */
export interface Head {
  readonly number: number;
  /** Its name. */
  readonly record: string;
}

/** What a device knows of the group, and how far it has heard the others. It stands in the store, and changes with what was heard. */
export interface SyncState {
  readonly group: string;
  /** The id of this device. */
  readonly device: string;
  /** Its own last record that was written. */
  readonly own: Head;
  /** The place in the hub's order up to which all is heard. */
  readonly heard: number;
  /** For one that has joined: what stands below this place in the hub's order is still to come. */
  readonly below?: number;
  /** What room there was, of which drawers, when it was last looked for what waits for room. */
  readonly room?: string;
  /** What was said to be replaced by a later record that is not heard yet: slots. */
  readonly replaced: readonly string[];
  /** The last record of each device. */
  readonly heads: Readonly<Record<string, Head>>;
  readonly devices: readonly Device[];
  /** The public keys of invitations that were given out, and are not used. */
  readonly invited: readonly string[];
  /** When each device was at the hub last, in milliseconds since 1970, as the hub says. */
  readonly lastThere: Readonly<Record<string, number>>;
}

/** A key under which the group seals. */
export interface GroupKey {
  readonly id: string;
  readonly secret: Uint8Array;
  /** The ids of the devices that have it. */
  readonly holders: readonly string[];
}

/** What only this device knows. It is kept apart from the drawers, where nothing else reads it. */
export interface DeviceSecrets {
  /** The address of the hub. */
  readonly hub: string;
  readonly signing: KeyPair;
  readonly sealing: KeyPair;
  /** The key that gives names. */
  readonly naming: Uint8Array;
  /** All keys of the group, the newest last. */
  readonly keys: readonly GroupKey[];
}

/** Where the secrets of a device are kept. */
export interface SecretKeeper {
  /** The secrets; nothing on a device that is alone. */
  read(): Promise<DeviceSecrets | undefined>;
  /** Keeps them, durably, in place of those before; without any, forgets those. */
  write(secrets: DeviceSecrets | undefined): Promise<void>;
}

const bytes = v.pipe(v.string(), v.transform(decodeBytes));
/** The form of a {@link Head}. */
export const HEAD = v.strictObject({ number: v.number(), record: v.string() });
const DEVICE = v.object({
  ...{ id: v.string(), name: v.string(), signing: bytes, sealing: bytes },
  removedAfter: v.exactOptional(v.number()),
});

const STATE = v.object({
  ...{ group: v.string(), device: v.string(), own: HEAD, heard: v.number() },
  below: v.exactOptional(v.number()),
  room: v.exactOptional(v.string()),
  replaced: v.array(v.string()),
  heads: v.record(v.string(), HEAD),
  devices: v.array(DEVICE),
  invited: v.array(v.string()),
  lastThere: v.record(v.string(), v.number()),
});

/** What the store knows of the group; nothing when it is not one of several devices. */
export function* readState(): Job<SyncState | undefined> {
  const text = yield* value("", STORE_VALUES.sync);
  return text === undefined ? undefined : v.parse(STATE, JSON.parse(text));
}

/** Keeps what is known of the group. */
export function* writeState(state: SyncState): Job<void> {
  const row = { drawer: "", name: STORE_VALUES.sync, value: JSON.stringify(state, inText) };
  yield* ask((all) => all.put("values", row));
}

/** Forgets the group, and what is known of the snippets of other devices. */
export function* dropState(): Job<void> {
  yield* ask((all) => all.delete("values", ["", STORE_VALUES.sync]));
  for (const table of ["touched", "synced", "outbox"] as const) yield* ask((all) => all.clear(table));
}

function inText(_: string, each: unknown): unknown {
  return each instanceof Uint8Array ? encodeBytes(each) : each;
}

const KEY = v.object({ id: v.string(), secret: bytes, holders: v.array(v.string()) });
const SECRETS = v.object({
  ...{ hub: v.string(), signing: bytes, sealing: bytes, naming: bytes },
  keys: v.array(KEY),
});

/** Secrets as text: JSON. */
export function writeSecrets({ signing, sealing, ...rest }: DeviceSecrets): string {
  return JSON.stringify({ ...rest, signing: signing.secret, sealing: sealing.secret }, inText);
}

/** The secrets that {@link writeSecrets} wrote; nothing when the text is something else. */
export function readSecrets(text: string): DeviceSecrets | undefined {
  try {
    const { signing, sealing, ...rest } = v.parse(SECRETS, JSON.parse(text));
    return { ...rest, signing: signingPair(signing), sealing: sealingPair(sealing) };
  } catch {
    // What cannot be read is told by who asked.
    return undefined;
  }
}
