import { copyFileSync } from "node:fs";
import { resolve, join } from "node:path";
import { pathToFileURL } from "node:url";
import type { Browser } from "playwright-core";
import { launch } from "../support/browser";
import { commandHome } from "../support/command";
import { display, press, toFront, withWindows } from "../support/desktop";
import { FORMAT, OfficeWindows, type Cell } from "../support/office-window";
import { OpenedWindow, type WindowPage } from "../support/window";

withWindows("the window beside Writer and Calc", () => {
  display("windows");
  const { folder, home } = commandHome();
  let browser: Browser;
  let office: OfficeWindows;
  let opened: OpenedWindow;
  let window: WindowPage;
  beforeAll(async () => {
    // LibreOffice puts a lock beside a document that it opens.
    copyFileSync("demo/diary.odt", join(folder, "diary.odt"));
    office = await OfficeWindows.open(folder);
    await office.do("open_file", "writer", pathToFileURL(join(folder, "diary.odt")).href);
    await office.do("new", "calc");
    browser = await launch();
    opened = await OpenedWindow.open(home());
    window = await opened.page(browser);
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await opened.end();
    office.close();
  });

  test("what is copied in Writer stands in the window with where it is from; a range of a sheet lands in Calc as values", async () => {
    await office.do("select_table", 0);
    await toFront("Writer");
    press("ctrl+c");
    await window.told(/^Collected as 1: “Species \| New \| Retrap.*diary/);
    await window.in(".list .grid").waitFor();

    await window.in("input[type=file]").setInputFiles(resolve("demo/ringing.xlsx"));
    await window.in("drawer-cell-grid td[tabindex='0']").waitFor();
    await window.in("drawer-cell-grid td:focus").waitFor();
    for (const key of ["ArrowDown", "Shift+End", "Shift+ArrowDown", "Enter"])
      await window.page.keyboard.press(key);
    await window.button("Collect one snippet").click();
    await window.told(/^Collected as 2: .*ringing\.xlsx, Spring!A2:G3/);
    await office.do("select_cells", "B2");
    await toFront("Calc");
    await window.in(".list li").nth(1).locator(".snippet").click();
    await window.told(/^Placed snippet 2 in “Untitled/);
    const [[date, ride, , count], [, , species]] = await office.do<[Cell[], Cell[]]>("read_cells", "B2:E3");
    expect([date!.kind, date!.format & FORMAT.date, date!.shown]).toEqual([
      "value",
      FORMAT.date,
      "2031-04-08",
    ]);
    expect([ride!.shown, count!.kind, count!.value, species!.shown]).toEqual([
      "North",
      "value",
      14,
      "Willow warbler",
    ]);
  });
});
