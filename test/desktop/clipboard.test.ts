import { spawnSync } from "node:child_process";
import { commandHome } from "../support/command";
import { copyWithXclip, display, onDesktop, otherProgram, takenByXclip } from "../support/desktop";

onDesktop("the clipboard of a desktop", () => {
  display();
  const { drawer, all, fresh } = commandHome();

  test("collects what was copied, in the flavour that keeps most", async () => {
    expect(await drawer(["collect", "--clipboard"])).toMatchObject({
      code: 1,
      err: "drawer: The clipboard is empty. Copy something first.\n",
    });
    copyWithXclip("text/html", { file: "demo/clipboard/web-sentence/clip.html" });
    expect(await all("collect --clipboard")).toMatch(/^Collected as 1: “High water 11:48/);
    copyWithXclip("UTF8_STRING", { file: "demo/clipboard/web-sentence/clip.txt" });
    await all("collect --clipboard");
    expect(await all("place 1 --out markdown")).toContain("**11:48**");
    expect(await all("place 2 --out markdown")).not.toContain("**");
    copyWithXclip("text/html", { file: "demo/clipboard/cells-one-blank/clip.html" });
    expect(await all("collect --clipboard")).toBe("Nothing collected: the clipboard is blank.\n");
  });

  test("what a program declares to be a secret is private", async () => {
    fresh();
    const keeper = await otherProgram(
      "offer",
      "UTF8_STRING=terns at low water",
      "x-kde-passwordManagerHint=secret",
    );
    expect(await all("collect --clipboard")).toMatch(/^Collected as 1, private: it is shown nowhere/);
    keeper.kill();
    expect(await all("list")).not.toContain("terns");
  });

  test("xsel, and a table of five megabytes in HTML, on both ways", async () => {
    fresh();
    const xsel = (words: readonly string[], input = "") =>
      spawnSync("xsel", ["--clipboard", ...words], { input, encoding: "utf8", env: { ...process.env } })
        .stdout;
    xsel(["--input"], "Terns – 3 °C");
    expect(await all("collect --clipboard")).toMatch(/^Collected as 1: “Terns – 3 °C”/);
    await all("place 1 --as bullets --to clipboard");
    expect(xsel(["--output"])).toBe("- Terns – 3 °C");
    const rows = Array.from(
      { length: 60_000 },
      (_, at) => `<tr><td>ring ${at}</td><td>Merrow Spit, north ride</td><td>${at % 90}</td></tr>`,
    );
    copyWithXclip("text/html", { text: `<table>${rows.join("")}</table>` });
    expect(await all("collect --clipboard")).toMatch(/^Collected as 2/);
    await all("place 2 --to clipboard");
    const html = takenByXclip("text/html").toString();
    expect([html.length > 5_000_000, html.match(/<tr>/g)?.length, html.includes("ring 59999")]).toEqual([
      ...[true, 60_000, true],
    ]);
    expect(takenByXclip("text/tab-separated-values").toString().trimEnd().split("\n")).toHaveLength(60_000);
  });

  test("without a desktop it says so", async () => {
    const before = process.env["DISPLAY"];
    delete process.env["DISPLAY"];
    const { code, err } = await drawer(["collect", "--clipboard"]);
    process.env["DISPLAY"] = before;
    expect([code, err]).toEqual([1, expect.stringContaining("There is no desktop here")]);
  });
});
