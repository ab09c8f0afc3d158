import * as v from "valibot";
import { pack, unpackAsked } from "../stores/remote/wire.js";
import { deviceId, isMember, type Device } from "./devices.js";
import { bytes, key, name as id } from "./schemas.js";
import { encodeBytes, isSigned, openOwn, sealTo, sign, type KeyPair } from "./sealing.js";
import type { GroupKey, SyncState } from "./state.js";

/** What devices tell each other of the group itself, in the bodies of records. */

/** How long the name of a device is at most. */
export const NAME_LENGTH = 60;

const FACT = v.variant("fact", [
  // A device is there: the one that began the group, or one that an invitation let in.
  v.strictObject({
    ...{ fact: v.literal("joined"), name: v.pipe(v.string(), v.maxLength(NAME_LENGTH)) },
    ...{ signing: bytes, sealing: bytes, keys: v.array(id) },
    invitation: v.nullable(v.strictObject({ key: bytes, proof: bytes })),
  }),
  v.strictObject({ fact: v.literal("invited"), key: bytes }),
  // What it wrote after this number counts for nothing.
  v.strictObject({ fact: v.literal("removed"), device: id, after: v.number() }),
]);

/** A fact of the group. */
export type Fact = v.InferOutput<typeof FACT>;

/** A fact as the body of a record. */
export function packFact(fact: Fact): Uint8Array {
  return pack(fact);
}

/** A fact from the body of a record; nothing when it is none. */
export function unpackFact(body: Uint8Array): Fact | undefined {
  const read = v.safeParse(FACT, unpackAsked(body));
  return read.success ? read.output : undefined;
}

const PROOF = "joins";

/** Proves with an invitation that one was let in. */
export function proofOfInvitation(
  invitation: KeyPair,
  group: string,
  device: Pick<Device, "signing" | "sealing">,
): Uint8Array {
  return sign(invitation.secret, PROOF, proven(group, device));
}

/** What is proven: that this device enters this group. */
function proven(group: string, { signing, sealing }: Pick<Device, "signing" | "sealing">): Uint8Array {
  return pack([group, signing, sealing]);
}

/**
 * The group after a fact that one of its devices told, also one that was taken out of the group after that.
 * @returns nothing when the fact is not for this device to tell
 */
export function groupAfter(state: SyncState, teller: string, fact: Fact): SyncState | undefined {
  if (fact.fact === "joined") return afterJoining(state, teller, fact);
  if (!state.devices.some((device) => device.id === teller)) return undefined;
  if (fact.fact === "invited") return { ...state, invited: [...state.invited, encodeBytes(fact.key)] };
  return {
    ...state,
    devices: state.devices.map((device) =>
      device.id === fact.device && isMember(device) ? { ...device, removedAfter: fact.after } : device,
    ),
  };
}

function afterJoining(
  state: SyncState,
  teller: string,
  { name, signing, sealing, invitation }: Fact & { fact: "joined" },
): SyncState | undefined {
  if (deviceId(signing) !== teller) return undefined;
  if (state.devices.some((device) => device.id === teller)) return state;
  const device = { id: teller, name, signing, sealing };
  if (!invitation) return undefined;
  const key = encodeBytes(invitation.key);
  const isProven = isSigned(invitation.key, PROOF, proven(state.group, device), invitation.proof);
  if (!state.invited.includes(key) || !isProven) return undefined;
  return {
    ...state,
    devices: [...state.devices, device],
    invited: state.invited.filter((each) => each !== key),
  };
}

/** Keys on their way to the devices that are to have them. */
const KEYS = v.strictObject({
  // By the id of the device: the keys, sealed to it.
  for: v.record(id, bytes),
});
const HANDED = v.array(
  v.strictObject({
    ...{ id, secret: key, holders: v.array(id) },
  }),
);

/** Keys of the group as the body of a record: for each device that is to have them, sealed to it. */
export function packKeys(
  place: Uint8Array,
  keys: readonly GroupKey[],
  devices: readonly Device[],
): Uint8Array {
  const handed = pack(keys);
  return pack({
    for: Object.fromEntries(devices.map((device) => [device.id, sealTo(device.sealing, place, handed)])),
  });
}

/** The keys in the body of a record that are for this device; nothing when there are none. */
export function unpackKeys(
  body: Uint8Array,
  place: Uint8Array,
  device: string,
  pair: KeyPair,
): GroupKey[] | undefined {
  const read = v.safeParse(KEYS, unpackAsked(body));
  const own = read.success ? read.output.for[device] : undefined;
  const opened = own && openOwn(pair, place, own);
  const handed = opened && v.safeParse(HANDED, unpackAsked(opened));
  return handed?.success ? handed.output : undefined;
}

/**
 * The key under which is sealed now: the newest that all devices of the group have, and nobody else.
 * @returns nothing when there is none, and a new one is to be made
 */
export function presentKey(keys: readonly GroupKey[], { devices }: SyncState): GroupKey | undefined {
  const members = devices.filter(isMember).map((device) => device.id);
  return keys.findLast(
    ({ holders }) => holders.length === members.length && members.every((one) => holders.includes(one)),
  );
}
