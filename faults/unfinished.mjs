import { readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "libsql";
import { drawer, drawerFile, inFolder } from "./support.mjs";

/** A command is killed while it writes a file: nothing half-written stays once the next one has begun. */
export const partFiles = ({ runs = 40 } = {}) =>
  inFolder(async (folder) => {
    const home = join(folder, "home");
    writeFileSync(join(folder, "terns.jsonl"), drawerFile(4000).join("\n"));
    await drawer(home, ["rules", "snippets=any"]);
    await drawer(home, ["import", join(folder, "terns.jsonl")]);
    const parts = () => readdirSync(folder).filter((name) => name.endsWith(".part")).length;
    let left = 0;
    for (let n = 0; n < runs; n++) {
      const to = join(folder, `${n}.jsonl`);
      await drawer(home, ["export", to], { alive: 150 + Math.random() * 250 });
      left += parts();
      await drawer(home, ["list"]);
    }
    return {
      passed: parts() === 0,
      said: `killed while writing a file in ${runs} runs: ${left} part files met, ${parts()} there after the next start`,
    };
  });

/** What a command says that waits for another. */
const WAITING = /^Waiting: .* is writing to the drawers\./;

/** Several commands find the drawers locked, until each has said for whom it waits. */
export const lockedWriters = ({ writers = 4 } = {}) =>
  inFolder(async (home) => {
    await drawer(home, ["collect"], { input: "one" });
    const other = new Database(join(home, "drawers.db"));
    other.exec("BEGIN IMMEDIATE");
    const tells = [];
    const waiting = Array.from({ length: writers }, (_, n) => {
      let heard;
      tells.push(new Promise((resolve) => (heard = (said) => WAITING.test(said) && resolve())));
      return drawer(home, ["collect"], { input: `waiting ${n}`, heard });
    });
    // One that says nothing is not waited for for ever: it is counted below.
    await Promise.race([Promise.all(tells), new Promise((resolve) => setTimeout(resolve, 60_000).unref())]);
    other.exec("COMMIT");
    other.close();
    const answers = await Promise.all(waiting);
    const done = answers.filter(({ code }) => code === 0).length;
    const told = answers.filter(({ err }) => WAITING.test(err)).length;
    return {
      passed: done === writers && told === writers,
      said: `${writers} writers locked out: ${told} told for whom they wait, ${done} done after`,
    };
  });
