import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Groups } from "../dist/hub/groups.js";
import { openPostgresHub } from "../dist/hub/postgres.js";
import { openSqliteHub } from "../dist/hub/sqlite.js";
import { HttpHub } from "../dist/sync/http-hub.js";
import { newDevices, readRecords } from "./hub-devices.mjs";
import { compare, head, median } from "./measure.mjs";
import { postgresPrograms, startPostgres } from "../scripts/postgres.mjs";

/** How many groups of three devices there are, and how many records each device brings at once. */
const GROUPS = Number(process.env.HUB_GROUPS ?? 1000);
const BATCH = 20;
/** How many devices ask at the same time. */
const AT_ONCE = 16;
const SECONDS = 8;
/** How many batches are written before a run. */
const MOST_BATCHES = 3000;

/**
 * A hub: a batch of records against the same bytes in one bare transaction of the same database; and over HTTP, by processes, how many
 * records a second come in, and how long a request takes at most for 95 of 100.
 */
export async function run() {
  const folder = mkdtempSync(join(tmpdir(), "drawer-bench-hub-"));
  const postgres = postgresPrograms() && startPostgres();
  if (!postgres) console.log("PostgreSQL is not installed: SQLite alone is measured.");
  try {
    head(`a batch of ${BATCH} records, in the hub, against bare rows`);
    await bare("SQLite", await openSqliteHub(join(folder, "bare.db")));
    if (postgres) {
      Object.assign(process.env, postgres.env);
      await bare("PostgreSQL", await openPostgresHub(console.error));
    }
    console.log(`\nover HTTP: ${GROUPS} groups × 3 devices, ${AT_ONCE} at once, ${BATCH} records each`);
    const file = join(folder, "hub");
    const devices = await prepare(await openSqliteHub(join(file, "hub.db")));
    await load("SQLite, one process", devices, [["--data", file]]);
    if (!postgres) return;
    for (const [name, processes] of [
      ["PostgreSQL, one process", [["--postgres"]]],
      ["PostgreSQL, two processes", [["--postgres"], ["--postgres"]]],
    ])
      await load(name, await prepare(await openPostgresHub(console.error)), processes);
  } finally {
    postgres?.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function bare(name, database) {
  await database.run("CREATE TABLE IF NOT EXISTS bare (n BIGINT, header BYTEA, signature BYTEA, body BYTEA)");
  const groups = new Groups(database, { group: 1e12 });
  const [device] = newDevices(1, { batch: BATCH });
  await groups.begin(device.group, device.signing.public);
  let n = 0;
  const made = Array.from({ length: 80 }, () => readRecords(device.next()));
  let at = 0;
  await compare(
    name,
    () => groups.add(device.group, device.id, made[at++]),
    () =>
      database.transact(async (sql) => {
        for (const { header, signature, body } of made[at - 1])
          await sql.run("INSERT INTO bare VALUES (?, ?, ?, ?)", ++n, header, signature, body);
      }),
    { runs: 60 },
  );
  await database.close();
}

async function prepare(database) {
  const groups = new Groups(database, { group: 1e12 });
  const devices = [];
  for (let n = 0; n < GROUPS; n++) {
    const [first] = newDevices(1, { batch: BATCH });
    const others = newDevices(2, { batch: BATCH, group: first.id });
    await groups.begin(first.id, first.signing.public);
    for (const { id, signing } of others) {
      await groups.layInvitation(first.id, first.id, {
        id,
        key: signing.public,
        sealed: signing.public,
        heard: 0,
      });
      await groups.enter(id, id, signing.public);
    }
    devices.push(first, ...others);
  }
  await database.close();
  return devices;
}

async function load(name, devices, processes) {
  const hubs = await Promise.all(processes.map(startHub));
  // What the devices bring is written before: it is the hub that is measured.
  const brought = devices.slice(0, MOST_BATCHES).map((device) => ({ device, batch: device.next() }));
  const times = [];
  let records = 0;
  let next = 0;
  const start = performance.now();
  const ends = start + SECONDS * 1000;
  const work = async () => {
    while (performance.now() < ends && next < brought.length) {
      const { device, batch } = brought[next++];
      const hub = new HttpHub({
        ...{ hub: hubs[next % hubs.length].address, group: device.group, device: device.id },
        signing: device.signing,
      });
      const began = performance.now();
      await hub.add(batch);
      times.push(performance.now() - began);
      records += batch.length;
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  times.sort((a, b) => a - b);
  const seconds = (performance.now() - start) / 1000;
  const p95 = times[Math.floor(times.length * 0.95)];
  console.log(
    `${name.padEnd(40)} ${Math.round(records / seconds)} records/s, a request ${median(times).toFixed(0)} ms, p95 ${p95.toFixed(0)} ms`,
  );
  for (const { child } of hubs) child.kill("SIGTERM");
  await Promise.all(hubs.map(({ gone }) => gone));
}

function startHub(words) {
  const child = spawn(
    process.execPath,
    ["dist/bin/main.js", "hub", "--json", "--quiet", "--port", "0", ...words],
    {
      stdio: ["ignore", "pipe", "inherit"],
      env: process.env,
    },
  );
  const gone = new Promise((settle) => child.once("exit", settle));
  return new Promise((settle) => {
    child.stdout.once("data", (text) => settle({ address: JSON.parse(text).address, child, gone }));
  });
}
