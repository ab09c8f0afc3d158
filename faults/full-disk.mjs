import { spawnSync } from "node:child_process";
import { mkdirSync } from "node:fs";
import { join, resolve } from "node:path";
import { audit, drawer, inFolder, integrity, run } from "./support.mjs";

/** The disk becomes full while snippets are collected. Where a small disk cannot be mounted, files may not grow instead. */
export const fullDisk = () =>
  inFolder(async (folder) => {
    const home = join(folder, "home");
    mkdirSync(home, { mode: 0o700 });
    const isMounted = spawnSync("mount", ["-t", "tmpfs", "-o", "size=1m", "tmpfs", home]).status === 0;
    const limited = (words, input) =>
      isMounted
        ? drawer(home, words, { input })
        : run(
            [
              "bash",
              "-c",
              'ulimit -f 400; trap "" XFSZ; exec "$@"',
              "-",
              process.execPath,
              resolve("dist/bin/main.js"),
              ...words,
            ],
            {
              env: { DRAWER_HOME: home },
              input,
            },
          );
    try {
      let taken = 0;
      let refused;
      while (!refused && taken < 500) {
        const answer = await limited(["collect"], `Piece ${taken} ${"of the tide ".repeat(3000)}`);
        if (answer.code === 0) taken++;
        else refused = answer;
      }
      const listed = await limited(["list", "--limit", "1"], "");
      const other = await limited(["empty", "--for-good", "--drawer", "main"], "");
      const isSaid =
        [0, 1].includes(other.code) && !/\n\s+at /.test(other.err) && /\S/.test(other.out + other.err);
      const file = join(home, "drawers.db");
      if (isMounted) spawnSync("mount", ["-o", "remount,size=16m", home]);
      const after = await drawer(home, ["collect"], { input: "and on" });
      const { texts } = await audit(file);
      // Emptied or refused: what is said holds.
      const left = other.code === 0 ? 1 : taken + 1;
      const isTold =
        isSaid &&
        refused?.code === 1 &&
        /^drawer: Nothing was changed, and nothing is lost: .*(disk is full|cannot be written)/.test(
          refused.err,
        );
      return {
        passed: isTold && taken > 0 && after.code === 0 && texts.length === left && integrity(file) === "ok",
        said: `the disk is full after ${taken} (${isMounted ? "a disk of 1 MB" : "files may not grow"}): “${refused?.err.trim()}” — emptying for good: “${(other.out + other.err).trim()}”, listing ${listed.code === 0 ? "works" : "fails"}, collecting works again after`,
      };
    } finally {
      if (isMounted) spawnSync("umount", ["--lazy", home]);
    }
  });
