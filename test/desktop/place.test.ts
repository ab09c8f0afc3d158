import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { commandHome } from "../support/command";
import { copyWithXclip, display, onDesktop, takenByXclip } from "../support/desktop";
import { convert } from "../support/libreoffice";
import { readHtml, type Table } from "drawer";
import { openDesktop, type Offered } from "drawer/desktop";
import { readSource } from "drawer/files";

onDesktop("placing on the clipboard", () => {
  display();
  const { drawer, all, fresh, folder } = commandHome();

  /** How many programs hold a block on this display; other tests have displays of their own. */
  const holders = () => {
    const here = `DISPLAY=${process.env["DISPLAY"]}`;
    const isOne = (pid: string) =>
      factsOf(pid, "cmdline").includes("dist/bin/holder.js") &&
      factsOf(pid, "environ").split("\0").includes(here);
    return readdirSync("/proc").filter((name) => /^\d+$/.test(name) && isOne(name)).length;
  };

  test("a block is offered in every form that helps, the one that keeps most first", async () => {
    fresh();
    await all("collect demo/ringing.xlsx --at Spring!A1:D2");
    expect(await all("place 1 --to clipboard")).toMatch(/^Placed one snippet on the clipboard\./);
    const targets = takenByXclip("TARGETS").toString().split("\n");
    expect(targets.slice(3, 8)).toEqual([
      "text/html",
      'application/x-openoffice-biff-8;windows_formatname="Biff8"',
      "text/tab-separated-values",
      "application/rtf",
      "text/plain",
    ]);
    expect(targets).toEqual(expect.arrayContaining(["UTF8_STRING", "STRING", "TIMESTAMP", "MULTIPLE"]));
    expect(`${takenByXclip("UTF8_STRING").toString()}\n`).toBe(await all("place 1"));
    const taken = await readHtml(takenByXclip("text/html").toString());
    expect(taken.content).toEqual((await readHtml(await all("place 1 --out html"))).content);
    expect(takenByXclip("text/tab-separated-values").toString()).toBe(await all("place 1 --out tsv"));
    // A sheet gets figures as figures, and a date as a date.
    writeFileSync(join(folder, "pasted.html"), takenByXclip("text/html"));
    convert(folder, "ods", ["pasted.html"], "HTML (StarCalc)");
    const { content } = (
      await readSource(new Uint8Array(readFileSync(join(folder, "pasted.ods"))), "pasted.ods")
    ).at();
    const [, row] = (content[0] as Table).rows;
    expect(row!.map(({ value }) => value?.type)).toEqual(["date", undefined, undefined, "number"]);
  });

  test("links are offered as links, a lone picture as a picture, and what is private as a secret", async () => {
    fresh();
    await drawer(["collect", "--type", "html"], '<a href="https://merrow-spit.example/a">tides</a>');
    await all("place 1 --to clipboard");
    expect(takenByXclip("text/html").toString()).toContain(
      '<a href="https://merrow-spit.example/a">tides</a>',
    );
    expect(takenByXclip("UTF8_STRING").toString()).toBe("tides (https://merrow-spit.example/a)");
    await all("collect demo/sketches/tide.png", "place 2 --to clipboard");
    expect(takenByXclip("image/png").equals(readFileSync("demo/sketches/tide.png"))).toBe(true);
    expect(takenByXclip("TARGETS").toString()).not.toContain("passwordManagerHint");
    await drawer(["collect", "--private"], "terns at low water");
    await all("place 3 --to clipboard");
    expect(takenByXclip("x-kde-passwordManagerHint").toString()).toBe("secret");
    const refused = await drawer(["place", "1", "--to", "clipboard", "--out", "html"]);
    expect([refused.code, refused.err]).toEqual([2, expect.stringContaining("goes without --out")]);
  });

  test("never more than one holds it, and none when another program copies", async () => {
    fresh();
    copyWithXclip("UTF8_STRING", { text: "one" });
    await all("collect --clipboard", "place 1 --to clipboard", "place 1 --as bullets --to clipboard");
    await new Promise((next) => setTimeout(next, 500));
    expect([holders(), takenByXclip("UTF8_STRING").toString()]).toEqual([1, "- one"]);
    copyWithXclip("UTF8_STRING", { text: "other" });
    await new Promise((next) => setTimeout(next, 500));
    expect(holders()).toBe(0);
  });

  test("what is large goes in and out in parts, to the last byte", async () => {
    const bytes = randomBytes(20 * 1024 * 1024);
    const path = join(folder, "large");
    writeFileSync(path, bytes);
    copyWithXclip("image/png", { file: path });
    const desktop = await openDesktop();
    try {
      expect(Buffer.from((await desktop.read()).picture!).equals(bytes)).toBe(true);
      const offered: Offered = new Map([["application/x-large", new Uint8Array(bytes)]]);
      const { ended } = await desktop.offer(offered);
      const taken = await new Promise<Buffer>((done) => {
        // Another process asks while this one answers.
        const child = spawn("xclip", ["-selection", "clipboard", "-o", "-t", "application/x-large"], {
          env: { ...process.env },
        });
        const chunks: Buffer[] = [];
        child.stdout.on("data", (chunk: Buffer) => chunks.push(chunk));
        child.on("close", () => done(Buffer.concat(chunks)));
      });
      expect([taken.length, taken.equals(bytes)]).toEqual([bytes.length, true]);
      copyWithXclip("UTF8_STRING", { text: "end" });
      await ended;
    } finally {
      desktop.close();
    }
  });
});

/** What the system says of a process; nothing when it has ended. */
function factsOf(pid: string, what: "cmdline" | "environ"): string {
  try {
    return readFileSync(`/proc/${pid}/${what}`, "utf8");
  } catch {
    return "";
  }
}
