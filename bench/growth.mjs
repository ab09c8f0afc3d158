import { mkdtempSync, readdirSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Groups } from "../dist/hub/groups.js";
import { openSqliteHub } from "../dist/hub/sqlite.js";
import { newDevices, readRecords } from "./hub-devices.mjs";

/** How many records come in each of two rounds; `GROWTH_RECORDS=1000000` for a million. */
const RECORDS = Number(process.env.GROWTH_RECORDS ?? 100_000);
const GROUPS = 25;
const BATCH = 500;
/** How many snippets a device has: a record of one that is there already takes the place of the one before. */
const SNIPPETS = 2_000;

/** What a hub takes on its disk and in memory after many records, and once every device has heard them. */
export async function run() {
  console.log(`\n${(2 * RECORDS).toLocaleString("en")} records in ${GROUPS} groups of two devices, SQLite`);
  const folder = mkdtempSync(join(tmpdir(), "drawer-bench-growth-"));
  try {
    const database = await openSqliteHub(join(folder, "hub.db"));
    const groups = new Groups(database, { group: 1e12 });
    const devices = [];
    for (let n = 0; n < GROUPS; n++) {
      const [first] = newDevices(1, { batch: BATCH, snippets: SNIPPETS });
      const [other] = newDevices(1, { batch: BATCH, snippets: SNIPPETS, group: first.id });
      await groups.begin(first.id, first.signing.public);
      const { id, signing } = other;
      const invitation = { id, key: signing.public, sealed: signing.public, heard: 0 };
      await groups.layInvitation(first.id, first.id, invitation);
      await groups.enter(id, id, signing.public);
      devices.push(first, other);
    }
    const bytes = () => readdirSync(folder).reduce((sum, name) => sum + statSync(join(folder, name)).size, 0);
    const mega = (count) => `${(count / 1e6).toFixed(0).padStart(5)} MB`;
    const tell = async (what, since, count) => {
      const { records } = await groups.counts();
      const seconds = (performance.now() - since) / 1000;
      const rate = count ? `, ${Math.round(count / seconds).toLocaleString("en")} records/s` : "";
      console.log(
        `${what.padEnd(34)} ${records.toLocaleString("en").padStart(9)} records, ${mega(bytes())} on disk, ${mega(process.memoryUsage().rss)} in memory, ${seconds.toFixed(1)} s${rate}`,
      );
    };
    for (const round of ["first", "second"]) {
      let since = performance.now();
      for (let brought = 0, at = 0; brought < RECORDS; brought += BATCH, at++) {
        const device = devices[at % devices.length];
        await groups.add(device.group, device.id, readRecords(device.next()));
      }
      await tell(`after the ${round} half`, since, RECORDS);
      since = performance.now();
      for (const { group, id } of devices) {
        const numbers = devices.filter((one) => one.group === group).map((one) => [one.id, one.number]);
        await groups.heard(group, id, Object.fromEntries(numbers));
      }
      await tell("once all devices have heard it", since);
    }
    await database.close();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
