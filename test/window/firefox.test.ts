import { writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Browser, ElementHandle, Page } from "puppeteer-core";
import { commandHome } from "../support/command";
import { copyWithXclip, display, onDesktop, takenByXclip, until } from "../support/desktop";
import { hasFirefox, launchFirefox } from "../support/firefox";
import { OpenedWindow } from "../support/window";

const inFirefox = hasFirefox || process.env["CI"] ? onDesktop : describe.skip;

inFirefox("the window in Firefox", () => {
  display();
  const { fresh, home, folder } = commandHome();
  let browser: Browser;
  let opened: OpenedWindow;
  let page: Page;
  const complaints: string[] = [];
  beforeAll(async () => {
    browser = await launchFirefox();
  }, 60_000);
  afterAll(() => browser.close());
  beforeEach(async () => {
    fresh();
    opened = await OpenedWindow.open(home());
    page = await browser.newPage();
    page.on("pageerror", (error) => void complaints.push(String(error)));
    await page.goto(opened.address);
    await element(":is(.list .row, .none)");
  });
  afterEach(async () => {
    await page.close();
    await opened.end();
  });

  /** Waits for an element of the drawer: the driver's own waiting is told of no change in a shadow root. */
  const element = async (selector: string): Promise<ElementHandle<HTMLElement>> =>
    (await until(
      () => page.$(`snippet-drawer >>> ${selector}`),
      (found) => found !== null,
    )) as ElementHandle<HTMLElement>;
  const textOf = (selector: string) =>
    page.evaluate((within) => {
      const found = document
        .querySelector("snippet-drawer")!
        .shadowRoot!.querySelectorAll<HTMLElement>(within);
      return [...found].map((element) => element.innerText.trim());
    }, selector);
  const told = (said: RegExp) =>
    until(
      async () => (await textOf(".notice > span"))[0] ?? "",
      (text) => said.test(text),
    );
  const press = async (name: string) => {
    await (await element(`::-p-aria([name="${name}"][role="button"])`)).click();
  };

  test("a copy stands there, is found, moved and undone; the block goes onto the clipboard; it ends with its page", async () => {
    copyWithXclip("text/html", { text: "<p>First <b>wheatear</b> on the seawall</p>" });
    await told(/^Collected as 1: “First wheatear/);
    copyWithXclip("UTF8_STRING", { text: "Check rings" });
    await told(/^Collected as 2: “Check rings”/);

    await page.type("snippet-drawer >>> input[type=search]", "rings");
    await until(
      () => textOf(".found"),
      ([found = ""]) => found.startsWith("One snippet"),
    );
    await page.keyboard.press("Escape");
    await page.focus("snippet-drawer >>> .snippet");
    await page.keyboard.down("Alt");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.up("Alt");
    await told(/^Moved/);
    await until(
      () => textOf(".snippet .says"),
      (rows) => rows.join() === "Check rings,First wheatear on the seawall",
    );
    await press("Undo");
    await told(/^Undone/);

    await press("Copy 2");
    await told(/^Copied 2 snippets to the clipboard/);
    expect(takenByXclip("text/html").toString()).toMatch(/<strong>wheatear<\/strong>[^]*Check rings/);
    expect(complaints).toEqual([]);

    const ended = new Promise((done) => opened.process.once("exit", done));
    await page.goto("about:blank");
    expect(await ended).toBe(0);
  }, 60_000);

  test("a file is looked into, and a range that is drawn by keys is collected", async () => {
    const file = join(folder, "rides.csv");
    writeFileSync(file, "Ride,New\nNorth,14\nSouth,9\n");
    const chooser = (await element("input[type=file]")) as ElementHandle<HTMLInputElement>;
    await chooser.uploadFile(file);
    await (await element("drawer-cell-grid >>> [tabindex='0']")).focus();
    await page.keyboard.down("Shift");
    for (const key of ["ArrowRight", "ArrowDown"] as const) await page.keyboard.press(key);
    await page.keyboard.up("Shift");
    await page.keyboard.press("Enter");
    await press("Collect one snippet");
    await told(/^Collected as 1/);
    const held = await page.evaluate(async () => {
      const [snippet] = await document.querySelector("snippet-drawer")!.binding!.drawer.snippets("1");
      return snippet!.entry;
    });
    expect([held.text, held.origin.at]).toEqual(["Ride | New / North | 14", "rides!A1:B2"]);
    expect(complaints).toEqual([]);
  }, 60_000);
});
