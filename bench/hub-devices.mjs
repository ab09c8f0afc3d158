import { deviceId } from "../dist/sync/devices.js";
import { readHeader, writeRecord } from "../dist/sync/records.js";
import { signingPair } from "../dist/sync/sealing.js";

/**
 * Devices of groups, each with what it brings next.
 * @param batch how many records it brings at once
 * @param snippets of how many snippets they tell
 * @param group that of another device; one of its own without it
 */
export function newDevices(count, { batch, snippets = 200, group }) {
  return Array.from({ length: count }, () => {
    const signing = signingPair();
    const id = deviceId(signing.public);
    const device = { id, group: group ?? id, signing, number: 0 };
    device.next = () =>
      Array.from({ length: batch }, () => {
        const number = ++device.number;
        const header = { group: device.group, device: id, number, before: "", sort: "snippet", seen: 0 };
        const slot = `slot-${id}-${number % snippets}`;
        return writeRecord({ ...header, slot, key: "k", blobs: [] }, new Uint8Array(600), signing.secret);
      });
    return device;
  });
}

/** Records as a hub takes them once it has read them. */
export function readRecords(records) {
  return records.map((record) => ({ ...record, read: readHeader(record) }));
}
