import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import type { Browser, Page } from "playwright-core";
import { launch, onPages } from "../support/browser";
import { serve } from "../support/site";

const GUIDE = readFileSync("docs/embedding.md", "utf8");
/** The listings of the guide, by their names. */
const LISTINGS = new Map(
  Array.from(GUIDE.matchAll(/<!-- listing: (\S+) -->\s*```\w+\n([\s\S]*?)```/g), ([, name, code]) => [
    name!,
    code!,
  ]),
);

/** What a user of each sees. */
const CHECKS: Readonly<Record<string, (page: Page) => Promise<void>>> = {
  async element(page) {
    await copy(page);
    await page.click("textarea");
    await page.click("snippet-drawer .snippet");
    await holds(page, "First wheatear on the seawall at 05:50.");
  },
  async binding(page) {
    await copy(page);
    expect(await page.locator("snippet-drawer .from").innerText()).toBe("my product");
    await page.evaluate(() => document.querySelector("article")!.setAttribute("data-private", ""));
    await copy(page, false);
    await page.waitForTimeout(300);
    expect(await page.locator("snippet-drawer .says").count()).toBe(1);
    expect(await page.locator("snippet-drawer .drawers").inputValue()).toBe("spring");
  },
  async events(page) {
    const said: string[] = [];
    page.on("console", (message) => said.push(message.text()));
    await copy(page);
    await page.click("textarea");
    await page.click("snippet-drawer .snippet");
    await page.waitForSelector("body[data-placed='1']");
    expect(said).toEqual(["1 to textarea"]);
  },
  async words(page) {
    await copy(page);
    expect(await page.locator("snippet-drawer .go").innerText()).toBe("Hier einfügen (1)");
    expect(await page.locator("snippet-drawer .notice > span").first().innerText()).toContain(
      "Eingesammelt als 1",
    );
    expect(await page.locator("snippet-drawer").getAttribute("aria-label")).toBe("Lade");
  },
  async headless(page) {
    await page.waitForSelector("ol", { state: "attached" });
    await page.evaluate(() => getSelection()!.selectAllChildren(document.querySelector("article")!));
    await page.keyboard.press("Control+c");
    await page.waitForSelector("ol button");
    await page.click("textarea");
    await page.click("ol button");
    await holds(page, "First wheatear on the seawall at 05:50.");
    expect(await page.evaluate(() => customElements.get("snippet-drawer") === undefined)).toBe(true);
  },
  async react(page) {
    await page.waitForSelector("#count");
    await copy(page);
    await page.waitForSelector("#count:has-text('1 snippets')");
  },
  async adapter(page) {
    await copy(page);
    await page.click("my-editor");
    await page.waitForSelector("snippet-drawer .go[title='Lands in “Canvas”.']");
    await page.click("snippet-drawer .snippet");
    await page.waitForSelector("my-editor:has-text('First wheatear on the seawall at 05:50.')");
    await page.locator("snippet-drawer .notice button").first().click();
    await page.waitForFunction(() => document.querySelector("my-editor")!.textContent === "");
  },
};

async function copy(page: Page, isAwaited = true): Promise<void> {
  await page.waitForFunction(() => document.querySelector("snippet-drawer")?.binding !== undefined);
  await page.evaluate(() => getSelection()!.selectAllChildren(document.querySelector("article")!));
  await page.keyboard.press("Control+c");
  if (isAwaited) await page.waitForSelector("snippet-drawer .says");
}

const holds = (page: Page, text: string) =>
  page.waitForFunction((wanted) => document.querySelector("textarea")!.value === wanted, text);

onPages("the listings of the guide for embedding", () => {
  const folder = mkdtempSync(join(tmpdir(), "drawer-embedding-"));
  let browser: Browser;
  let served: Awaited<ReturnType<typeof serve>>;
  beforeAll(async () => {
    // As npm would install it: the package, and what an application has besides.
    mkdirSync(join(folder, "node_modules"));
    symlinkSync(resolve("."), join(folder, "node_modules/drawer"));
    for (const name of ["react", "react-dom"])
      symlinkSync(resolve("node_modules", name), join(folder, "node_modules", name));
    const page = LISTINGS.get("index.html")!;
    for (const name of Object.keys(CHECKS)) {
      mkdirSync(join(folder, name));
      const script = name === "react" ? "main.jsx" : "main.js";
      // Where the script makes the binding, or the element, the page does not.
      const html = page
        .replace("/main.js", `./${script}`)
        .replace(/ *<snippet-drawer.*\n/, (line) => (/^(?:headless|react)$/.test(name) ? "" : line))
        .replace(/ database="my-product"/, /^(?:binding|adapter)$/.test(name) ? "" : "$&");
      writeFileSync(join(folder, name, "index.html"), html);
      writeFileSync(join(folder, name, script), LISTINGS.get(name) ?? "");
    }
    const inputs = Object.keys(CHECKS).map((name) => join(folder, name, "index.html"));
    const config = `export default { root: ${JSON.stringify(folder)}, logLevel: "error", build: { target: "es2022", rolldownOptions: { input: ${JSON.stringify(inputs)} } } };`;
    writeFileSync(join(folder, "vite.config.mjs"), config);
    const words = ["node_modules/vite/bin/vite.js", "build", "--config", join(folder, "vite.config.mjs")];
    const built = spawnSync(process.execPath, words, { encoding: "utf8" });
    if (built.status !== 0) throw new Error(built.stderr);
    served = await serve(join(folder, "dist"));
    browser = await launch();
  }, 180_000);
  afterAll(async () => {
    await browser?.close();
    served?.close();
    rmSync(folder, { recursive: true, force: true });
  });

  test("all of them are tried", () => {
    expect([...LISTINGS.keys()].sort()).toEqual(["index.html", ...Object.keys(CHECKS)].sort());
  });

  test.each(Object.keys(CHECKS))("%s does what the guide says", async (name) => {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    page.on("pageerror", (error) => {
      throw error;
    });
    await page.goto(`${served.address}${name}/`);
    await CHECKS[name]!(page);
    await page.context().close();
  });

  test("what is said of the element is what its manifest says", () => {
    const { stdout } = spawnSync(process.execPath, ["scripts/element.mjs", "--print"], { encoding: "utf8" });
    const flat = (text: string) => text.replace(/ +/g, " ").replace(/-+/g, "-").trim();
    expect(flat(GUIDE)).toContain(flat(stdout));
  });
});
