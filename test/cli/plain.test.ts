import { spawn } from "node:child_process";
import {
  chmodSync,
  lstatSync,
  mkdtempSync,
  readFileSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { join, resolve } from "node:path";
import Database from "libsql";
import { commandHome } from "../support/command";

const { folder, drawer, all, snippets, fresh, home } = commandHome();
beforeEach(fresh);

const collect = async (...texts: string[]) => {
  for (const text of texts) await drawer(["collect"], text);
};
/** Control characters but for line ends and tabs, as a terminal would obey them. */
const CONTROLS = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/;

test("a refusal is a JSON value too, with the same exit code", async () => {
  const refusal = async (line: string) => {
    const { code, out } = await drawer(line.split(" "));
    return [code, (JSON.parse(out) as { error: { code: string; message: string } }).error.code];
  };
  expect([
    await refusal("place 9 --json"),
    await refusal("--json place 1 --as spiral"),
    await refusal("list --json --colour"),
    await refusal("collect --json missing.docx"),
  ]).toEqual([
    [1, "no-position"],
    [2, "bad-option"],
    [2, "usage"],
    [1, "no-file"],
  ]);
});

test("options of every command may stand before it, and the version is told", async () => {
  await drawer(["--drawer", " x ", "collect"], "one");
  expect(await all("--drawer=x --json list")).toBe(await all("list --drawer x --json"));
  expect((await drawer(["list", "--drawer", "a\u001bb"])).code).toBe(2);
  expect(await all("--version")).toBe(
    `${(JSON.parse(readFileSync("package.json", "utf8")) as { version: string }).version}\n`,
  );
});

test("no control sequence of a text, a label or a name reaches a terminal from any command", async () => {
  const evil = "red \u001b[31m\u0007 bell \u009b5m \u007f end";
  writeFileSync(join(folder, "evil \u001b]0;x\u0007.txt"), evil);
  await drawer(["collect", join(folder, "evil \u001b]0;x\u0007.txt"), "--label", evil]);
  await collect(evil, "two");
  const out = [];
  for (const line of [
    "list",
    "list --json",
    "show all",
    "list --find bell",
    "log",
    "move 1 --to-end",
    "discard 2",
  ])
    out.push(await all(line));
  for (const words of [
    ["label", "1", evil],
    ["list", "--gone"],
    ["place", "1", "--json"],
    ["restore", "1"],
    ["list", "--find", evil],
  ])
    out.push((await drawer(words)).out);
  for (const words of [
    ["recipe", "show", evil],
    ["place", evil],
    ["list", "--drawer", evil],
    ["place", "1", "--to", join(folder, evil, "x.txt")],
  ]) {
    const { code, err } = await drawer(words);
    expect(code).not.toBe(0);
    out.push(err);
  }
  expect(out.join("\n")).not.toMatch(CONTROLS);
  expect(await all("place last")).toBe(`${evil}\n`);
});

test("--overwrite writes through links and keeps the mode; what is no file is left alone", async () => {
  await collect("one");
  const to = (name: string) => join(folder, name);
  writeFileSync(to("secret.txt"), "old");
  chmodSync(to("secret.txt"), 0o600);
  symlinkSync("secret.txt", to("link.txt"));
  await all(`place 1 --to ${to("link.txt")} --overwrite`);
  expect([
    readFileSync(to("secret.txt"), "utf8"),
    lstatSync(to("link.txt")).isSymbolicLink(),
    statSync(to("secret.txt")).mode & 0o777,
  ]).toEqual(["one\n", true, 0o600]);
  expect((await drawer(["place", "1", "--to", "/dev/full", "--out", "text", "--overwrite"])).err).toContain(
    "it is no file",
  );
});

test("a disk that takes no more is said, and what was handed out to it was not handed out", async () => {
  await collect("one", "two");
  await all("deal all");
  const full = (words: string) =>
    new Promise<[number, string]>((done) => {
      const shell = spawn("sh", ["-c", `node ${resolve("dist/bin/main.js")} ${words} > /dev/full`], {
        env: { ...process.env, DRAWER_HOME: home() },
      });
      let err = "";
      shell.stderr.on("data", (text: Buffer) => (err += text.toString()));
      shell.on("close", (code) => done([code ?? -1, err]));
    });
  for (const words of ["list", "next", "place 1", "place 1 --json"])
    expect(await full(words)).toEqual([1, "drawer: The answer could not be written: the disk is full.\n"]);
  expect((await drawer(["next", "--to", "/dev/full"])).err).toContain("It has not been handed out");
  writeFileSync(join(folder, "x.docx"), readFileSync("demo/diary.docx"));
  expect((await drawer(["next", "--to", join(folder, "x.docx")])).err).toContain("it is no text file");
  expect(await all("deal")).toBe("2 are left of 2. “drawer next” hands out 1 of 2.\n");
  expect(await all("deal --skip")).toBe("One is left of 2. “drawer next” hands out 2 of 2.\n");
  expect([(await drawer(["next"])).out, await all("deal")]).toEqual(["two\n", "None is left of 2.\n"]);
});

test("picks, labels, spots and outputs as people type them", async () => {
  await all(
    "collect demo/ringing.xlsx --at spring!3:3,a5:c5 --at costs!B:C",
    "collect demo/diary.docx --at P3..4 --at T1!a1:b2",
  );
  const at = (await snippets()).map(({ origin }) => origin.at);
  expect(at).toEqual(["Spring!3:3", "Spring!A5:C5", "Costs!B:C", "p3..p4", "t1!A1:B2"]);
  await all("label first 2.. Repairs");
  const labels = (await snippets()).map(({ label }) => label);
  expect(labels).toEqual(Array(5).fill("Repairs"));
  await all("label --remove ..2 last");
  expect(await all("place 1 --as lines --out md")).toBe(await all("place 1 --as lines --out markdown"));
  expect((await all("place 1 --out docx")).startsWith("PK")).toBe(true);
  await all(`append demo/diary.docx --at p4 --at p5 --to 4`);
  expect(await all("split 4")).toMatch(/^Split into 3: /);
});

test.each([
  ["docx", readFileSync("demo/diary.docx"), "Field diary, Merrow Spit"],
  ["odt", readFileSync("demo/diary.odt"), "Field diary, Merrow Spit"],
  ["xlsx", readFileSync("demo/ringing.xlsx"), "Date\tRide"],
  ["ods", readFileSync("demo/ringing.ods"), "Date\tRide"],
  ["a sheet's text with its separator", "sep=;\r\na;b\r\n1;2\r\n", "a\tb\n1\t2"],
  ["rows parted by commas", 'Bird,Count\n"Wren, male",12\n', "Bird\tCount\nWren, male\t12"],
  ["prose with commas", "Dear Anna,\nthanks, all", "Dear Anna,\nthanks, all"],
  ["figures with decimal commas", "79,00\n12,50\n", "79,00\n12,50"],
  ["Markdown with front matter", "---\ntitle: x\n---\n\n# High **water**\n", "High water"],
])("%s on standard input is read as what it is", async (_, input, beginning) => {
  expect((await drawer(["collect"], input)).code).toBe(0);
  expect((await all("place 1")).startsWith(beginning)).toBe(true);
});

test("of a text that is too long to be read whole, lines are read alone", async () => {
  const file = join(folder, "long.txt");
  const lines = Array.from({ length: 1000 }, (_, at) => `${at + 1} ${"terns ".repeat(6000)}end`);
  writeFileSync(file, `\uFEFF${lines.join("\r\n")}\r\n`);
  expect((await drawer(["collect", file])).err).toContain("Collect it in parts");
  await drawer(["collect", file, "--at", "l1", "--at", "l999..l1000"]);
  expect((await snippets()).map(({ text, origin }) => [text, origin.at])).toEqual([
    [lines[0], "l1"],
    [lines.slice(998).join("\n"), "l999..l1000"],
  ]);
  expect((await drawer(["collect", file, "--at", "l1002"])).err).toContain("it has 1001 lines");
});

test("a change of rules that would throw out more than a few is not made unasked", async () => {
  await collect("one", "two", "three", "four", "five");
  const { code, out, err } = await drawer(["rules", "snippets=1"]);
  expect([code, out, err]).toEqual([
    1,
    "",
    "drawer: Nothing was changed. This takes 4 snippets out of the drawer “main”: “one”, “two” and 2 more. Add --yes if that is meant.\n",
  ]);
  expect((await drawer(["rules", "snippets=1.000"])).code).toBe(2);
  await all("rules snippets=1 --yes");
  expect(await snippets()).toHaveLength(1);
});

test("the tour answers with JSON", async () => {
  const { steps, bulletin } = JSON.parse(await all("demo --json")) as {
    steps: { command: string }[];
    bulletin: string;
  };
  expect([steps[0]!.command, steps.length > 10, readFileSync(bulletin, "utf8").length > 100]).toEqual([
    "drawer look demo/diary.docx",
    true,
    true,
  ]);
});

test("a writer that is locked out says after two seconds whom it waits for, and then does its work", async () => {
  await collect("one");
  const path = join(home(), "drawers.db");
  const other = new Database(path);
  other.exec("BEGIN IMMEDIATE");
  const waiting = drawer(["collect"], "two");
  await new Promise((done) => setTimeout(done, 8000));
  other.exec("COMMIT");
  other.close();
  expect(await waiting).toEqual({
    code: 0,
    out: "Collected as 2: “two”.\n",
    err: "Waiting: another program is writing to the drawers.\n",
  });
});

test("others collect while a large import is under way, which is one act all the same", async () => {
  const line = (n: number) =>
    JSON.stringify({
      origin: {},
      collectedAt: "2031-04-08T05:50:00.000Z",
      content: [{ type: "paragraph", runs: [{ type: "text", text: `piece ${n}` }] }],
    });
  const count = 6000;
  const header = JSON.stringify({ format: "drawer-snippets", version: 1, snippets: count });
  const file = join(mkdtempSync(join(folder, "import-")), "many.jsonl");
  writeFileSync(file, [header, ...Array.from({ length: count }, (_, n) => line(n))].join("\n"));
  await all("rules snippets=any");
  const importing = drawer(["import", file]);
  let isDone = false;
  void importing.then(() => (isDone = true));
  let between = 0;
  // Each is undone again below, so a slow machine is not given more of them.
  for (let n = 0; !isDone && n < 20; n++) {
    expect(await drawer(["collect"], `stray ${n}`)).toMatchObject({ code: 0, err: "" });
    if (!isDone) between++;
  }
  expect((await importing).out).toBe(`Imported 6,000 snippets from “many.jsonl” into the drawer “main”.\n`);
  expect(between).toBeGreaterThan(0);
  const { length } = await snippets();
  const strays = length - count;
  for (let undone = 0; undone < strays + 1; undone++) await all("undo");
  expect(await snippets()).toEqual([]);
  expect((await drawer(["undo"])).out).toBe("Undone: changing the rule “snippets”.\n");
}, 120_000);
