import { chromium, type Browser, type BrowserContextOptions, type Locator, type Page } from "playwright-core";
import { CHROMIUM_FLAGS, findHeadless } from "../../scripts/chromium.mjs";
import { site } from "./site";

const executablePath = findHeadless();
if (!executablePath)
  console.log("Skipped: the tests of pages, because there is no Chromium on this machine.");

/** A suite that needs a browser. */
export const onPages: (name: string, suite: () => void) => void =
  executablePath || process.env["CI"] ? describe : describe.skip;

/** Starts Chromium. */
export function launch(): Promise<Browser> {
  return chromium.launch({ executablePath: executablePath!, args: CHROMIUM_FLAGS });
}

/** Shows the sentence and the block of what is on a page, also in a strip. */
function unfold(): void {
  addEventListener("DOMContentLoaded", () => {
    for (const each of document.querySelectorAll("snippet-drawer")) each.setAttribute("unfolded", "");
  });
}

/** An example that is opened anew for each test, in a browser. */
export class Example {
  page!: Page;
  /** Where it is served. */
  address = "";

  /**
   * @param name its folder
   * @param ready what is there when it is ready
   */
  constructor(name: string, ready: string, options: BrowserContextOptions = {}) {
    let browser: Browser | undefined;
    let served: Awaited<ReturnType<typeof site>> | undefined;
    beforeAll(async () => {
      served = await site(name);
      this.address = served.address;
      browser = await launch();
    }, 180_000);
    afterAll(async () => {
      await browser?.close();
      served?.close();
    });
    beforeEach(async () => {
      const context = await browser!.newContext({ viewport: { width: 1280, height: 800 }, ...options });
      await context.addInitScript(unfold);
      this.page = await context.newPage();
      this.page.on("pageerror", (error) => {
        throw error;
      });
      await this.page.goto(this.address);
      await this.page.waitForSelector(ready);
    });
    afterEach(() => this.page.context().close());
  }

  /** Does something with a row, by what it offers while the mouse is on it: a button, or the choice that has all where there is no room. */
  async doWith(nth: number, act: string): Promise<void> {
    await doWithRow(this.inDrawer(".list .row").nth(nth), act);
  }

  /** A part of the drawer. */
  inDrawer(selector: string): Locator {
    return this.page.locator(`snippet-drawer ${selector}`);
  }

  /** Opens what is behind “more”. */
  async openPanel(name: string): Promise<void> {
    await this.inDrawer(".more").click();
    await this.inDrawer(".menu").getByRole("button", { name, exact: true }).click();
  }

  /** Waits until what was said last begins so, or is like this. */
  async told(said: string | RegExp): Promise<void> {
    const last = this.inDrawer(".notice > span").first();
    const holds = (text: string) => (typeof said === "string" ? text.startsWith(said) : said.test(text));
    for (const end = Date.now() + 20_000; Date.now() < end; await this.page.waitForTimeout(20))
      if (holds((await last.innerText()).trim())) return;
    expect((await last.innerText()).trim()).toMatch(said);
  }

  /** Selects the whole of an element, as a person does with the mouse. */
  async select(selector: string): Promise<void> {
    await this.page
      .locator(selector)
      .first()
      .evaluate((element) => getSelection()!.selectAllChildren(element));
  }

  /** Selects it and copies it, and waits until something is said of that. */
  async copy(selector: string, said: string | RegExp = /^Collected/): Promise<void> {
    await this.select(selector);
    // What is said of the copy before may be like what is waited for.
    await this.page.evaluate(() => {
      document.addEventListener("drawer-notice", () => Object.assign(window, { isTold: true }), {
        once: true,
      });
      Object.assign(window, { isTold: false });
    });
    await this.page.keyboard.press("Control+c");
    await this.page.waitForFunction(() => (window as never as { isTold: boolean }).isTold);
    await this.told(said);
  }
}

/** Does something with a row of the drawer, as a user of the mouse does. */
export async function doWithRow(row: Locator, act: string): Promise<void> {
  await row.hover();
  const button = row.getByRole("button", { name: new RegExp(`^${act}:`) });
  if (await button.isVisible()) await button.click();
  else await row.locator(".actions select").selectOption(act);
}
