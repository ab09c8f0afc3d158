import { spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { PYTHON } from "../../scripts/office.mjs";
import { demoFile } from "../support/demo";
import { compose } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-mails-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
beforeAll(() => {
  expect(spawnSync(PYTHON, ["test/files/mails.py", folder], { encoding: "utf8" }).stderr).toBe("");
});
const mail = (text: string, name = "made.eml") =>
  readSource(new TextEncoder().encode(text.replace(/\n/g, "\r\n")), name);
const HEAD = "From: ada@merrow-spit.example\nDate: Tue, 8 Apr 2031 09:12:00 +0100\nSubject: Nets\n";

interface Said {
  readonly from: string;
  readonly to: string;
  readonly date: string;
  readonly subject: string;
  readonly text: string | null;
  readonly attachments: readonly string[];
}

test("mails that Python's own library has made say what it reads in them: who, when, about what, and the text in its characters", async () => {
  const names = readdirSync(folder).flatMap((file) => (file.endsWith(".json") ? [file.slice(0, -5)] : []));
  expect(names.length).toBeGreaterThan(55);
  for (const name of names.filter((each) => each !== "sheet")) {
    const said = JSON.parse(readFileSync(join(folder, `${name}.json`), "utf8")) as Said;
    const source = await readSource(new Uint8Array(readFileSync(join(folder, `${name}.eml`))), `${name}.eml`);
    expect(source.title).toBe(said.subject.trim());
    const head = compose([source.at("t1")])
      .tsv.trim()
      .split("\n")
      .map((row) => row.split("\t"));
    expect([name, head]).toEqual([
      name,
      [
        ["From", said.from],
        ["To", said.to],
        ["Date", said.date],
        ["Subject", said.subject.trim()],
      ],
    ]);
    const parts = source.parts().filter(({ spot }) => spot.startsWith("p"));
    const body = parts.length > 0 ? compose([source.at(`p1..p${parts.length}`)], { tidy: [] }) : undefined;
    const plain = (text: string) =>
      text
        .replace(/^[>\s]+/gm, "")
        .replace(/\n+/g, "\n")
        .trim();
    if (said.text !== null && name !== "related")
      expect([name, plain(body!.text)]).toEqual([name, plain(said.text)]);
    if (name.startsWith("crossed")) expect([name, body!.text.trim()]).toEqual([name, said.subject]);
    const told = (source.at().notices ?? []).map(({ message }) => message);
    expect(told).toEqual(
      said.attachments.length === 0
        ? []
        : [
            expect.stringContaining(
              `Attached to “${name}.eml”, and not taken with it: ${said.attachments.map((each, at) => `${each} (a${at + 1})`).join(", ")}. `,
            ),
          ],
    );
  }
  const read = async (name: string) =>
    readSource(new Uint8Array(readFileSync(join(folder, `${name}.eml`))), `${name}.eml`);
  expect(compose([(await read("plain")).at("p1..p5")], { tidy: [] }).markdown).toContain(
    "> When?\n>\n> > On Monday.\n>\n> Good.",
  );
  expect(compose([(await read("html")).at("p1..p3")]).markdown).toBe("Only in *HTML*\n\n- one\n- two");
  const related = (await read("related")).at();
  expect(compose([related]).markdown).toContain("The bar **at low water**");
  expect(Buffer.compare([...related.pictures!.values()][0]!, demoFile("sketches/tide.png"))).toBe(0);
});

test("of a hostile mail nothing runs and nothing is fetched; what is none, or built to take all memory, is refused", async () => {
  const hostile = await mail(
    `${HEAD}Content-Type: text/html\n\n<script>alert(1)</script><p onclick="x()">Dear <a href="javascript:x()">Bo</a></p><img src="https://tracker.example/p.png" alt="seen"><img src="cid:nobody" alt="lost">`,
  );
  const html = compose([hostile.at()]).html;
  expect(html).not.toMatch(/script|onclick|src=/);
  expect(hostile.notices.map(({ message }) => message).join()).toContain("only its address");
  await expect(mail("hello\n")).rejects.toThrow("is not a mail: it has no sender, date or subject");

  const nested = Array.from(
    { length: 200 },
    (_, at) => `Content-Type: multipart/mixed; boundary=b${at}\n\n--b${at}\n`,
  ).join("");
  await expect(mail(`${HEAD}${nested}`)).rejects.toMatchObject({ code: "unreadable" });
  await expect(mail(`${HEAD}X: ${"x".repeat(2_000_000)}\n\nbody`)).rejects.toMatchObject({
    code: "unreadable",
  });
  // Quotes in quotes are read as deep as people write them.
  const deep = await mail(`${HEAD}\n${">".repeat(100_000)} deep\n`);
  expect(compose([deep.at()]).text).toContain("deep");

  const whole = readFileSync(join(folder, "related.eml"));
  let state = 20310408;
  const random = (below: number) => (state = (state * 48271) % 0x7fffffff) % below;
  for (let round = 0; round < 150; round++) {
    const bytes = new Uint8Array(round % 3 === 0 ? whole.subarray(0, random(whole.length)) : whole);
    if (round % 3 > 0)
      for (let at = 0; at < 20; at++) bytes[random(Math.min(bytes.length, 4000))] = random(256);
    const outcome = await readSource(bytes, "damaged.eml").then(
      (read) => (read.parts().length > 0 ? "read" : ""),
      (error: { code: string }) => error.code,
    );
    expect(["read", "unreadable", "too-large"]).toContain(outcome);
  }
});

test("what is attached is a source of its own, in mails that are attached too; a file of mails lists them", async () => {
  const read = (name: string) => readSource(new Uint8Array(readFileSync(join(folder, name))), name);
  const shown = (source: Awaited<ReturnType<typeof read>>) =>
    source.parts().map(({ spot, what, text }) => `${spot} ${what}: ${text}`);
  const sheet = await read("sheet.eml");
  expect(shown(sheet).slice(-3)).toEqual([
    "a1 attachment, mail: a mail",
    "a2 attachment, pdf: diary.pdf",
    "a3 attachment, of a kind that is not read: tide.bin",
  ]);
  expect(() => sheet.at("a1")).toThrow("a1 stands in “a mail”");
  await sheet.open("a1!a1!Spring!A1:B2");
  expect(compose([sheet.at("a1!a1!Spring!A1:B2")]).tsv).toBe(
    compose([(await readSource(demoFile("ringing.xlsx"), "ringing.xlsx")).at("Spring!A1:B2")]).tsv,
  );
  expect(sheet.spots("a1!a1!spring!a1:b2")).toEqual(["a1!a1!Spring!A1:B2"]);
  expect(sheet.at("a1!p1").origin).toEqual({ document: "sheet.eml", at: "a1!p1", title: "a mail" });
  await sheet.open("a2");
  expect(compose([sheet.at("a2!p4")]).text.trim()).toBe(
    "Net round 1 began at 06:10 — nine birds in the heath rides.",
  );
  await expect(sheet.open("a3")).rejects.toThrow("tide.bin");
  await expect(sheet.open("a9")).rejects.toThrow("“sheet.eml” has no a9: it has 3 attachments, a1 to a3.");
  const box = await read("spring.mbox");
  expect([shown(box).length, shown(box)[39]]).toEqual([40, "a40 attachment, mail: Round 40"]);
  await box.open("a7");
  expect(compose([box.at("a7!p1..p2")]).text).toBe(
    "Round 7 began at six.\nFrom the hut 2031 one sees the bar.",
  );
  const main = resolve("dist/bin/main.js");
  const run = (...words: string[]) => {
    const env = { ...process.env, DRAWER_HOME: join(folder, "home") };
    const { stdout, stderr } = spawnSync(process.execPath, [main, ...words], {
      cwd: folder,
      encoding: "utf8",
      env,
    });
    return stdout + stderr;
  };
  expect(run("look", "spring.mbox", "--at", "a3")).toMatch(/a3!p1 +paragraph +Round 3 began at six\./);
  expect(run("look", "spring.mbox", "--at", "p3")).toContain(
    "is for what is attached to a mail (a1), and p3 is not",
  );
  expect(run("collect", "spring.mbox", "--at", "a3!p1", "--at", "a40!p1")).toMatch(
    /Collected as 1: “Round 3 began at six\.” \(spring\.mbox, a3!p1\)\./,
  );
  expect(run("check")).toMatch(/same|stand as they did/i);
});
