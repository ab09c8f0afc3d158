import * as nodeCrypto from "node:crypto";
import fc from "fast-check";
import { Groups } from "../../dist/hub/groups.js";
import type { Hub, RecordAnswer, RecordQuery } from "../../dist/sync/hub.js";
import type { HubRecord } from "../../dist/sync/incoming.js";
import { nodePrimitives, portable } from "../../dist/sync/primitives.js";
import { isSignedBy, readHeader, writeRecord } from "../../dist/sync/records.js";
import { newKey, signingPair } from "../../dist/sync/sealing.js";
import { runs } from "../support/counts";
import { newHubDatabase, TestDevice } from "../support/group";
import { piece, textsOf } from "../support/pieces";
import { Drawer, DrawerError } from "drawer";

/** What a hub may do with what it gives: by name, from what it should give and what it has given before. */
const TRICKS = {
  withholdOne: (records, pick) => records.filter((_, at) => at !== pick % records.length),
  withholdLast: (records) => records.slice(0, -1),
  withholdAll: () => [],
  repeat: (records, pick) => renumbered([...records.slice(0, pick + 1), ...records]),
  swap: (records, pick) => {
    const [one, other] = [pick % records.length, (pick + 1) % records.length];
    const all = [...records];
    [all[one], all[other]] = [all[other]!, all[one]!];
    return renumbered(all);
  },
  swapBodies: (records, pick) => {
    const other = records[(pick + 1) % records.length]!;
    return changed(records, pick, (record) => ({ ...record, body: other.body }));
  },
  dropBody: (records, pick) => changed(records, pick, (record) => ({ ...record, body: null })),
  truncate: (records, pick) =>
    changed(records, pick, (record) => ({ ...record, body: record.body?.slice(0, -5) ?? null })),
  flipBody: (records, pick) =>
    changed(records, pick, (record) => ({ ...record, body: record.body && flipped(record.body, pick) })),
  flipHeader: (records, pick) =>
    changed(records, pick, (record) => ({ ...record, header: flipped(record.header, pick) })),
  flipSignature: (records, pick) =>
    changed(records, pick, (record) => ({ ...record, signature: flipped(record.signature, pick) })),
  // A record of the hub's own making, in the name of a device.
  forge: (records, pick) =>
    changed(records, pick, (record) => {
      const { body: _, ...header } = readHeader(record)!;
      const forged = writeRecord(header, record.body ?? new Uint8Array(600), signingPair(newKey()).secret);
      return { ...record, ...forged };
    }),
  // What it has given long ago, as if it came now.
  replay: (records, pick, before) =>
    before.length === 0
      ? records
      : [...records, { ...before[pick % before.length]!, at: (records.at(-1)?.at ?? before.at(-1)!.at) + 1 }],
  another: (records, pick, _, others) =>
    others.length === 0
      ? records
      : changed(records, pick, (record) => ({ ...others[pick % others.length]!, at: record.at })),
} satisfies Record<
  string,
  (
    records: readonly HubRecord[],
    pick: number,
    before: readonly HubRecord[],
    others: readonly HubRecord[],
  ) => readonly HubRecord[]
>;
type Trick = keyof typeof TRICKS;

function renumbered(records: readonly HubRecord[]): HubRecord[] {
  const [first] = records;
  return records.map((record, at) => ({ ...record, at: first!.at + at }));
}

function changed(
  records: readonly HubRecord[],
  pick: number,
  change: (record: HubRecord) => HubRecord,
): HubRecord[] {
  return records.map((record, at) => (at === pick % records.length ? change(record) : record));
}

function flipped(bytes: Uint8Array, pick: number): Uint8Array {
  const copy = bytes.slice();
  copy[pick % copy.length]! ^= 1 << (pick % 8);
  return copy;
}

/** A hub that plays a trick in each of its answers, until it is told to be honest. */
class HostileHub {
  trick: Trick | undefined;
  pick = 0;
  given: HubRecord[] = [];
  others: readonly HubRecord[] = [];

  between = (hub: Hub): Hub => {
    const records = async (query: RecordQuery): Promise<RecordAnswer> => {
      const answer = await hub.records(query);
      const { records: honest } = answer;
      this.given.push(...honest);
      if (!this.trick || honest.length === 0) return answer;
      return { ...answer, records: TRICKS[this.trick](honest, this.pick, this.given, this.others) };
    };
    const blob: Hub["blob"] = async (name, part) => {
      const found = await hub.blob(name, part);
      return found && this.trick ? { ...found, bytes: flipped(found.bytes, this.pick) } : found;
    };
    return new Proxy(hub, {
      get: (target, name) =>
        name === "records" ? records : name === "blob" ? blob : bound(target, name as keyof Hub),
    });
  };
}

function bound(hub: Hub, name: keyof Hub): unknown {
  const value: unknown = hub[name];
  return typeof value === "function" ? (value as () => unknown).bind(hub) : value;
}

const large = `Reed bunting, first year. `.repeat(400);

test("a hub that withholds, repeats, swaps, truncates and forges is found out, or does no harm", async () => {
  const caught = new Map<string, number>();
  const database = await newHubDatabase();
  const groups = new Groups(database, { group: 1e9 });
  const hostile = new HostileHub();
  const desk = new TestDevice("desk", groups);
  const laptop = new TestDevice("laptop", groups, undefined, hostile.between);
  await desk.begin();
  await laptop.join(await desk.client.invite());
  const stranger = new TestDevice("stranger", groups);
  await stranger.begin();
  await new Drawer(stranger.store).collect([piece("not yours")]);
  await stranger.client.exchange();
  const foreign = await groups.records((await stranger.store.engine.read(groupOf))!, { after: 0, limit: 9 });
  hostile.others = foreign.records;
  let count = 0;
  const tries = fc.record({
    trick: fc.constantFrom(...(Object.keys(TRICKS) as Trick[])),
    pick: fc.nat(1000),
  });
  await fc.assert(
    fc.asyncProperty(tries, async ({ trick, pick }) => {
      const drawer = new Drawer(desk.store);
      // What was collected before is of no more use here.
      if (count % 20 === 0) await drawer.empty();
      await drawer.collect([piece(`tern ${++count}`), piece(`${large} ${count}`)]);
      if (count % 3 === 0) await drawer.label("1", `label ${count}`);
      if (count % 4 === 0) await drawer.discard("1");
      await desk.client.exchange();
      if (count % 2 === 0) await drawer.label("last", `late ${count}`);
      await desk.client.exchange();
      Object.assign(hostile, { trick, pick });
      const known = new Set(await textsOf(drawer));
      try {
        await laptop.client.exchange();
      } catch (error) {
        expect(error).toBeInstanceOf(DrawerError);
        expect((error as DrawerError).code).toBe("hub-wrong");
        caught.set(trick, (caught.get(trick) ?? 0) + 1);
      }
      // Nothing came that the desk has not, now or before.
      for (const text of await textsOf(new Drawer(laptop.store)))
        expect(known.has(text) || /^tern \d+$|^Reed bunting/.test(text)).toBe(true);
      hostile.trick = undefined;
      // What was left out at the end is missed when the next comes: at the latest the one after a place that was made up.
      for (const label of [`then ${count}`, `at last ${count}`]) {
        await drawer.label("last", label);
        await desk.client.exchange();
        await laptop.client.exchange();
      }
      const entries = async (device: TestDevice) =>
        (await device.store.entries({ drawer: "main" })).map(({ entry }) => entry);
      expect(await entries(laptop)).toEqual(await entries(desk));
      await new Drawer(laptop.store).read(await new Drawer(laptop.store).list());
    }),
    runs(40, 2000),
  );
  // Those that change what was written are never taken for honest.
  for (const trick of ["flipHeader", "flipSignature", "flipBody", "truncate", "forge", "another"])
    expect([trick, caught.has(trick)]).toEqual([trick, true]);
  await database.close();
});

function* groupOf(): Generator<never, string | undefined, unknown> {
  const row = (yield ((rows: { get(...args: unknown[]): unknown }) =>
    rows.get("values", [["", "sync"]])) as never) as { value: string }[];
  return (JSON.parse(row[0]!.value) as { group: string }).group;
}

test("Node's own primitives and those in JavaScript sign, verify and derive alike", async () => {
  const own = nodePrimitives(nodeCrypto);
  const cost = { N: 1024, r: 8, p: 1 };
  await fc.assert(
    fc.asyncProperty(
      fc.uint8Array({ minLength: 32, maxLength: 32 }),
      fc.uint8Array(),
      async (seed, bytes) => {
        const { public: key, secret } = signingPair(seed);
        const signature = portable.sign(secret, bytes);
        expect(own.sign(secret, bytes)).toEqual(signature);
        for (const primitives of [own, portable]) {
          expect(primitives.verify(key, bytes, signature)).toBe(true);
          expect(primitives.verify(key, flipped(new Uint8Array([0, ...bytes]), 0), signature)).toBe(false);
        }
        expect(isSignedBy(key, { header: bytes, signature, body: null })).toBe(false);
      },
    ),
    runs(10, 200),
  );
  expect(await own.scrypt("words", "salt", cost)).toEqual(await portable.scrypt("words", "salt", cost));
});
