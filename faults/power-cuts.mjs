// The power goes at random moments: what stands on the disk then is opened, and holds all that was acknowledged.
import { spawn } from "node:child_process";
import { copyFileSync, existsSync, mkdirSync } from "node:fs";
import { join, resolve } from "node:path";
import { Drawer } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { digestOf } from "./acts-worker.mjs";
import { inFolder, integrity } from "./support.mjs";

const pause = (ms) => new Promise((next) => setTimeout(next, ms));

/** @param cuts how often the files are taken as they are */
export const powerCuts = ({ cuts = 500, each = 25 } = {}) =>
  inFolder(async (folder) => {
    let [lost, unsound, taken] = [0, 0, 0];
    for (let run = 0; taken < cuts; run++) {
      const file = join(folder, `${run}.db`);
      const child = spawn(process.execPath, [resolve("faults/acts-worker.mjs"), file, String(31 + run)]);
      let said = "";
      let err = "";
      child.stdout.setEncoding("utf8").on("data", (text) => (said += text));
      child.stderr.setEncoding("utf8").on("data", (text) => (err += text));
      const ended = new Promise((done) => child.once("exit", done));
      while (!said.includes("\n") && child.exitCode === null) await pause(5);
      const copies = [];
      for (let cut = 0; cut < each && taken < cuts && child.exitCode === null; cut++, taken++) {
        await pause(3 + ((run * 7 + cut * 13) % 40));
        child.kill("SIGSTOP");
        // What the process had written before it was stopped is still on its way.
        await pause(3);
        const copy = join(folder, `${run}-${cut}`);
        mkdirSync(copy, { mode: 0o700 });
        for (const ending of ["", "-wal"])
          if (existsSync(file + ending)) copyFileSync(file + ending, join(copy, `drawers.db${ending}`));
        copies.push({ copy, acknowledged: said.split("\n").length - 1 });
        child.kill("SIGCONT");
      }
      await pause(300);
      child.kill("SIGKILL");
      await ended;
      if (copies.length === 0) throw new Error(`The worker ended: ${err}`);
      const digests = said.split("\n");
      for (const { copy, acknowledged } of copies) {
        const store = openSqlite(join(copy, "drawers.db"), { recover: true });
        const digest = await digestOf(new Drawer(store, "log"));
        await store.close();
        // What was acknowledged last, or an act or two more that had not been told yet.
        if (!digests.slice(Math.max(0, acknowledged - 1), acknowledged + 3).includes(digest)) lost++;
        if (store.notices.length > 0 || integrity(join(copy, "drawers.db")) !== "ok") unsound++;
      }
    }
    return {
      passed: lost === 0 && unsound === 0,
      said: `the power goes ${cuts} times amid acts of all sorts: ${lost} times something acknowledged was missing, ${unsound} times the file was not sound`,
    };
  });
