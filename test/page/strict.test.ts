import { createServer, type Server } from "node:http";
import { build } from "esbuild";
import type { Browser, Page } from "playwright-core";
import { launch, onPages } from "../support/browser";

/** A page of a product: its text, a field, an editable text, and the drawer over a store in memory. */
const SCRIPT = `
  import { Drawer, MemoryStore } from "./dist/index.js";
  import { Binding } from "./dist/page/index.js";
  window.drawer = new Drawer(new MemoryStore());
  document.querySelector("snippet-drawer").binding = new Binding(window.drawer);
`;
const BODY = `<!doctype html><meta charset=utf-8><title>Product</title><link rel=stylesheet href=/page.css>
  <p id=text>First <b>wheatear</b> on the <span class=red>seawall</span>.</p>
  <textarea id=field aria-label=Field></textarea><div id=rich contenteditable aria-label=Rich></div>
  <div id=here><snippet-drawer></snippet-drawer></div><script src=/page.js></script>`;
const CSS = `.red { color: rgb(176, 48, 32) } body { background: white } snippet-drawer { height: 500px }`;
const STRICT =
  "default-src 'none'; script-src 'self'; style-src 'self'; require-trusted-types-for 'script'; trusted-types lit-html drawer";

onPages("a page of a product", () => {
  let server: Server;
  let browser: Browser;
  let page: Page;
  let address = "";
  const violations: string[] = [];
  beforeAll(async () => {
    const bundled = await build({
      stdin: { contents: SCRIPT, resolveDir: "." },
      ...{ bundle: true, format: "iife", write: false, logLevel: "error" },
    });
    const files: Record<string, [type: string, body: string]> = {
      "/page.js": ["text/javascript", bundled.outputFiles[0]!.text],
      "/page.css": ["text/css", CSS],
    };
    server = createServer((request, response) => {
      const [type, body] = files[request.url!] ?? ["text/html", BODY];
      response.setHeader("content-type", type).setHeader("content-security-policy", STRICT).end(body);
    });
    await new Promise<void>((ready) => server.listen(0, "127.0.0.1", ready));
    address = `http://127.0.0.1:${(server.address() as { port: number }).port}/`;
    browser = await launch();
  });
  afterAll(async () => {
    await browser.close();
    server.close();
  });
  beforeEach(async () => {
    page = await (await browser.newContext({ viewport: { width: 1000, height: 800 } })).newPage();
    violations.length = 0;
    page.on("console", (message) => {
      if (message.type() === "error") violations.push(message.text());
    });
    await page.goto(address);
  });
  afterEach(() => page.context().close());

  const drawer = () => page.locator("snippet-drawer");
  const copy = async (selector: string) => {
    await page.evaluate((css) => {
      (document.activeElement as HTMLElement | null)?.blur();
      getSelection()!.selectAllChildren(document.querySelector(css)!);
    }, selector);
    await page.keyboard.press("Control+c");
  };
  const told = (words: string) => drawer().locator(".notice", { hasText: words }).waitFor();
  const count = () =>
    page.evaluate(
      async () =>
        (await (window as never as { drawer: { list(): Promise<unknown[]> } }).drawer.list()).length,
    );

  test("with a strict policy and Trusted Types all works, in its colours", async () => {
    // What the drawer itself draws, a long run too, violates nothing.
    for (let plain = 0; plain < 40; plain++)
      await page.evaluate(
        (at) => document.querySelector("snippet-drawer")!.binding!.collect({ text: `plain ${at}` }),
        plain,
      );
    await drawer().locator(".snippet", { hasText: "plain 39" }).waitFor();
    await drawer()
      .locator(".list")
      .evaluate((run) => (run.scrollTop = 0));
    await drawer().locator(".snippet", { hasText: "plain 0" }).waitFor();
    expect(violations).toEqual([]);
    await page.evaluate(() => document.querySelector("snippet-drawer")!.binding!.drawer.empty());

    await page.click("#rich");
    await copy("#text");
    await told("Collected as 1");
    expect(
      await drawer()
        .locator(".preview span")
        .first()
        .evaluate((span) => getComputedStyle(span).color),
    ).toBe("rgb(176, 48, 32)");
    await drawer().locator(".go").click();
    await told("Placed");
    expect(await page.locator("#rich").innerText()).toBe("First wheatear on the seawall.");
    for (let more = 0; more < 40; more++)
      await page.evaluate(
        (at) => document.querySelector("snippet-drawer")!.binding!.collect({ text: `more ${at}` }),
        more,
      );
    await drawer().locator(".snippet").nth(5).waitFor();
    await drawer()
      .locator(".list")
      .evaluate((run) => (run.scrollTop = 0));
    await drawer().locator(".snippet", { hasText: "First wheatear" }).waitFor();
    await page.click("#field");
    await drawer().locator(".snippet").first().click();
    await page.waitForFunction(() =>
      document.querySelector<HTMLTextAreaElement>("#field")!.value.startsWith("First"),
    );
    // Chromium tells of style attributes in what is only parsed, and in what an editable text is given; nothing depends on them.
    expect(violations.filter((text) => !text.startsWith("Applying inline style"))).toEqual([]);
  });

  test("taken out and put back, the drawer goes on; a paste into Find is no collecting; it is light where the page is", async () => {
    await page.emulateMedia({ colorScheme: "dark" });
    await page.evaluate(() => {
      const element = document.querySelector("snippet-drawer")!;
      element.remove();
      document.querySelector("#here")!.append(element);
    });
    await copy("#text");
    await told("Collected as 1");
    expect(await drawer().locator(".snippet").count()).toBe(1);
    await drawer().locator("input[type=search]").focus();
    await page.keyboard.press("Control+v");
    await page.waitForTimeout(300);
    expect([await count(), await drawer().locator("input[type=search]").inputValue()]).toEqual([
      1,
      expect.stringContaining("wheatear"),
    ]);
    const paper = () => drawer().evaluate((element) => getComputedStyle(element).backgroundColor);
    expect(await paper()).toBe("rgb(243, 245, 240)");
    await page.evaluate(() => (document.documentElement.style.colorScheme = "light dark"));
    expect(await paper()).toBe("rgb(24, 32, 33)");
  });

  test("a fault is told, and what stands in the middle of a line begins one of its own", async () => {
    await page.evaluate(() => {
      const held = (window as never as { drawer: { collect: unknown } }).drawer;
      held.collect = () => Promise.reject(new RangeError("Maximum call stack size exceeded"));
    });
    page.on("pageerror", () => undefined);
    await copy("#text");
    await told("That failed: Maximum call stack size exceeded");
    await page.reload();
    await page.click("#rich");
    await page.keyboard.type("Seen: ");
    await page.evaluate(() =>
      document.querySelector("snippet-drawer")!.binding!.collect({ html: "<ul><li>wren<li>tern</ul>" }),
    );
    await told("Collected");
    await drawer().locator(".snippet").first().click();
    await told("Placed");
    expect(await page.locator("#rich li").allInnerTexts()).toEqual(["wren", "tern"]);
    expect((await page.locator("#rich").innerText()).split("\n")[0]!.trim()).toBe("Seen:");
    // What was done last is undone first: the placing, and then the collecting.
    await drawer().locator(".notice button").first().click();
    await told("Undone: placing");
    expect(await page.locator("#rich li").count()).toBe(0);
    await drawer().locator(".notice button").first().click();
    await told("Undone: collecting");
  });

  test("ten thousand paragraphs are copied, shown and placed without a page that stands still", async () => {
    const times = await page.evaluate(async () => {
      const text = document.querySelector("#text")!;
      text.replaceChildren();
      document.body.prepend(Object.assign(document.createElement("section"), { id: "long" }));
      const section = document.querySelector("#long")!;
      for (let at = 0; at < 10_000; at++) {
        const paragraph = document.createElement("p");
        paragraph.textContent = `Paragraph ${at}: first wheatear on the seawall; wind south-east, force 3.`;
        section.append(paragraph);
      }
      getSelection()!.selectAllChildren(section);
      const begin = performance.now();
      document.execCommand("copy");
      return performance.now() - begin;
    });
    await told("Collected as 1");
    expect(await drawer().locator(".preview p").count()).toBeLessThan(250);
    await page.locator("#field").focus();
    await drawer().locator(".snippet").first().click();
    await page.waitForFunction(
      () => document.querySelector<HTMLTextAreaElement>("#field")!.value.split("\n").length === 10_000,
    );
    // No bound in seconds: the figure is for whoever reads the log.
    console.log(`10,000 paragraphs copied in ${times.toFixed(0)} ms of the page's time.`);
  }, 60_000);
});
