import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { Drawer } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { piece } from "./operations.mjs";
import { drawerFile, inFolder, integrity, later, run } from "./support.mjs";

const collect = (drawer, text, more) => drawer.collect([piece(text, more)]);
/** Whether a word stands in any file beside a database. */
const holds = (file, word) =>
  readdirSync(dirname(file)).some((name) => readFileSync(join(dirname(file), name)).includes(word));

/** Runs something again and again, each time killed at a later statement, until it comes to its end. */
async function atEach(step, prepare, words, check) {
  let runs = 0;
  const wrong = [];
  for (let point = 1; ; point += step) {
    const file = await prepare(point);
    const { code } = await run([process.execPath, resolve("faults/fault-point.mjs"), file, ...words(point)]);
    runs++;
    const fault = integrity(file) === "ok" ? await check(file) : "the file is broken";
    if (fault) wrong.push(`${point}: ${fault}`);
    if (code === 0) return { runs, wrong };
  }
}

/** A process is killed at each statement of forgetting private snippets, and of an import. */
export const faultPoints = ({ step = 1, importStep = 23 } = {}) =>
  inFolder(async (folder) => {
    let n = 0;
    const home = async (fill) => {
      const file = join(folder, `${++n}`, "drawers.db");
      const store = openSqlite(file);
      await fill(new Drawer(store));
      await store.close();
      return file;
    };
    const forgetting = await atEach(
      step,
      () =>
        home(async (drawer) => {
          await collect(drawer, "open tern");
          await collect(drawer, "piece hushhush one");
          await collect(drawer, "piece hushhush two");
          await drawer.merge("2 3");
          await drawer.hide("2", 120_000);
          await collect(drawer, "kept secret", { private: true });
          await drawer.keep("3");
        }),
      (point) => ["forget", String(point)],
      async (file) => {
        const store = openSqlite(file);
        const drawer = new Drawer(store);
        await later(3 * 60_000, () => drawer.applyRetention());
        const count = await drawer.count();
        await store.close();
        if (count !== 2) return `${count} there`;
        return holds(file, "hushhush") ? "a trace of it stays" : undefined;
      },
    );
    const terns = join(folder, "terns.jsonl");
    writeFileSync(terns, drawerFile(260).join("\n"));
    const importing = await atEach(
      importStep,
      () => home((drawer) => collect(drawer, "open tern")),
      (point) => ["import", String(point), terns],
      async (file) => {
        const store = openSqlite(file);
        const drawer = new Drawer(store);
        await later(60_000, () => drawer.applyRetention());
        const count = await drawer.count();
        await store.close();
        return count === 1 || count === 261 ? undefined : `${count} there`;
      },
    );
    const wrong = [...forgetting.wrong, ...importing.wrong];
    return {
      passed: wrong.length === 0,
      said: `killed at ${forgetting.runs} statements of forgetting and ${importing.runs} of an import: ${wrong.length === 0 ? "each time all gone, or all or none there, and the file sound" : wrong.slice(0, 5).join("; ")}`,
    };
  });

/** Many private snippets, of different ages, kept and not, in several drawers; and a clock that is set back. */
export const retention = ({ secrets = 200 } = {}) =>
  inFolder(async (folder) => {
    const file = join(folder, "drawers.db");
    const store = openSqlite(file);
    const drawers = ["main", "letters", "rings", "costs"].map((name) => new Drawer(store, name));
    for (let n = 0; n < secrets; n++) {
      const drawer = drawers[n % drawers.length];
      await later(n * 1000, () => collect(drawer, `hush${n}hush`, { private: true }));
      if (n % 10 === 0) await drawer.keep("last");
    }
    const left = async () =>
      (await Promise.all(drawers.map((drawer) => drawer.count()))).reduce((sum, one) => sum + one, 0);
    const counts = [];
    for (let time = 0; time <= secrets * 1000 + 120_000; time += 20_000) {
      await later(time, () => drawers[0].applyRetention());
      counts.push(await left());
    }
    const kept = Math.ceil(secrets / 10);
    const traces = Array.from({ length: secrets }, (_, n) => n).filter(
      (n) => n % 10 !== 0 && holds(file, `hush${n}hush`),
    );
    await later(10_000_000, () => collect(drawers[0], "set back hush", { private: true }));
    await later(10_060_000, () => drawers[0].applyRetention());
    await drawers[0].applyRetention();
    await later(61_000, () => drawers[0].applyRetention());
    const isBack = (await left()) === kept;
    await store.close();
    const isFalling =
      counts.every((count, at) => at === 0 || count <= counts[at - 1]) && counts.at(-1) === kept;
    return {
      passed: isFalling && traces.length === 0 && isBack,
      said: `${secrets} private snippets in ${drawers.length} drawers: ${kept} kept, ${counts.at(-1)} there at the end, ${traces.length} traces; a clock set back kept ${isBack ? "none" : "one"}`,
    };
  });
