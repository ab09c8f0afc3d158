// Files with private snippets in them, damaged at random: each command answers with a sentence, and nothing private comes out.
import { cpSync, mkdirSync, readdirSync, readFileSync, truncateSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { drawer, inFolder, integrity, random } from "./support.mjs";

const PAGE = 4096;
/** What was private from the start, what was hidden later, and what was shown again. */
const SECRET = "swordfish";
const HIDDEN = "plank";
const SHOWN = "lantern";

/** Damages one of the files of a home. */
const WAYS = {
  "random bytes": (bytes, next) => {
    for (let at = 0; at < 40; at++) bytes[next(bytes.length)] = next(256);
    return bytes;
  },
  "a page of noise": (bytes, next) => {
    const from = next(Math.ceil(bytes.length / PAGE)) * PAGE;
    for (let at = from; at < Math.min(bytes.length, from + PAGE); at++) bytes[at] = next(256);
    return bytes;
  },
  "cut off": (bytes, next) => bytes.subarray(0, next(bytes.length)),
  "text that is no UTF-8": (bytes, next) => {
    const words = [SECRET, HIDDEN, SHOWN, "wheatear", '"id"', "collectedAt", "main"];
    const found = [];
    for (const word of words)
      for (let at = bytes.indexOf(word); at !== -1; at = bytes.indexOf(word, at + 1)) found.push(at);
    for (let at = 0; at < 3 && found.length > 0; at++) bytes[found[next(found.length)]] = 0xff;
    return bytes;
  },
};

/** A home with snippets of all these sorts, as a process leaves it: with its log, or without. */
async function makeHome(folder) {
  const home = join(folder, "home");
  mkdirSync(home);
  const run = async (words, input) => {
    const { code, err } = await drawer(home, words, { input });
    if (code !== 0) throw new Error(`drawer ${words.join(" ")}: ${err}`);
  };
  for (let at = 0; at < 12; at++) await run(["collect"], `wheatear ${at} ${"over the bar ".repeat(30)}`);
  await run(["collect", "--private"], `${SECRET} one ${"at low water ".repeat(40)}`);
  await run(["collect"], `${HIDDEN} two ${"at low water ".repeat(40)}`);
  await run(["collect"], `${SHOWN} three`);
  await run(["hide", "14", "15"]);
  await run(["keep", "14"]);
  await run(["hide", "15", "--not"]);
  await run(["move", "2", "--to-end"]);
  return home;
}

/** @param runs how many damages */
export const damagedSecrets = ({ runs = 500 } = {}) =>
  inFolder(async (folder) => {
    const whole = await makeHome(folder);
    const next = random(20310408);
    const counts = { back: 0, mended: 0, private: 0 };
    const faults = [];
    const one = async (number) => {
      const home = join(folder, `run ${number}`);
      cpSync(whole, home, { recursive: true });
      const files = readdirSync(home).filter((name) => /^drawers\.db(-wal)?$/.test(name));
      const file = join(home, files[next(files.length)]);
      const names = Object.keys(WAYS);
      const way = names[next(names.length)];
      const bytes = readFileSync(file);
      if (way === "cut off") truncateSync(file, next(bytes.length));
      else writeFileSync(file, WAYS[way](bytes, next));
      const said = [];
      for (const words of [
        ["list", "--limit", "all"],
        ["log"],
        ["list", "--gone"],
        ["list", "--find", "low water"],
        ["place", "all"],
      ]) {
        const { code, out, err } = await drawer(home, words);
        said.push(out, err);
        if (![0, 1].includes(code))
          faults.push(
            `${way} in ${file}: drawer ${words.join(" ")} ended with ${code}: ${err.slice(0, 300)}`,
          );
        if (/\n\s+at .*:\d+:\d+/.test(err)) faults.push(`${way}: a stack trace: ${err.slice(0, 300)}`);
      }
      const all = said.join("\n");
      for (const word of [SECRET, HIDDEN])
        if (all.includes(word)) faults.push(`${way} in ${file}: “${word}” came out`);
      const isMended = /was damaged\. It was set aside/.test(all);
      if (isMended && integrity(join(home, "drawers.db")) !== "ok")
        faults.push(`${way}: the new file is not sound`);
      counts.back += /wheatear/.test(all) ? 1 : 0;
      counts.mended += isMended ? 1 : 0;
      counts.private += /(is|are) back, private/.test(all) ? 1 : 0;
    };
    for (let at = 0; at < runs; at += 4) await Promise.all([0, 1, 2, 3].map((lane) => one(at + lane)));
    const told = faults.slice(0, 5).map((fault) => `\n  ${fault}`);
    return {
      passed: faults.length === 0,
      said: `${runs} damages of files with private snippets: ${faults.length} faults, nothing private shown; ${counts.mended} times the file was mended, ${counts.private} times with what was private in it, ${counts.back} times what is open was there${told.join("")}`,
    };
  });
