import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, FrameLocator, Page } from "playwright-core";
import { launch, onPages } from "../support/browser";
import { until } from "../support/desktop";
import { startHub, type HubProcess } from "../support/hub";
import { site } from "../support/site";

onPages("the example of two devices", () => {
  const folder = mkdtempSync(join(tmpdir(), "drawer-example-"));
  let hub: HubProcess;
  let served: Awaited<ReturnType<typeof site>>;
  let browser: Browser;
  let page: Page;
  beforeAll(async () => {
    hub = await startHub(["--port", "0", "--data", folder]);
    served = await site("devices");
    browser = await launch();
    page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  }, 180_000);
  afterAll(async () => {
    await browser.close();
    served.close();
    await hub.stop();
    rmSync(folder, { recursive: true, force: true });
  });

  const device = (name: string) => page.frameLocator(`iframe[name=${name}]`);
  const shows = (of: FrameLocator, ...rows: string[]) =>
    until(
      () => of.locator("snippet-drawer .says").allInnerTexts(),
      (said) => said.map((row) => row.slice(0, 13)).join() === rows.join(),
    );
  /** Copies a paragraph of a device's letter, as one does by the keyboard. */
  async function copies(of: FrameLocator, nth: number): Promise<void> {
    const paragraph = of.locator("#paper p").nth(nth);
    await paragraph.click({ clickCount: 3 });
    await page.keyboard.press("Control+c");
  }

  test("what is copied on one stands on the other; one that was cut off and goes on has all of both afterwards", async () => {
    await page.goto(`${served.address}?hub=${hub.address}`);
    const [desk, laptop] = [device("Desk"), device("Laptop")];
    for (const one of [desk, laptop])
      await until(
        () => one.locator("#state").innerText(),
        (text) => /^In step|^No other/.test(text),
      );
    await copies(desk, 0);
    for (const one of [desk, laptop]) await shows(one, "First wheatea");
    await laptop.locator("#cut").click();
    await copies(laptop, 0);
    await copies(desk, 1);
    await shows(desk, "First wheatea", "Boardwalk pla");
    await shows(laptop, "First wheatea", "Net round 1 b");
    await laptop.locator("#cut").click();
    await until(
      () => desk.locator("snippet-drawer .says").count(),
      (count) => count === 3,
    );
    const there = await desk.locator("snippet-drawer .says").allInnerTexts();
    await shows(laptop, ...there.map((row) => row.slice(0, 13)));
    if (process.env["SHOT"]) await page.screenshot({ path: process.env["SHOT"] });
  });
});
