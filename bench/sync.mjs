import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Drawer, readText } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { follow, SyncClient } from "../dist/sync/index.js";
import { median } from "./measure.mjs";
import { piece } from "./pieces.mjs";

/** How many snippets a new device finds. */
const COUNT = Number(process.env.SYNC_COUNT ?? 10_000);
const TURNS = 30;

/**
 * Devices and a hub, each over SQLite: how long it takes from a piece that was collected on one until it stands on the other, against
 * the collecting alone; and until a new device has the first of many snippets, and all of them, against collecting as many.
 */
export async function run() {
  const folder = mkdtempSync(join(tmpdir(), "drawer-bench-sync-"));
  const hub = spawn(process.execPath, [
    ...["dist/bin/main.js", "hub", "--json", "--quiet", "--port", "0", "--data", join(folder, "hub")],
  ]);
  const { address } = JSON.parse(
    String(await new Promise((said) => hub.stdout.once("data", (text) => said(text)))),
  );
  const device = (name) => {
    const store = openSqlite(join(folder, name, "drawers.db"));
    let secrets;
    const keeper = { read: async () => secrets, write: async (kept) => void (secrets = kept) };
    return { store, drawer: new Drawer(store), client: new SyncClient(store, keeper) };
  };
  const [desk, laptop, late] = ["desk", "laptop", "late"].map(device);
  for (const { drawer } of [desk, laptop, late]) await drawer.setRules({ snippets: null, size: null });
  await desk.client.begin({ hub: address, name: "desk" });
  await laptop.client.join(await desk.client.invite(), { name: "laptop" });
  const ending = new AbortController();
  const failed = (error) => console.error(error.message);
  const following = [desk, laptop].map(({ client }) =>
    follow(client, { signal: ending.signal, exchanged: () => undefined, failed }),
  );
  await new Promise((settle) => setTimeout(settle, 1000));

  console.log("\na piece, from one device to the other, against collecting it");
  const [alone, across] = [[], []];
  for (let turn = 0; turn < TURNS; turn++) {
    const came = new Promise((settle) => {
      const stop = laptop.store.watch(
        () => void laptop.drawer.count().then((count) => count > turn && (stop(), settle())),
      );
    });
    const began = performance.now();
    await desk.drawer.collect([{ ...readText(`Round ${turn} of the nets`), origin: {} }]);
    alone.push(performance.now() - began);
    await came;
    across.push(performance.now() - began);
  }
  const sorted = [...across].sort((a, b) => a - b);
  console.log(
    `it stands there after ${median(across).toFixed(0)} ms, 95 of 100 after ${sorted[Math.floor(TURNS * 0.95)].toFixed(0)} ms   × ${(median(across) / median(alone)).toFixed(1)} of collecting (${median(alone).toFixed(1)} ms)`,
  );
  ending.abort();
  await Promise.all(following);

  console.log(`\na new device joins one with ${COUNT.toLocaleString("en")} snippets`);
  let began = performance.now();
  for (let from = 0; from < COUNT; from += 1000)
    await desk.drawer.collect(Array.from({ length: 1000 }, (_, n) => piece(from + n)));
  const collecting = performance.now() - began;
  began = performance.now();
  await desk.client.exchange();
  const sending = performance.now() - began;
  const invitation = await desk.client.invite();
  began = performance.now();
  let first;
  const stop = late.store.watch(() => void (first ??= performance.now() - began));
  await late.client.join(invitation, { name: "late" });
  await late.client.exchange();
  const joining = performance.now() - began;
  stop();
  const there = await late.drawer.count();
  const seconds = (time) => `${(time / 1000).toFixed(1)} s`;
  console.log(
    `collecting ${seconds(collecting)}; sending × ${(sending / collecting).toFixed(1)} (${seconds(sending)}); the first there after ${seconds(first)}, all ${there.toLocaleString("en")} × ${(joining / collecting).toFixed(1)} (${seconds(joining)}); ${Math.round(process.memoryUsage().rss / 1e6)} MB for all three`,
  );
  for (const { store } of [desk, laptop, late]) await store.close();
  hub.kill();
  rmSync(folder, { recursive: true, force: true });
}
