import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { copyFileSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { chromium, type Browser, type Page } from "playwright-core";
import { CHROMIUM_FLAGS, findChromium } from "../../scripts/chromium.mjs";
import { commandHome } from "../support/command";
import {
  copyWithXclip,
  display,
  press,
  takenByXclip,
  toFront,
  until,
  windowInFront,
  withWindows,
} from "../support/desktop";
import { FORMAT, OfficeWindows, type Cell } from "../support/office-window";
import { OpenedWindow, WindowPage } from "../support/window";

/** A form whose fields show what they were given, in a window of its own. */
const FORM =
  "<title>Record</title><label>Ring <input id=a></label><label>Species <input id=b></label><label>Age <input id=c></label><label>Note <textarea id=d></textarea></label>";

withWindows("clicks in the window put pieces at the caret that one came from", () => {
  display("windows");
  const { all, drawer, folder, home } = commandHome();
  let office: OfficeWindows;
  let browser: Browser;
  let opened: OpenedWindow;
  let window: WindowPage;
  let form: Page;
  let terminal: ChildProcess;

  const headed = () =>
    chromium.launch({
      executablePath: findChromium()!,
      headless: false,
      args: [...CHROMIUM_FLAGS, "--window-size=900,740"],
      env: { ...process.env } as Record<string, string>,
    });
  /** Goes somewhere, and comes back to the window, which names where one was. */
  const comeFrom = async (title: string, name: RegExp) => {
    await toFront(title);
    await toFront("Drawer ·");
    await until(
      () => window.in(".lands").innerText(),
      (text) => name.test(text),
    );
  };
  const row = (position: number) => window.in(`.list .row[data-position="${position}"] .snippet`);
  const then = (what: "there" | "here") => window.in(".lands select").selectOption(what);
  const pick = (which: string) =>
    window.page.evaluate((words) => document.querySelector("snippet-drawer")!.pick(words), which);
  const clipboard = (text: string) =>
    until(
      () => takenByXclip("UTF8_STRING").toString(),
      (now) => now === text,
    );

  beforeAll(async () => {
    await drawer(["collect", "--type", "markdown"], "The **first** wheatear came.");
    await drawer(["collect", "--type", "markdown"], "- reeds\n- gorse");
    await all("collect demo/ringing.xlsx --at Spring!A1:C3");
    writeFileSync(join(folder, "ring.txt"), "AB12345\nWillow warbler\nadult\n");
    await all(`collect ${join(folder, "ring.txt")} --at p1 --at p2 --at p3`);
    await drawer(["collect"], "a secret of mine");
    await all("hide last");
    office = await OfficeWindows.open(folder);
    // LibreOffice puts a lock beside a document that it opens.
    copyFileSync("demo/diary.odt", join(folder, "diary.odt"));
    await office.do("open_file", "writer", pathToFileURL(join(folder, "diary.odt")).href);
    await office.do("new", "calc");
    browser = await headed();
    form = await browser.newPage();
    await form.setContent(FORM);
    // The keyboard is the page's, not the address bar's.
    await toFront("Record");
    spawnSync("xdotool", ["mousemove", "600", "600", "click", "1"], { env: { ...process.env } });
    terminal = spawn("xterm", ["-title", "shell", "-e", "cat"], { env: { ...process.env } });
    opened = await OpenedWindow.open(home());
    window = await opened.page(browser, { viewport: null });
  }, 120_000);
  // What one test does to it, another must not meet.
  beforeEach(() => form.setContent(FORM));
  afterAll(async () => {
    terminal.kill();
    await browser.close();
    await opened.end();
    office.close();
  });

  test("what is copied in Writer stands in the window with where it is from; a range of a sheet lands in Calc as values", async () => {
    await office.do("select_table", 0);
    await toFront("Writer");
    press("ctrl+c");
    await window.told(/^Collected as 8: “Species \| New \| Retrap.*diary/);
    await window.in(".list .grid").last().waitFor();
    await window.in("input[type=file]").setInputFiles(resolve("demo/ringing.xlsx"));
    await window.in("drawer-cell-grid td[tabindex='0']").waitFor();
    await window.in("drawer-cell-grid td:focus").waitFor();
    for (const key of ["ArrowDown", "Shift+End", "Shift+ArrowDown", "Enter"])
      await window.page.keyboard.press(key);
    await window.button("Collect one snippet").click();
    await window.told(/^Collected as 9: .*ringing\.xlsx, Spring!A2:G3/);
    await office.do("select_cells", "K2");
    await comeFrom("Calc", /Into “Untitled 1”/);
    await row(9).click();
    await window.told(/^Placed snippet 9 in “Untitled 1”/);
    const [[date, ride, , count], [, , species]] = await office.do<[Cell[], Cell[]]>("read_cells", "K2:N3");
    expect([date!.kind, date!.format & FORMAT.date, date!.shown]).toEqual([
      "value",
      FORMAT.date,
      "2031-04-08",
    ]);
    expect([ride!.shown, count!.kind, count!.value, species!.shown]).toEqual([
      ...["North", "value", 14, "Willow warbler"],
    ]);
  });

  test("in mid-sentence of Writer; what was copied before is on the clipboard again, and Undo takes it back there", async () => {
    await office.do("type_paragraphs", ["On Tuesday at the spit."]);
    await office.do("put_caret", 0, "On Tuesday".length);
    copyWithXclip("UTF8_STRING", { text: "what I copied before" });
    await window.told(/Collected as/);
    await comeFrom("Writer", /Into “diary.odt”/);
    expect(await row(1).getAttribute("title")).toBe("Place snippet 1 in “diary.odt”");
    await row(1).click();
    await window.told(/^Placed snippet 1 in “diary.odt”/);
    expect(windowInFront()).toContain("Writer");
    const line = () => office.do<string>("read_writer");
    expect(await line()).toBe("On TuesdayThe **first** wheatear came. at the spit.");
    await clipboard("what I copied before");
    // What was put back is no new copy.
    await window.holds(10);
    await toFront("Drawer ·");
    await window.button("Undo").click();
    await window.told(/^Undone: placing snippet 1/);
    expect(await line()).toBe("On Tuesday at the spit.");
  });

  test("one after another while the focus stays in the list; what was typed there since is not undone", async () => {
    await office.do("type_paragraphs", ["Seen: "]);
    await office.do("put_caret", 0, "Seen: ".length);
    await comeFrom("Writer", /Into “diary.odt”/);
    await then("here");
    for (const position of [5, 6]) {
      await row(position).focus();
      await window.page.keyboard.press("Enter");
      await window.told(new RegExp(`^Placed snippet ${position} `));
      expect(windowInFront()).toContain("Drawer ·");
    }
    const line = () => office.do<string>("read_writer");
    expect(await line()).toBe("Seen: Willow warbleradult");
    await window.button("Undo").click();
    await window.told(/^Undone: placing snippet 6/);
    expect(await line()).toBe("Seen: Willow warbler");
    await toFront("Writer");
    press("x");
    await toFront("Drawer ·");
    await window.button("Undo").click();
    await window.told(/^It stays: something else was done in “diary.odt” since.*Ctrl\+Z/);
    expect(await line()).toContain("Willow warbler");
    await then("there");
  });

  test("a key of one's own, set in the window, brings it to the front, ready to find; what is placed lands where one was", async () => {
    await window.openPanel("This computer");
    const panel = window.in(".panel.computer");
    await panel.locator("[name=key]").press("x");
    await window.button("Set it").click();
    await window.told(/^People type with “x”/);
    await panel.locator("[name=key]").press("Meta+F9");
    await window.button("Set it").click();
    await window.told(/^Super\+F9: open\./);
    const start = panel.getByLabel("Drawer stands in the system’s menu");
    await start.check();
    await window.told(/^The window is in the system's menu/);
    const [entry] = readdirSync(join(home(), "applications"));
    expect(readFileSync(join(home(), "applications", entry!), "utf8")).toMatch(/^Exec=.*main\.js" "open"$/m);
    // It may be drawn as it was once more, until what is there has been read.
    await start.click();
    await window.told(/^Taken out of the system's menu/);
    await until(start.isChecked.bind(start), (is) => !is);
    expect(readdirSync(join(home(), "applications"))).toEqual([]);
    await window.page.keyboard.press("Escape");
    await office.do("type_paragraphs", ["Species: "]);
    await office.do("put_caret", 0, "Species: ".length);
    await toFront("Writer");
    // The key is taken a moment after it was set.
    await until(
      () => (press("super+F9"), windowInFront()),
      (title) => title.includes("Drawer ·"),
    );
    await window.in(".ways input[type=search]:focus").waitFor();
    await window.page.keyboard.type("Will");
    await window.in(".found").getByText("hold “Will”").waitFor();
    await row(5).focus();
    await window.page.keyboard.press("Enter");
    await window.told(/^Placed snippet 5 in “diary.odt”/);
    expect(await office.do<string>("read_writer")).toBe("Species: Willow warbler");
    await window.in(".ways input[type=search]").fill("");
    const again = await drawer(["open"]);
    expect(again.out).toBe("The window was open already, and is in front now.\n");
    await until(windowInFront, (title) => title.includes("Drawer ·"));
  });

  test("a table in the cells of Calc, typed; several down its cells and into the fields of a form, each by itself", async () => {
    await office.do("select_cells", "B2");
    await comeFrom("Calc", /Into “Untitled 1”/);
    await row(3).click();
    await window.told(/^Placed snippet 3 in “Untitled 1”/);
    const cells = async (range: string) =>
      (await office.do<Cell[][]>("read_cells", range)).map((cells) => cells.map(({ shown }) => shown));
    expect((await cells("B2:D3"))[1]).toEqual(["2031-04-08", "North", "Chiffchaff"]);

    await pick("4..6");
    await office.do("select_cells", "F2");
    await comeFrom("Calc", /Into “Untitled 1”/);
    await window.in(".each").selectOption("Down");
    await window.told(/^Placed 3 snippets in “Untitled 1”/);
    expect(await cells("F2:F4")).toEqual([["AB12345"], ["Willow warbler"], ["adult"]]);
    await window.button("Undo").click();
    await window.told(/^They stay: each went into “Untitled 1” by itself\. Go there, and press Ctrl\+Z/);

    await form.focus("#a");
    await comeFrom("Record", /Into “Record”/);
    await window.in(".each").selectOption("Tab");
    await window.told(/^Placed 3 snippets in “Record”/);
    // On a busy machine the browser shows the last of them a moment after it has taken it.
    await until(
      () => form.locator("input").evaluateAll((all) => all.map((field) => (field as HTMLInputElement).value)),
      (fields) => fields.join() === "AB12345,Willow warbler,adult",
    );
  });

  test("a key that is pressed meanwhile stops it, and how far it came is told", async () => {
    await pick("1..6");
    await form.focus("#d");
    await comeFrom("Record", /Into “Record”/);
    await window.in(".each").selectOption("Enter");
    await until(
      () => form.locator("#d").inputValue(),
      (text) => text !== "",
    );
    press("Left");
    await window.told(/^Stopped, as you pressed a key or clicked: [1-5] of 6 stand in “Record”/);
    await clipboard("what I copied before");
  });

  test("into a terminal, and of what is private, only when it is asked for again; a window that is gone is told", async () => {
    await comeFrom("shell", /Into “shell”/);
    await row(5).click();
    await window.told(/is a terminal, and would run each line of snippet 5\. Do the same again/);
    await row(5).click();
    await window.told(/^Placed snippet 5 in “shell”/);
    await form.locator("#d").fill("");
    await form.focus("#d");
    await comeFrom("Record", /Into “Record”/);
    await row(7).click();
    await window.told(/^This is private: snippet 7/);
    expect(await form.locator("#d").inputValue()).toBe("");
    await row(7).click();
    await window.told(/^Placed snippet 7/);
    expect(await form.locator("#d").inputValue()).toBe("a secret of mine");
    await comeFrom("shell", /Into “shell”/);
    terminal.kill();
    await row(5).click();
    await row(5).click();
    await window.told(/^Nothing was placed: “shell” is closed/);
    await until(
      () => window.in(".lands").innerText(),
      (text) => text.includes("Record"),
    );
    // The browser tells of each refusal.
    expect(window.complaints.filter((said) => !said.includes("422"))).toEqual([]);
  });
});
