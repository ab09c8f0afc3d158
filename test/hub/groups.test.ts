import { Groups, NotTaken, type ReadRecord } from "../../dist/hub/groups.js";
import { openPostgresHub } from "../../dist/hub/postgres.js";
import type { HubDatabase } from "../../dist/hub/sql.js";
import { readHeader, writeRecord, type RecordSort } from "../../dist/sync/records.js";
import { newKey, signingPair } from "../../dist/sync/sealing.js";
import { postgresPrograms, startPostgres } from "../../scripts/postgres.mjs";
import { newHubDatabase } from "../support/group";

const { secret, public: signing } = signingPair(newKey());
let postgres: ReturnType<typeof startPostgres> | undefined;
afterAll(() => postgres?.stop());

/** The databases of a hub, each with how to open the same one a second time. */
const DATABASES: Record<string, () => Promise<[HubDatabase, HubDatabase]>> = {
  sqlite: async () => {
    const database = await newHubDatabase();
    return [database, database];
  },
};
if (postgresPrograms())
  DATABASES["postgresql"] = async () => {
    postgres ??= startPostgres();
    Object.assign(process.env, postgres.env);
    const failed = (error: unknown) => {
      throw error;
    };
    return [await openPostgresHub(failed), await openPostgresHub(failed)];
  };
else if (process.env["CI"]) throw new Error("PostgreSQL is not installed.");
else console.log("Skipped: the hub over PostgreSQL, which is not installed.");

let count = 0;

describe.each(Object.entries(DATABASES))("the groups of a hub, over %s", (_, open) => {
  let groups: Groups;
  let others: Groups;
  let group: string;
  let time = 1_000_000_000_000;
  const close: (() => Promise<void>)[] = [];
  beforeAll(async () => {
    const [one, other] = await open();
    groups = new Groups(one, { group: 100_000 }, () => time);
    others = new Groups(other, { group: 100_000 }, () => time);
    close.push(() => one.close());
    if (other !== one) close.push(() => other.close());
  });
  beforeEach(async () => {
    group = `group-${++count}`;
    await groups.begin(group, signing);
  });
  afterAll(async () => {
    for (const end of close) await end();
  });

  const record = (device: string, number: number, more: Partial<Said> = {}): ReadRecord => {
    const { sort = "snippet", slot = `slot-${number}`, seen = 0, blobs = [], size = 600 } = more;
    const header = { group, device, number, before: "", sort, slot, seen, key: "k", blobs };
    const written = writeRecord(header, new Uint8Array(size).fill(number), secret);
    return { ...written, body: written.body!, read: readHeader(written)! };
  };
  interface Said {
    readonly sort: RecordSort;
    readonly slot: string;
    readonly seen: number;
    readonly blobs: readonly string[];
    readonly size: number;
  }
  const admit = async (device: string) => {
    await groups.layInvitation(group, group, {
      id: `${group}-${device}`,
      key: signing,
      sealed: signing,
      heard: 99,
    });
    expect(await groups.enter(`${group}-${device}`, device, signing)).toBe(true);
  };
  const given = async (after = 0) =>
    (await others.records(group, { after, limit: 100 })).records.map(
      (one) => `${one.at}${one.body ? "" : "-"}`,
    );

  test("gives records in one order, after a place and back from one, as they were brought", async () => {
    const records = [record(group, 1), record(group, 2), record(group, 3)];
    await groups.add(group, group, records);
    const { records: found, last } = await others.records(group, { after: 1, limit: 1 });
    expect([found.map(({ at }) => at), last]).toEqual([[2], 3]);
    expect([found[0]!.header, found[0]!.signature, found[0]!.body]).toEqual([
      records[1]!.header,
      records[1]!.signature,
      records[1]!.body,
    ]);
    const back = await others.records(group, { before: 3, limit: 9 });
    expect(back.records.map(({ at }) => at)).toEqual([2, 1]);
  });

  test("takes a record once, refuses another in its place, and one before which something is missing", async () => {
    await groups.add(group, group, [record(group, 1)]);
    await others.add(group, group, [record(group, 1), record(group, 2)]);
    expect(await given()).toEqual(["1", "2"]);
    const other = record(group, 2, { slot: "another" });
    await expect(groups.add(group, group, [other])).rejects.toThrow(NotTaken);
    await expect(groups.add(group, group, [record(group, 4)])).rejects.toThrow("number 3");
    expect(await given()).toEqual(["1", "2"]);
  });

  test("lets go of what is replaced: the body at once, the rest when every device has heard it", async () => {
    await admit("laptop");
    await groups.add(group, group, [record(group, 1, { slot: "a" }), record(group, 2, { slot: "b" })]);
    // The laptop has not seen the second, which stands beside its own.
    await groups.add(group, "laptop", [record("laptop", 1, { slot: "b", seen: 1 })]);
    await groups.add(group, "laptop", [record("laptop", 2, { slot: "a", seen: 2 })]);
    expect(await given()).toEqual(["1-", "2", "3", "4"]);
    await groups.add(group, group, [record(group, 3, { slot: "b", seen: 4 })]);
    expect(await given()).toEqual(["1-", "2-", "3-", "4", "5"]);
    await groups.heard(group, "laptop", { [group]: 3 });
    expect(await given()).toEqual(["1-", "2-", "3-", "4", "5"]);
    await others.heard(group, group, { laptop: 2 });
    expect(await given()).toEqual(["4", "5"]);
  });

  test("keeps what a device has not heard, whatever else it has, and what an invitation begins with", async () => {
    await admit("laptop");
    await admit("tablet");
    const replaced = () => [record(group, 1, { slot: "a" }), record(group, 2, { slot: "a" })];
    await groups.add(group, group, replaced());
    await groups.add(group, "tablet", [record("tablet", 1)]);
    for (const device of [group, "tablet"]) await groups.heard(group, device, { [group]: 2, tablet: 1 });
    // It has heard what stands after the others.
    await groups.heard(group, "laptop", { tablet: 1 });
    expect(await given()).toEqual(["1-", "2", "3"]);
    await groups.layInvitation(group, "laptop", {
      id: `${group}-open`,
      key: signing,
      sealed: signing,
      heard: 99,
    });
    await groups.heard(group, "laptop", { [group]: 2, tablet: 1 });
    expect(await given()).toEqual(["1-", "2", "3"]);
    time += 11 * 60_000;
    await groups.heard(group, "laptop", { [group]: 2, tablet: 1 });
    expect(await given()).toEqual(["2", "3"]);
  });

  test("forgets what is there no more when every device has heard it, and contents that nothing needs", async () => {
    await admit("laptop");
    await groups.addBlob(group, "blob", 0, 2, new Uint8Array(700));
    expect(await others.lacking(group, ["blob", "none"])).toEqual({ blob: 1, none: 0 });
    await groups.addBlob(group, "blob", 1, 2, new Uint8Array(300));
    await groups.addBlob(group, "blob", 0, 2, new Uint8Array(1));
    await expect(groups.addBlob(group, "blob", 3, 2, new Uint8Array(1))).rejects.toThrow("next part is 2");
    expect(await others.lacking(group, ["blob", "none"])).toEqual({ none: 0 });
    expect((await others.blob(group, "blob", 1))!.bytes).toHaveLength(300);
    await groups.add(group, group, [record(group, 1, { slot: "a", blobs: ["blob"] })]);
    const { bytes } = await groups.counts();
    await groups.add(group, group, [record(group, 2, { sort: "forgotten", slot: "a", seen: 1 })]);
    time += 11 * 60_000;
    await groups.tidy();
    expect(await others.blob(group, "blob", 0)).toBeUndefined();
    expect(await given()).toEqual(["1-", "2"]);
    await groups.heard(group, group, {});
    await groups.heard(group, "laptop", { [group]: 2 });
    expect(await given()).toEqual([]);
    expect((await groups.counts()).bytes).toBeLessThanOrEqual(bytes - 1000 - 600);
  });

  test("lets in by an invitation once, for ten minutes; gives a device that was removed no more", async () => {
    await groups.layInvitation(group, group, { id: `${group}-x`, key: signing, sealed: signing, heard: 99 });
    expect((await others.invitation(`${group}-x`))?.group).toBe(group);
    const entered = [others.enter(`${group}-x`, "one", signing), groups.enter(`${group}-x`, "two", signing)];
    expect((await Promise.all(entered)).filter(Boolean)).toHaveLength(1);
    await groups.layInvitation(group, group, { id: `${group}-y`, key: signing, sealed: signing, heard: 99 });
    time += 11 * 60_000;
    expect([
      await others.invitation(`${group}-y`),
      await groups.enter(`${group}-y`, "three", signing),
    ]).toEqual([undefined, false]);
    await admit("laptop");
    await groups.remove(group, "laptop");
    expect((await others.device(group, "laptop"))?.isRemoved).toBe(true);
    expect(Object.keys(await groups.lastThere(group))).not.toContain("laptop");
  });

  test("refuses what a group has no room for, whole, and puts what several bring at once into one order", async () => {
    const large = [record(group, 1), record(group, 2, { size: 200_000 })];
    await expect(groups.add(group, group, large)).rejects.toThrow("100000 bytes");
    expect(await given()).toEqual([]);
    for (const device of ["a", "b", "c"]) await admit(device);
    const heard: string[] = [];
    const stop = others.database.listen((news) => heard.push(news));
    await Promise.all(
      ["a", "b", "c"].flatMap((device, at) =>
        [1, 2].map(async (number) => {
          // Each device goes on where it was; two programs of it may bring the same.
          const by = at % 2 === 0 ? groups : others;
          await by.add(group, device, [record(device, 1, { size: 50 })]);
          if (number === 2) await by.add(group, device, [record(device, 2, { size: 50 })]);
        }),
      ),
    );
    expect(await given()).toEqual(["1", "2", "3", "4", "5", "6"]);
    while (!heard.includes(group)) await new Promise((settle) => setTimeout(settle, 10));
    stop();
  });
});
