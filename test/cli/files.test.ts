import { spawn } from "node:child_process";
import {
  copyFileSync,
  existsSync,
  linkSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  chmodSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { join, resolve } from "node:path";
import { commandHome } from "../support/command";
import { isFull } from "../support/counts";
import { readSource } from "drawer/files";

const { folder, drawer, all, snippets, fresh, home } = commandHome();
let at = 0;
let work = "";
beforeEach(() => {
  fresh();
  work = join(folder, `work-${++at}`);
  mkdirSync(work);
});
const demo = (name: string) => {
  const path = join(work, name);
  copyFileSync(join("demo", name), path);
  return path;
};
const parts = async (path: string) =>
  (await readSource(new Uint8Array(readFileSync(path)), path)).parts().map(({ text }) => text);

test("a block goes into a document and out again by undo, byte for byte; the drawer stays as it is", async () => {
  const diary = demo("diary.docx");
  chmodSync(diary, 0o640);
  const before = readFileSync(diary);
  await all(`collect ${demo("costs.csv")} --at A1:D3`);
  expect(await all(`place 1 --into ${diary} --at p3`)).toBe(
    "Put 1 snippet after p3 in “diary.docx”. Undo puts the file back as it was.\n",
  );
  expect((await parts(diary))[3]).toContain("Item | Quantity | Each | Amount");
  expect(statSync(diary).mode & 0o777).toBe(0o640);
  expect(await all("log")).toMatch(/putting into “diary.docx” \(p3\)\n.*collecting/);
  expect(await all("undo")).toBe("“diary.docx” is as it was before.\n");
  expect(readFileSync(diary)).toEqual(before);
  expect(await snippets()).toHaveLength(1);
  // With --to the file stays, and the copy is a new one.
  const copy = join(work, "new.docx");
  await all(`place 1 --into ${diary} --at p3 --to ${copy}`);
  expect(readFileSync(diary)).toEqual(before);
  expect((await parts(copy))[3]).toContain("Item | Quantity");
});

test("what is lifted is in the drawer and out of the file; undo puts it back; changed meanwhile, the file stays", async () => {
  const diary = demo("diary.docx");
  const before = readFileSync(diary);
  const was = await parts(diary);
  const said = await all(`lift ${diary} --at p3 --at t1`);
  expect(said).toMatch(
    /Collected as 1: “First wheatear.*\nCollected as 2.*\nTaken out of “diary.docx”: p3, t1\. Undo puts them back\.\n$/,
  );
  expect(await parts(diary)).toEqual(was.filter((text) => !/^First wheatear|^Species \|/.test(text)));
  await all("undo");
  expect(readFileSync(diary)).toEqual(before);
  expect(await snippets()).toEqual([]);
  await all(`lift ${diary} --at p4`);
  writeFileSync(diary, Buffer.concat([readFileSync(diary), Buffer.from([0])]));
  const { code, err } = await drawer(["undo"]);
  expect([code, err]).toEqual([
    1,
    expect.stringMatching(
      /was changed since, and stays as it is\. As it was before it is kept in .*\.docx: copy/,
    ),
  ]);
  expect(readFileSync(/kept in (.*): copy/.exec(err)![1]!)).toEqual(before);
  // Forgotten for good, nothing of it stays.
  await all("empty --for-good");
  expect(readdirSync(join(home(), "files"))).toEqual([]);
});

test.each([
  [
    "a program has it open",
    (path: string) => writeFileSync(join(work, ".~lock.diary.docx#"), path),
    /has it open/,
  ],
  ["Word has it open", (path: string) => writeFileSync(join(work, "~$ary.docx"), path), /has it open/],
  [
    "it is a link",
    (path: string) => {
      copyFileSync(path, `${path}.real`);
      rmSync(path);
      symlinkSync(`${path}.real`, path);
    },
    /it is a link\. Name the file that it leads to: .*diary\.docx\.real/,
  ],
  ["it has another name", (path: string) => linkSync(path, `${path}.other`), /another name on the disk/],
] as const)("where %s it stays as it is, and so does the drawer", async (_why, make, said) => {
  const diary = demo("diary.docx");
  make(diary);
  const before = readFileSync(diary);
  const { code, err } = await drawer(["lift", diary, "--at", "p3"]);
  expect([code, err]).toEqual([1, expect.stringMatching(said)]);
  expect(readFileSync(diary)).toEqual(before);
  expect(await snippets()).toEqual([]);
});

test("whatever was done to files and the drawer is undone and done again in its order", async () => {
  const file = demo("notes.md");
  const state = async () => [readFileSync(file, "utf8"), (await snippets()).map(({ text }) => text)] as const;
  /** The states that were gone through, and where among them one is. */
  const history = [await state()];
  let now = 0;
  const acts = {
    collect: () => drawer(["collect"], `Piece ${history.length} of ${now}`),
    put: () => drawer(["place", "last", "--into", file, "--at", "p2"]),
    lift: () => drawer(["lift", file, "--at", "p3"]),
    undo: () => drawer(["undo"]),
    redo: () => drawer(["redo"]),
  };
  const check = async (act: keyof typeof acts) => {
    const { code } = await acts[act]();
    const step = act === "undo" ? -1 : 1;
    const isRefused = now + step < 0 || (act === "redo" && now + step >= history.length);
    expect([act, code]).toEqual([act, isRefused ? 1 : 0]);
    if (isRefused) return;
    now += step;
    if (act === "undo" || act === "redo") return expect([act, await state()]).toEqual([act, history[now]]);
    history.splice(now, Infinity, await state());
  };
  await check("collect");
  const random =
    "put lift undo undo redo redo collect undo undo undo redo redo redo redo put undo lift redo undo redo undo undo undo";
  for (const act of random.split(" ")) await check(act as keyof typeof acts);
  // What was changed meanwhile is not changed again, and where it would have come to is told.
  for (const act of ["redo", "put", "undo"] as const) await check(act);
  writeFileSync(file, "Changed by hand.\n");
  const again = await drawer(["redo"]);
  expect([again.code, again.err]).toEqual([
    1,
    expect.stringMatching(/was changed since.*As it would be it is kept in/),
  ]);
  expect(readFileSync(file, "utf8")).toBe("Changed by hand.\n");
}, 120_000);

test("a lift that cannot be done again leaves both as they are, and is done again once it can", async () => {
  const file = demo("notes.md");
  const before = readFileSync(file, "utf8");
  await all(`lift ${file} --at p3`);
  const lifted = readFileSync(file, "utf8");
  await all("undo");
  writeFileSync(file, "Changed by hand.\n");
  for (const turn of [1, 2]) {
    expect([turn, (await drawer(["redo"])).code]).toEqual([turn, 1]);
    expect(await snippets()).toEqual([]);
  }
  writeFileSync(file, before);
  await all("redo");
  expect([readFileSync(file, "utf8"), (await snippets()).length]).toEqual([lifted, 1]);
});

test("wrong words are told", async () => {
  const diary = demo("diary.docx");
  await all(`collect ${diary} --at p3`);
  const refused = async (line: string) => (await drawer(line.split(" "))).err.trim();
  expect(await refused(`place 1 --into ${diary}`)).toMatch(/With --into say where/);
  expect(await refused(`place 1 --into ${diary} --at p3 --put under`)).toMatch(
    /“under” is not one of: after, before, instead/,
  );
  expect(await refused("place 1 --put after")).toMatch(/belong to --into/);
  expect(await refused("lift")).toMatch(/Say what is to be lifted/);
  expect(await refused("lift --finish")).toBe("");
  expect(await refused(`place 1 --into ${diary} --at p99`)).toMatch(/has no p99/);
});

test("a lift that was broken off between the drawer and the file is told, and is finished or undone", async () => {
  const brokenOff = async () => {
    fresh();
    const diary = demo("diary.docx");
    const before = readFileSync(diary);
    await all(`lift ${diary} --at p3`);
    writeFileSync(diary, before);
    const notes = join(home(), "files");
    const note = join(
      notes,
      readdirSync(notes).find((name) => name.endsWith(".json"))!,
    );
    const { doneAt: _, ...noted } = JSON.parse(readFileSync(note, "utf8")) as { doneAt: string };
    writeFileSync(note, JSON.stringify(noted));
    return { diary, before };
  };
  const first = await brokenOff();
  expect((await drawer(["list"])).err).toMatch(
    /is in the drawer, and still in “diary\.docx”.*drawer lift --finish.*drawer undo/,
  );
  expect(await all("lift --finish")).toBe("Taken out of “diary.docx”: p3.\n");
  expect((await drawer(["list"])).err).toBe("");
  await all("undo");
  expect(readFileSync(first.diary)).toEqual(first.before);
  const second = await brokenOff();
  await all("undo");
  expect(readFileSync(second.diary)).toEqual(second.before);
  expect(await snippets()).toEqual([]);
  expect((await drawer(["list"])).err).toBe("");
});

test(
  "killed at any moment, what was lifted is in the drawer or in its file, and the next command says what to do",
  async () => {
    const main = resolve("dist/bin/main.js");
    const diary = demo("diary.docx");
    const before = readFileSync(diary);
    let both = 0;
    const rounds = isFull ? 500 : 5;
    for (let round = 0; round < rounds; round++) {
      fresh();
      writeFileSync(diary, before);
      const child = spawn(process.execPath, [main, "lift", diary, "--at", "p3"], {
        env: { ...process.env, DRAWER_HOME: home() },
      });
      let isOver = false;
      const ended = new Promise<void>((done) => child.once("exit", () => ((isOver = true), done())));
      // The journal's first line is the beginning of what is dangerous.
      while (!isOver && !existsSync(join(home(), "files"))) await new Promise((done) => setTimeout(done, 1));
      await new Promise((done) => setTimeout(done, (round % 10) * 5));
      child.kill("SIGKILL");
      await ended;
      const inFile = (await parts(diary)).some((text) => text.startsWith("First wheatear"));
      const listed = await drawer(["list", "--json"]);
      const inDrawer = (JSON.parse(listed.out) as { snippets: unknown[] }).snippets.length > 0;
      expect([round, inFile || inDrawer]).toEqual([round, true]);
      if (inFile && inDrawer) {
        both++;
        expect(listed.err).toMatch(/is in the drawer, and still in “diary.docx”/);
        await all("lift --finish");
        expect((await parts(diary)).some((text) => text.startsWith("First wheatear"))).toBe(false);
      } else expect(listed.err).not.toMatch(/broken off/);
      if (inFile) expect(readFileSync(diary).equals(before) || both > 0).toBe(true);
      expect(readdirSync(work).filter((name) => name.endsWith(".part"))).toEqual([]);
    }
  },
  isFull ? 3_600_000 : 300_000,
);

test("a form is filled by labels and by a table of two columns; a file for each row of a table, all of them or none", async () => {
  const form = join(work, "letter.md");
  writeFileSync(form, "Dear {{Name}},\n\nyour ride is {{Ride}}, from {{Day}}.\n");
  const csv = (name: string, text: string) => {
    writeFileSync(join(work, name), text);
    return join(work, name);
  };
  expect(await all(`look --places ${form}`)).toBe("Name  {{ }}\nRide  {{ }}\nDay   {{ }}\n");
  await all(`collect ${csv("people.csv", "Name,Ride\nAda,North\nBo/Bee,Middle\n")}`);
  expect((await drawer(["collect", "--label", "Day"], "8 April")).code).toBe(0);
  const said = await drawer(["fill", form, "--each", "--to", join(work, "to-{{name}}.md")]);
  expect([said.code, said.out]).toEqual([
    0,
    expect.stringMatching(/^Filled into 2 files, the last of which is “.*to-Bo-Bee\.md”\.\n$/),
  ]);
  expect(readFileSync(join(work, "to-Ada.md"), "utf8")).toBe(
    "Dear Ada,\n\nyour ride is North, from 8 April.\n",
  );
  // One that is there already leaves all others unwritten.
  rmSync(join(work, "to-Ada.md"));
  expect((await drawer(["fill", form, "--each", "--to", join(work, "to-{{name}}.md")])).code).toBe(1);
  expect(existsSync(join(work, "to-Ada.md"))).toBe(false);
  expect((await drawer(["fill", form, "--each", "--to", join(work, "one.md")])).err).toMatch(
    /With a name in braces in --to each row gets a file of its own/,
  );
  await all(`collect ${csv("pairs.csv", "Name,Cy\nRide,South\nTide,low\n")}`);
  const filled = await all(`fill ${form} --to ${join(work, "cy.md")} --from 2,3`);
  expect(filled).toMatch(/^Filled into “.*cy\.md”\.\nThe file has no place for Tide\.\n$/);
  expect(readFileSync(join(work, "cy.md"), "utf8")).toBe("Dear Cy,\n\nyour ride is South, from 8 April.\n");
  expect(await all(`fill ${form} --to ${join(work, "less.md")} --from 2`)).toMatch(
    /Nothing was there for Name, Ride: they stay as they are/,
  );
});

test("what has become of pieces in their files is told, and they are taken anew as one act; a path is told to nobody", async () => {
  const [diary, rings, tides] = [demo("diary.docx"), demo("ringing.xlsx"), join(work, "tides.txt")];
  writeFileSync(tides, "High water 06:10\n");
  await all(
    `collect ${diary} --at p3 --at p12 --at p6`,
    `collect ${rings} --at Spring!A2:D3`,
    `collect ${tides}`,
  );
  expect((await drawer(["collect"], "from nowhere")).code).toBe(0);
  expect(await all("check 1..5")).toMatch(/^(\d {2}the same .*\n){5}$/);
  const { putInto, takeOut } = await import("drawer/files");
  const { compose, readText } = await import("drawer");
  const words = (said: string) => compose([readText(said)]);
  let bytes: Uint8Array = readFileSync(diary);
  ({ data: bytes } = await putInto(bytes, diary, "p3", words("A new line"), { put: "before" }));
  ({ data: bytes } = await putInto(
    bytes,
    diary,
    "p13",
    words("Water depth 0.5 m2 plot; staff gauge replaced."),
    { put: "instead" },
  ));
  ({ data: bytes } = await takeOut(bytes, diary, ["p7"]));
  writeFileSync(diary, bytes);
  writeFileSync(tides, "High water 06:52\n");
  const told = JSON.parse(await all("check --json")) as {
    checked: { position: number; standing: string; now?: string; spot?: string }[];
  };
  expect(told.checked.map(({ position, standing, spot }) => [position, standing, spot])).toEqual([
    ...[
      [1, "moved", "p4"],
      [2, "changed", undefined],
      [3, "gone", undefined],
      [4, "same", undefined],
    ],
    ...[
      [5, "changed", undefined],
      [6, "unknown", undefined],
    ],
  ]);
  expect(told.checked[4]!.now).toBe("High water 06:52\n");
  expect(await all("check 5")).toContain("5 says:       High water 06:10\nits file says: High water 06:52");
  expect(await all("refresh all")).toBe(
    "Snippet 1 stands at p4 now.\nSnippet 2 says now: “Water depth 0.5 m2 plot; staff gauge…”.\nSnippet 5 says now: “High water 06:52”.\nLeft as they are: 3, 6. “drawer check 3 6” says why.\n",
  );
  expect((await snippets()).map(({ origin }) => origin.at)).toEqual([
    "p4",
    "p12",
    "p6",
    "Spring!A2:D3",
    undefined,
    undefined,
  ]);
  // One act, which undo takes back whole.
  await all("undo");
  expect((await snippets()).map(({ text, origin }) => [origin.at, text.slice(0, 16)])).toMatchObject({
    0: ["p3", "First wheatear o"],
    1: ["p12", "Water depth 0.4 "],
    4: [undefined, "High water 06:10"],
  });
  const file = join(work, "all.drawer.jsonl");
  await all(`export ${file}`);
  for (const said of [readFileSync(file, "utf8"), await all("list --json"), await all("show 1 --json")])
    expect(said).not.toContain(work);
});
