import * as v from "valibot";
import { hashBytes, type Hash } from "../content/encode.js";
import { contents } from "../stores/queries.js";
import { pack, unpackAsked } from "../stores/remote/wire.js";
import type { RowStore } from "../stores/row-store.js";
import type { Hub } from "./hub.js";
import { keyedName, open, seal } from "./sealing.js";
import type { DeviceSecrets, GroupKey } from "./state.js";

/** Contents go to the hub and come from there in parts of this size at most, in bytes, so that one that was cut off goes on. */
const PART = 1024 * 1024;

const SEALED = v.strictTuple([v.string(), v.instance(Uint8Array)]);

/** What a part of a content belongs to, without which it does not open. */
function placeOf(blob: string, part: number, of: number): Uint8Array {
  return pack(["blob", blob, part, of]);
}

/** Brings contents to the hub, as far as it has them not, and as they are still here. */
export async function sendContents(
  store: RowStore,
  hub: Hub,
  { naming }: DeviceSecrets,
  key: GroupKey,
  hashes: readonly Hash[],
): Promise<void> {
  if (hashes.length === 0) return;
  const names = new Map(hashes.map((hash) => [keyedName(naming, "blob", hash), hash]));
  for (const [blob, from] of await hub.lacking([...names.keys()])) {
    const hash = names.get(blob)!;
    const bytes = (await store.engine.read(() => contents([hash]))).get(hash);
    if (!bytes) continue;
    const of = Math.max(1, Math.ceil(bytes.length / PART));
    for (let part = from; part < of; part++) {
      const piece = bytes.subarray(part * PART, (part + 1) * PART);
      const sealed = seal(key.secret, placeOf(blob, part, of), piece);
      await hub.addBlob(blob, part, of, pack([key.id, sealed]));
    }
  }
}

/** A content from the hub; nothing when it is not there, or not what it should be. */
export async function fetchContent(
  hub: Hub,
  { naming, keys }: DeviceSecrets,
  hash: Hash,
): Promise<Uint8Array | undefined> {
  const blob = keyedName(naming, "blob", hash);
  const parts: Uint8Array[] = [];
  for (let part = 0, of = 1; part < of; part++) {
    const found = await hub.blob(blob, part);
    if (!found || (part > 0 && found.of !== of)) return undefined;
    of = found.of;
    const read = v.safeParse(SEALED, unpackAsked(found.bytes));
    const key = read.success ? keys.find(({ id }) => id === read.output[0]) : undefined;
    const opened = read.success && key && open(key.secret, placeOf(blob, part, of), read.output[1]);
    if (!opened) return undefined;
    parts.push(opened);
  }
  const bytes = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  parts.reduce((at, part) => (bytes.set(part, at), at + part.length), 0);
  return hashBytes(bytes) === hash ? bytes : undefined;
}
