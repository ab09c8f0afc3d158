import { spawnSync } from "node:child_process";
import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser } from "playwright-core";
import { launch, onPages } from "../support/browser";
import { commandHome } from "../support/command";
import { until } from "../support/desktop";
import { convert, officeTest, shownBy } from "../support/libreoffice";
import { OpenedWindow, type WindowPage } from "../support/window";

/** Files are put into, and taken out of, from the window; LibreOffice says what they hold then. */
onPages("files that are looked into in the window", () => {
  const { drawer, all, snippets, fresh, home } = commandHome();
  let browser: Browser;
  let opened: OpenedWindow;
  let window: WindowPage;
  let folder: string;
  const theirs = process.env["HOME"];
  const at = (name: string) => join(folder, "bulletin", name);
  const textOf = (path: string) => {
    const out = mkdtempSync(join(folder, "text-"));
    copyFileSync(path, join(out, "file.docx"));
    convert(out, "txt:Text (encoded):UTF8", ["file.docx"]);
    return readFileSync(join(out, "file.txt"), "utf8").replace(/^\uFEFF/, "");
  };
  const look = async (...paths: string[]) => {
    await window.in("input[type=file]").setInputFiles(paths);
    await window.in(".parts .changes").first().waitFor();
  };
  const mark = (words: string) => window.in(".parts li").filter({ hasText: words }).locator("input").check();
  const put = (where: string) => window.in(".parts .changes select").selectOption({ label: where });
  const pick = async (...positions: number[]) => {
    for (const position of positions) await window.in(`[data-position="${position}"] .position`).click();
  };

  beforeAll(async () => {
    browser = await launch();
  });
  afterAll(() => browser.close());
  beforeEach(async () => {
    fresh();
    folder = mkdtempSync(join(tmpdir(), "drawer-window-files-"));
    process.env["HOME"] = folder;
    mkdirSync(join(folder, "bulletin"));
    copyFileSync("demo/diary.docx", at("diary.docx"));
    copyFileSync("demo/ringing.xlsx", at("ringing.xlsx"));
    await drawer(
      ["collect", "--type", "html"],
      "<p>First <b>wheatear</b> on the seawall</p><ul><li>Nets</li><li>Poles</li></ul>",
    );
    await drawer(["collect", "--type", "csv"], "Species,Ride\nFirecrest,north\nWren,heath");
    await drawer(["collect"], "Wind NW 4");
    opened = await OpenedWindow.open(home());
    window = await opened.page(browser);
  });
  afterEach(async () => {
    await Promise.all(browser.contexts().map((context) => context.close()));
    await opened.end();
    process.env["HOME"] = theirs;
    rmSync(folder, { recursive: true, force: true });
  });

  test("a PDF is looked into, page by page, and a part of it collected with where it stands", async () => {
    await window.in("input[type=file]").setInputFiles(["demo/diary.pdf"]);
    await window.in(".parts li").first().waitFor();
    await window.in(".parts li.page").filter({ hasText: "Page 1" }).waitFor();
    await mark("Net round 1 began");
    if (process.env["SHOT"]) await window.page.screenshot({ path: process.env["SHOT"] });
    await window
      .in(".panel, .parts")
      .getByRole("button", { name: /Collect|Take/ })
      .first()
      .click();
    await until(snippets, (all) => all.length === 4);
    expect((await snippets())[3]).toMatchObject({
      text: "Net round 1 began at 06:10 — nine birds in the heath rides.",
      origin: { document: "diary.pdf", at: "p4" },
    });
  });

  officeTest(
    "a rich block goes after a part, parts are taken out, and undo puts the file back, byte for byte",
    async () => {
      const path = at("diary.docx");
      const before = readFileSync(path);
      const was = textOf(path);
      await look(path);
      await window.in(".changes").getByText(`Changes ${path}`).waitFor();
      await pick(1, 2);
      await mark("Net round 1 began");
      await put("after it");
      await window.told(/^Put 2 snippets after p4 in “diary\.docx”/);
      const line = was.split("\n").find((each) => each.startsWith("Net round 1"))!;
      const block =
        "First wheatear on the seawall\n• Nets\n• Poles\nSpecies\nRide\nFirecrest\nnorth\nWren\nheath\n";
      expect(
        textOf(path)
          .replace(/ *[•-] /g, "• ")
          .replace(/\n+/g, "\n"),
      ).toContain(`${line}\n${block}`);
      // What was put there is to be seen, and more can be done at once.
      await window.in(".parts li").filter({ hasText: "First wheatear on the seawall" }).nth(1).waitFor();
      const between = readFileSync(path);
      await mark("Tuesday 8 April");
      await mark("Boardwalk plank 31");
      await window.button("Take the 2 out of the file").click();
      await window.told(/Taken out of “diary\.docx”/);
      expect(textOf(path)).not.toMatch(/Tuesday 8 April|Boardwalk plank/);
      expect((await snippets()).slice(3).map(({ text }) => text.split(".")[0])).toEqual([
        "Tuesday 8 April",
        "Boardwalk plank 31 is loose",
      ]);
      await window.button("Undo").click();
      await window.told(/“diary\.docx” is as it was before/);
      expect(readFileSync(path).equals(between)).toBe(true);
      await window.holds(3);
      await window.in(".parts li").filter({ hasText: "Boardwalk plank 31" }).waitFor();
      await window.button("Undo").click();
      await until(
        () => Promise.resolve(readFileSync(path).equals(before)),
        (isBack) => isBack,
      );
      expect(window.complaints.filter((said) => !said.includes("style"))).toEqual([]);
    },
  );

  officeTest(
    "rows go below a sheet under the columns of their names, and over cells only when one says so",
    async () => {
      const path = at("ringing.xlsx");
      const was = shownBy(join(folder, "bulletin"), "ringing.xlsx");
      await look(path);
      await pick(2);
      await window.in("drawer-cell-grid td[data-row]").first().click();
      await window.button("Mark this range").click();
      await window.in(".parts ol .says").waitFor();
      await put("into these cells, which are empty");
      await window.told(/holds something/);
      await put("as rows at the end of the sheet");
      await window.told(
        /2 rows were matched to the columns of “Spring” by their names.*Put 1 snippet|Put 1 snippet.*2 rows were matched/,
      );
      const shown = shownBy(join(folder, "bulletin"), "ringing.xlsx");
      const rows = shown.filter((row) => /Firecrest|Wren/.test(row.join(" ")));
      const [ride, species] = ["Ride", "Species"].map((name) => was[0]!.indexOf(name));
      expect(rows.map((row) => [row[species!], row[ride!]])).toEqual([
        ["Firecrest", "north"],
        ["Wren", "heath"],
      ]);
      expect(shown.filter((row) => !rows.includes(row) && row.join("") !== "")).toEqual(
        was.filter((row) => row.join("") !== ""),
      );
    },
  );

  test("a file whose place is not known stays as it is: one gets a changed copy", async () => {
    // There are two of them, so it is neither.
    copyFileSync(at("diary.docx"), join(folder, "diary.docx"));
    const before = readFileSync(at("diary.docx"));
    await look(at("diary.docx"));
    await window.in(".changes").getByText("It is not known where this file is").waitFor();
    await pick(3);
    await mark("Net round 1 began");
    const copied = window.page.waitForEvent("download");
    await put("before it");
    const [copy, again] = [join(folder, "copy.docx"), join(folder, "again.docx")];
    await (await copied).saveAs(copy);
    await window.told(/You get “diary\.docx” as a changed copy/);
    expect(spawnSync("pandoc", [copy, "-t", "plain"], { encoding: "utf8" }).stdout).toMatch(
      /Wind NW 4\n+Net round 1/,
    );
    await mark("Weigh");
    const taken = window.page.waitForEvent("download");
    await window.button("Take it out of the file").click();
    await (await taken).saveAs(again);
    expect(spawnSync("pandoc", [again, "-t", "plain"], { encoding: "utf8" }).stdout).not.toContain("Weigh");
    expect((await snippets()).at(-1)).toMatchObject({
      text: "2. Weigh",
      origin: { document: "diary.docx", at: "p10" },
    });
    expect(readFileSync(at("diary.docx")).equals(before)).toBe(true);
  });

  test("what was changed in its file is marked, and is taken anew; what is gone is told; its file is looked into again", async () => {
    const path = join(folder, "notes.md");
    writeFileSync(path, "Seawall path closed\n\nTide low at 03:10\n\nVisitors: 14\n");
    await all(`collect ${path} --at p1 --at p2 --at p3`);
    const front = () => window.page.evaluate(() => void dispatchEvent(new Event("focus")));
    const standings = () => window.in(".standing").allInnerTexts();
    await window.holds(6);
    await front();
    writeFileSync(path, "Seawall path closed until the boards are mended\n\nTide low at 03:10\n");
    await front();
    await until(standings, (said) => said.join() === "changed in its file,not in its file any more");
    await window.in('[data-position="4"]').hover();
    await window.in('[data-position="4"]').getByRole("button", { name: "Show" }).click();
    await window.button("Take it anew").click();
    await until(standings, (said) => said.join() === "not in its file any more");
    expect((await snippets())[3]).toMatchObject({ text: "Seawall path closed until the boards are mended" });
    await window.in('[data-position="5"]').hover();
    await window.in('[data-position="5"]').getByRole("button", { name: "Show" }).click();
    await window.button("Look into its file").click();
    await window.in(".changes").getByText(path).waitFor();
    await mark("Tide low");
    await window.button("Take it out of the file").click();
    await window.told(/Taken out of “notes\.md”/);
    expect(readFileSync(path, "utf8")).toBe("Seawall path closed until the boards are mended\n");
  });

  test("a file that a program has open, or that was changed meanwhile, is refused; one that was never looked into is not touched", async () => {
    const path = at("diary.docx");
    await look(path);
    await mark("Net round 1 began");
    writeFileSync(at(".~lock.diary.docx#"), "");
    // After each act it is looked whether the file is another by then: what is marked would be of the one before.
    const isLookedAt = window.page.waitForResponse(/\/files\/reread$/);
    await window.button("Take it out of the file").click();
    await window.told(/was not changed: a program has it open/);
    await isLookedAt;
    rmSync(at(".~lock.diary.docx#"));
    writeFileSync(path, readFileSync("demo/diary.odt"));
    await window.button("Take it out of the file").click();
    await window.told(/was not changed: somebody has changed it meanwhile/);
    await window.holds(3);
    const answered = await window.page.evaluate(
      async (asked) => {
        const { files } = document.querySelector("snippet-drawer")!.binding!.options.desktop!;
        return files!.lift(asked, ["p1"], "main").then(String, (error: { code: string }) => error.code);
      },
      { path: at("ringing.xlsx"), hash: "0" },
    );
    expect(answered).toBe("no-file");
  });
});
