import { spawnSync } from "node:child_process";
import {
  chmodSync,
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  statSync,
  symlinkSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import Database from "libsql";
import { commandHome } from "../support/command";

const { folder, drawer, all, snippets, fresh, home } = commandHome();
beforeEach(fresh);

const mode = (path: string) => statSync(path).mode & 0o777;

test("what cannot be forgotten now is told and done next time, and keeps no command from its work", async () => {
  await drawer(["collect"], "the gauge key");
  await drawer(["collect"], "open");
  await all("hide 1 --for 1s");
  const path = join(home(), "drawers.db");
  const change = (sql: string) => {
    const database = new Database(path);
    database.exec(sql);
    database.close();
  };
  change("CREATE TRIGGER held BEFORE DELETE ON secrets BEGIN SELECT RAISE(ABORT, 'held'); END");
  await new Promise((done) => setTimeout(done, 1100));
  for (const words of [["list"], ["show", "2"], ["place", "2"], ["label", "2", "Open"]]) {
    const { code, err } = await drawer(words);
    expect([code, err]).toEqual([
      0,
      expect.stringMatching(
        /^What is due by age or privacy could not be done now, and will be tried next time: .*held/,
      ),
    ]);
  }
  change("DROP TRIGGER held");
  expect((await drawer(["list"])).err).toMatch(/^A private snippet is gone for good/);
});

test("the time that a private snippet has left is told in every list", async () => {
  await drawer(["collect"], "Password: heath-ride-7");
  await drawer(["collect", "--private"], "kept");
  await all("keep 2");
  expect(await all("list")).toMatch(
    /^1 +text +private, (?:2 min 0|1 min 5\d) s left +••••••\n2 +text +kept, private +••••••\n/,
  );
  const listed = (await snippets()) as { goesAt?: string }[];
  expect(listed.map(({ goesAt }) => goesAt !== undefined && Date.parse(goesAt) > Date.now())).toEqual([
    true,
    false,
  ]);
  await all("hide 1 --not");
  expect(await all("list --limit 2")).toMatch(/^1 +text +Password: heath-ride-7\n/);
});

test("a home that others can look into is closed, and that is told once", async () => {
  mkdirSync(home(), { mode: 0o755 });
  expect((await drawer(["list"])).err).toBe(`Others could look into “${home()}”. It was closed to them.\n`);
  expect([mode(home()), (await drawer(["list"])).err]).toEqual([0o700, ""]);
});

test("a link in place of the drawers is not followed", async () => {
  await drawer(["collect"], "one");
  const real = join(home(), "drawers.db");
  fresh();
  mkdirSync(home());
  symlinkSync(real, join(home(), "drawers.db"));
  const { code, err } = await drawer(["list"]);
  expect([code, err.includes("a link stands there in place of the file")]).toEqual([1, true]);
});

test("what came from a private snippet is written for its owner alone, anything else by the user's mask", async () => {
  await drawer(["collect"], "one");
  await drawer(["collect", "--private"], "two");
  await all(`place 1 --to ${join(folder, "open.txt")}`, `place 1 2 --to ${join(folder, "closed.txt")}`);
  expect([mode(join(folder, "open.txt")), mode(join(folder, "closed.txt"))]).toEqual([
    0o666 & ~process.umask(),
    0o600,
  ]);
  expect(readdirSync(join(home(), "writing"))).toEqual([]);
});

const isRoot = process.getuid?.() === 0;
if (!isRoot)
  console.log("Skipped: drawers that cannot be written, because only root can become somebody else.");

(isRoot ? test : test.skip)(
  "drawers that can only be read are listed and placed, and nothing else",
  async () => {
    await drawer(["collect"], "one");
    const place = mkdtempSync(join(tmpdir(), "drawer-read-only-"));
    chmodSync(place, 0o755);
    const copy = join(place, "home");
    cpSync(home(), copy, { recursive: true });
    chmodSync(join(copy, "drawers.db"), 0o444);
    chmodSync(copy, 0o555);
    const run = (...words: string[]) =>
      spawnSync(process.execPath, [resolve("dist/bin/main.js"), ...words], {
        uid: 65_534,
        gid: 65_534,
        encoding: "utf8",
        input: "two",
        cwd: place,
        env: { ...process.env, DRAWER_HOME: copy },
      });
    try {
      expect(run("list").stdout).toMatch(/^1 +text +one\n/);
      expect(run("place", "1").stdout).toBe("one\n");
      for (const words of [["collect"], ["discard", "1"], ["undo"]])
        expect(run(...words)).toMatchObject({
          status: 1,
          stderr: expect.stringContaining("can be read but not written"),
        });
      expect(readdirSync(tmpdir()).filter((name) => /^drawer-read-(?!only)/.test(name))).toEqual([]);
    } finally {
      rmSync(place, { recursive: true, force: true });
    }
  },
);
