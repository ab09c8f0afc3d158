import { randomFillSync } from "node:crypto";
import { copyFileSync, existsSync, mkdirSync, readFileSync, truncateSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { audit, drawer, inFolder, integrity, IS_WHOLE, worker } from "./support.mjs";

const PAGE = 4096;

function junk(file, from, length) {
  const bytes = readFileSync(file);
  randomFillSync(bytes.subarray(from, Math.min(bytes.length, from + length)));
  writeFileSync(file, bytes);
}

/** Ways of damaging a file of so many pages, and how many of the snippets must come back at least. */
const WAYS = {
  "cut to a half": [(file, pages) => truncateSync(file, Math.floor(pages / 2) * PAGE + 100), 0.2],
  "its last page cut off": [(file, pages) => truncateSync(file, (pages - 1) * PAGE), 0.9],
  "its head overwritten": [(file) => junk(file, 0, PAGE), 1],
  "ten pages in the middle overwritten": [
    (file, pages) => junk(file, Math.floor(pages / 2) * PAGE, 10 * PAGE),
    0.7,
  ],
  "all overwritten": [(file, pages) => junk(file, 0, pages * PAGE), 0],
};

/** The file of the drawers is damaged in several ways; each is recognised, set aside, and recovered as far as it goes. */
export const damaged = ({ count = 60 } = {}) =>
  inFolder(async (folder) => {
    const whole = join(folder, "whole.db");
    await worker(whole, "log", count);
    const pages = readFileSync(whole).length / PAGE;
    const lines = [];
    let passed = true;
    for (const [name, [damage, share]] of Object.entries(WAYS)) {
      const home = join(folder, name);
      mkdirSync(home);
      const file = join(home, "drawers.db");
      copyFileSync(whole, file);
      damage(file, pages);
      // Three come upon it at once: one of them recovers it, and the others see what it made.
      const lists = await Promise.all(
        [1, 2, 3].map(() => drawer(home, ["list", "--limit", "all", "--find", "tern"])),
      );
      const told = lists.flatMap(({ err }) => /set aside as “([^”]+)”/.exec(err)?.[1] ?? []);
      const aside = told[0];
      const { texts } = await audit(file);
      const loose = (await audit(file, "recovered")).texts;
      const back = texts.length + loose.length;
      const intact = [...texts, ...loose].filter((text) => IS_WHOLE.test(text)).length;
      passed &&=
        lists.every(({ code, out }) => code === 0 && out === lists[0].out) &&
        told.length === 1 &&
        existsSync(aside) &&
        back >= count * share &&
        integrity(file) === "ok";
      lines.push(`  ${name}: told, set aside; ${back} of ${count} back, ${intact} of them whole`);
    }
    return { passed, said: `a damaged file\n${lines.join("\n")}` };
  });
