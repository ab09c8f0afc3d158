import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { copyFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { commandHome } from "../support/command";
import {
  display,
  inBackground,
  notified,
  press,
  takenByXclip,
  toFront,
  until,
  withWindows,
} from "../support/desktop";
import { FORMAT, OfficeWindows, type Cell, type Part } from "../support/office-window";
import { openDesktop } from "drawer/desktop";

withWindows("Writer and Calc in windows", () => {
  display("windows");
  const { drawer, all, snippets, folder, home } = commandHome();
  let office: OfficeWindows | undefined;
  let watching: ChildProcess | undefined;
  let said = "";
  beforeAll(async () => {
    // LibreOffice puts a lock beside a document that it opens.
    copyFileSync("demo/diary.odt", join(folder, "diary.odt"));
    office = await OfficeWindows.open(folder);
    await office!.do("open_file", "writer", pathToFileURL(join(folder, "diary.odt")).href);
    await office!.do("new", "calc");
    for (const key of [
      "Super+F9=place last",
      "Super+F10=next",
      "Super+F8=collect",
      "Super+F7=send",
      "Super+F6=append",
    ])
      expect((await drawer(["keys", key])).code).toBe(0);
    watching = spawn(process.execPath, [resolve("dist/bin/main.js"), "watch"], {
      env: { ...process.env, DRAWER_HOME: home() },
    });
    watching.stdout!.setEncoding("utf8").on("data", (text: string) => (said += text));
    watching.stderr!.setEncoding("utf8").on("data", (text: string) => (said += text));
    await told(/Keys that work in every program: .*Super\+F9/);
  }, 120_000);
  afterAll(() => {
    watching?.kill();
    office?.close();
  });

  const told = (what: RegExp) =>
    until(
      () => said,
      (text) => what.test(text),
    );
  const begin = () => void (said = "");
  const cells = (area: string) => office!.do<Cell[][]>("read_cells", area);
  const pasteInCalc = (cell: string) => office!.pasteInCalc(cell);

  test("what is copied in Writer and Calc is collected, and a blank cell is skipped", async () => {
    await office!.do("put_cells", [
      ["Date", "Count"],
      ["2031-04-08", "14"],
      ["2031-04-09", "25%"],
    ]);
    await office!.do("select_paragraphs", 1, 2);
    await toFront("Writer");
    press("ctrl+c");
    await told(/Collected as 1: .*Writer/);
    begin();
    await office!.do("select_cells", "A1:B3");
    await toFront("Calc");
    press("ctrl+c");
    await told(/Collected as 2: “Date \| Count/);
    begin();
    await office!.do("select_cells", "D9");
    press("ctrl+c");
    await told(/blank/);
    begin();
    await office!.do("select_table", 0);
    await toFront("Writer");
    press("ctrl+c");
    await told(/Collected as 3: “Species \| New \| Retrap/);
    begin();
    await office!.do("put_picture", pathToFileURL(resolve("demo/sketches/tide.png")).href);
    await toFront("Writer");
    press("ctrl+c");
    await told(/Collected as 4: /);
    const list = await snippets();
    expect(list.map(({ kind }) => kind)).toEqual(["text", "table", "table", "picture"]);
    expect(list[1]!.origin.title).toMatch(/Calc/);
  });

  test("dates and percentages are values again in Calc; what shall be in one cell is one cell", async () => {
    await all("place 2 --to clipboard");
    await pasteInCalc("F1");
    const [, first, second] = await cells("F1:G3");
    expect([first![0]!.kind, first![0]!.format & FORMAT.date, first![0]!.shown]).toEqual([
      ...["value", FORMAT.date, "2031-04-08"],
    ]);
    expect([second![1]!.kind, second![1]!.value, second![1]!.format & FORMAT.percent]).toEqual([
      ...["value", 0.25, FORMAT.percent],
    ]);
    await all("place 1 2 --as lines --fit cell --to clipboard");
    await pasteInCalc("A20");
    const [[one], [below]] = (await cells("A20:A21")) as [[Cell], [Cell]];
    expect(one.shown.split("\n").length).toBeGreaterThan(3);
    expect(below.kind).toBe("empty");
  });

  test("a list lands in Writer as a list, at the caret, by a key; and the clipboard is as before", async () => {
    await drawer(["keys", "Super+F9=place 2 1 --as bullets"]);
    begin();
    await told(/Keys that work/);
    await office!.do("new", "writer");
    await toFront("Untitled.*Writer");
    const before = takenByXclip("UTF8_STRING").toString();
    press("super+F9");
    await told(/Pasted 2 snippets into “Untitled/);
    const parts = (await office!.do<Part[]>("read_paragraphs")).filter(({ text }) => text !== "");
    expect(parts.filter(({ list }) => list).length).toBeGreaterThanOrEqual(2);
    await until(
      () => takenByXclip("UTF8_STRING").toString(),
      (text) => text === before,
    );
  });

  test("words and a link join the sentence in which they are pasted in Writer", async () => {
    await office!.do("type_paragraphs", ["Seen near the hut."]);
    await drawer(["collect", "--type", "html"], "<p>two <b>terns</b> and</p>");
    await drawer(["collect", "--type", "html"], '<a href="https://merrow-spit.example/hut">the old</a>');
    const paste = async (pick: string, paragraph: number, offset: number) => {
      await all(`place ${pick} --to clipboard`);
      await office!.do("put_caret", paragraph, offset);
      await toFront("Untitled.*Writer");
      press("ctrl+v");
    };
    const texts = async () => (await office!.do<Part[]>("read_paragraphs")).map(({ text }) => text);
    const become = (wanted: string[]) =>
      until(texts, (now) => JSON.stringify(now) === JSON.stringify(wanted));
    await paste("last-1", 0, "Seen ".length);
    await become(["Seen two terns andnear the hut."]);
    await paste("last", 0, "Seen two terns and".length);
    await become(["Seen two terns andthe oldnear the hut."]);
  });

  test("a deal on the clipboard fills A40 to A42, one to each paste, and ends with a notification", async () => {
    for (const bird of ["wren", "tern", "knot"]) await drawer(["collect"], bird);
    await all("deal last-2..last --to clipboard");
    for (const row of [40, 41, 42]) await pasteInCalc(`A${row}`);
    expect((await cells("A40:A42")).map(([cell]) => cell!.shown)).toEqual(["wren", "tern", "knot"]);
    await until(inBackground, (names) => !names.includes("dealer"));
    await until(notified, (shown) => shown.includes("All have been handed out."));
  });

  test("send takes the selection to where the last block went, and puts the clipboard back", async () => {
    // The last block went into Calc.
    await office!.do("select_cells", "C50");
    await toFront("Untitled.*Writer");
    await office!.do("type_paragraphs", ["Sandwich tern"]);
    await office!.do("select_paragraphs", 0, 0);
    begin();
    press("super+F7");
    await told(/Collected as .*“Sandwich tern”/);
    await told(/Pasted one snippet into “.*Calc/);
    await until(
      async () => (await cells("C50"))[0]![0]!.shown,
      (shown) => shown === "Sandwich tern",
    );
  });

  test("a window is the same one when its program names itself only after it has come; another process's is another", async () => {
    const desktop = await openDesktop("x11");
    const windows = desktop.windows!;
    await toFront("Calc");
    const seen = (await windows.front())!;
    expect(seen).toMatchObject({ app: "libreoffice-calc", process: expect.any(Number) as number });
    const rename = ["set_window", "--class", "Another", String(seen.id)];
    expect(spawnSync("xdotool", rename, { env: { ...process.env } }).status).toBe(0);
    await until(
      () => windows.describe(seen),
      (now) => now?.app === "Another",
    );
    expect(await windows.describe({ ...seen, process: seen.process! + 1 })).toBeUndefined();
    expect(await windows.describe({ ...seen, id: seen.id + 1 })).toBeUndefined();
    desktop.close();
  });
});
