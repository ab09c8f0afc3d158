import * as v from "valibot";
import { plainName } from "../content/controls.js";
import { DrawerError } from "../content/error.js";
import { syncErrors } from "../messages/en/sync.js";
import { ask, type Job } from "../stores/engine.js";
import { each } from "../stores/queries.js";
import { pack, unpackAsked } from "../stores/remote/wire.js";
import type { RowStore } from "../stores/row-store.js";
import { comparingWords, deviceId, isMember, type Device } from "./devices.js";
import { NAME_LENGTH, groupAfter, packFact, presentKey, proofOfInvitation, type Fact } from "./facts.js";
import type { Hub, InvitedHub } from "./hub.js";
import { keysOf, type Invitation, type InvitationKeys } from "./invitation.js";
import { putOut } from "./outgoing.js";
import { bytes } from "./schemas.js";
import { encodeBytes, newKey, newKeyId, open, seal, sealingPair, signingPair } from "./sealing.js";
import {
  dropState,
  HEAD,
  readState,
  writeState,
  type DeviceSecrets,
  type SecretKeeper,
  type SyncState,
} from "./state.js";

/** A device as it is shown to its user. */
export interface ShownDevice {
  readonly name: string;
  /** Four words, the same on every device: another pair of words is another device. */
  readonly words: string;
  readonly isThis: boolean;
  /** When it was at the hub last; ISO 8601, in UTC. Nothing when that is not known. */
  readonly lastThere?: string;
}

/** The devices of the group; none on a device that is alone. */
export async function devicesOf(store: RowStore): Promise<ShownDevice[]> {
  const state = await store.engine.read(readState);
  if (!state) return [];
  return state.devices.filter(isMember).map((device) => {
    const time = state.lastThere[device.id];
    return {
      name: device.name,
      words: comparingWords(state.group, device),
      isThis: device.id === state.device,
      ...(time !== undefined && { lastThere: new Date(time).toISOString() }),
    };
  });
}

/**
 * The name of a device, without spaces around it.
 * @throws DrawerError `bad-option` for one that is blank, too long, or has control characters in it
 */
export function checkDeviceName(name: string): string {
  const plain = plainName(name, NAME_LENGTH);
  if (plain === undefined) throw new DrawerError(syncErrors, "bad-option/device-name", { most: NAME_LENGTH });
  return plain;
}

/** The secrets of a device, the naming key and the keys of the group excepted. */
type OwnPairs = Pick<DeviceSecrets, "signing" | "sealing">;

function newPairs(): OwnPairs {
  return { signing: signingPair(), sealing: sealingPair() };
}

function deviceOf({ signing, sealing }: OwnPairs, name: string): Device {
  return { id: deviceId(signing.public), name, signing: signing.public, sealing: sealing.public };
}

/**
 * Begins a group with this device alone.
 * @param connect reaches the hub as this device
 */
export async function beginGroup(
  store: RowStore,
  keeper: SecretKeeper,
  { hub: address, name }: { readonly hub: string; readonly name: string },
  connect: (secrets: DeviceSecrets, group: string) => Hub,
): Promise<void> {
  const pairs = newPairs();
  const device = deviceOf(pairs, checkDeviceName(name));
  const key = { id: newKeyId(), secret: newKey(), holders: [device.id] };
  const secrets = { hub: address, ...pairs, naming: newKey(), keys: [key] };
  // A group is called as the device that began it.
  await connect(secrets, device.id).begin();
  const state: SyncState = {
    ...{ group: device.id, device: device.id, own: { number: 0, record: "" }, heard: 0, heads: {} },
    ...{ devices: [device], replaced: [], invited: [], lastThere: {} },
  };
  await keeper.write(secrets);
  await store.engine.write(() => enter(state, secrets, joined(device, secrets, null)));
}

function joined(
  { name, signing, sealing }: Device,
  { keys }: DeviceSecrets,
  invitation: (Fact & { fact: "joined" })["invitation"],
): Fact {
  return { fact: "joined", name, signing, sealing, keys: keys.map(({ id }) => id), invitation };
}

/** Enters a group: what this device says first waits to be sent, and so does all that it holds. */
function* enter(state: SyncState, secrets: DeviceSecrets, fact: Fact): Job<void> {
  yield* dropState();
  yield* writeState(yield* tell(state, secrets, fact));
  const ids: string[] = [];
  yield* each({ table: "entries", columns: ["number", "id"] }, ({ id }) => void ids.push(id));
  const at = Date.now();
  for (const id of ids) yield* ask((all) => all.put("touched", { id, why: "changed", at }));
}

/** Tells the others a fact of the group. */
function* tell(state: SyncState, secrets: DeviceSecrets, fact: Fact): Job<SyncState> {
  const key = presentKey(secrets.keys, state) ?? secrets.keys.at(-1)!;
  return yield* putOut(state, secrets, {
    ...{ sort: "devices", slot: `devices-${state.device}-${state.own.number + 1}`, key: key.id },
    body: (place) => seal(key.secret, place, packFact(fact)),
  });
}

/** What an invitation brings to who is invited. */
const WELCOME = v.strictObject({
  naming: bytes,
  keys: v.array(v.strictObject({ id: v.string(), secret: bytes, holders: v.array(v.string()) })),
  heard: v.number(),
  heads: v.record(v.string(), HEAD),
  devices: v.array(
    v.strictObject({
      ...{ id: v.string(), name: v.string(), signing: bytes, sealing: bytes },
      removedAfter: v.exactOptional(v.number()),
    }),
  ),
  invited: v.array(v.string()),
});

function invitationPlace({ id }: InvitationKeys): Uint8Array {
  return pack(["invitation", id]);
}

/** Notes that somebody is invited; the others are told by the next exchange, before which the invitation is not to be laid down. */
export function* noteInvited(secrets: DeviceSecrets, { signing }: InvitationKeys): Job<void> {
  const fact: Fact = { fact: "invited", key: signing.public };
  const now = (yield* readState())!;
  yield* writeState(yield* tell(groupAfter(now, now.device, fact)!, secrets, fact));
}

/** Lays an invitation down at the hub: what it brings is what this device knows, which is to be in step. */
export async function layInvitation(
  store: RowStore,
  secrets: DeviceSecrets,
  hub: Hub,
  keys: InvitationKeys,
): Promise<void> {
  const { heard, heads, devices, invited } = (await store.engine.read(readState))!;
  const welcome = {
    ...{ naming: secrets.naming, keys: secrets.keys },
    ...{ heard, heads, devices, invited },
  };
  await hub.layInvitation(keys, seal(keys.sealing, invitationPlace(keys), pack(welcome)), heard);
}

/**
 * Enters a group with an invitation.
 * @throws DrawerError `invitation` when it is not good
 */
export async function join(
  store: RowStore,
  keeper: SecretKeeper,
  {
    hub: address,
    name,
    invitation,
  }: { readonly hub: string; readonly name: string; readonly invitation: Invitation },
  connect: (keys: InvitationKeys) => InvitedHub,
): Promise<void> {
  const called = checkDeviceName(name);
  const keys = await keysOf(invitation);
  const hub = connect(keys);
  const laid = await hub.invitation();
  const opened = laid && open(keys.sealing, invitationPlace(keys), laid.sealed);
  const read = opened && v.safeParse(WELCOME, unpackAsked(opened));
  if (!laid || !read || !read.success) throw new DrawerError(syncErrors, "invitation/over", {});
  const welcome = read.output;
  const pairs = newPairs();
  const device = deviceOf(pairs, called);
  const secrets = {
    ...{ hub: address, ...pairs, naming: welcome.naming },
    keys: welcome.keys.map((key) => ({ ...key, holders: [...key.holders, device.id] })),
  };
  const proof = proofOfInvitation(keys.signing, laid.group, device);
  const fact = joined(device, secrets, { key: keys.signing.public, proof });
  const { heard, heads, devices, invited } = welcome;
  const state: SyncState = {
    ...{ group: laid.group, device: device.id, own: { number: 0, record: "" }, heard, heads, lastThere: {} },
    ...{ devices: [...devices, device], below: heard + 1, replaced: [] },
    invited: invited.filter((key) => key !== encodeBytes(keys.signing.public)),
  };
  if (!(await hub.enter(laid.group, { id: device.id, signing: device.signing })))
    throw new DrawerError(syncErrors, "invitation/over", {});
  await keeper.write(secrets);
  await store.engine.write(() => enter(state, secrets, fact));
}

/**
 * The id of another device of the group.
 * @param called its name, or its four words
 * @throws DrawerError `no-device`
 */
export async function findDevice(
  store: RowStore,
  called: string,
): Promise<{ id: string; shown: ShownDevice }> {
  const shown = await devicesOf(store);
  const named = shown.filter(({ name, words }) => name === called || words === called);
  if (named.length === 0)
    throw new DrawerError(syncErrors, "no-device", { name: called, names: shown.map(({ name }) => name) });
  if (named.length > 1)
    throw new DrawerError(syncErrors, "no-device/two", {
      name: called,
      words: named.map(({ words }) => words),
    });
  const [found] = named as [ShownDevice];
  if (found.isThis) throw new DrawerError(syncErrors, "no-device/own", { name: called });
  const state = (await store.engine.read(readState))!;
  const { id } = state.devices.find((device) => comparingWords(state.group, device) === found.words)!;
  return { id, shown: found };
}

/**
 * Notes that a device is out of the group.
 * @param after the number of its last record that counts
 */
export function* noteRemoved(secrets: DeviceSecrets, id: string, after: number): Job<void> {
  const now = (yield* readState())!;
  const fact: Fact = { fact: "removed", device: id, after };
  yield* writeState(groupAfter(yield* tell(now, secrets, fact), now.device, fact)!);
}

/** Forgets the group on this device. What it holds stays. */
export async function leaveGroup(store: RowStore, keeper: SecretKeeper): Promise<void> {
  await store.engine.write(dropState);
  await keeper.write(undefined);
}
