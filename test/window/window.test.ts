import { spawnSync } from "node:child_process";
import { chmodSync, existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import type { Browser } from "playwright-core";
import { CONDITIONS, faultsOf } from "../support/axe";
import { launch, onPages } from "../support/browser";
import { commandHome } from "../support/command";
import { some } from "../support/counts";
import { copyWithXclip, display, onDesktop, pause, takenByXclip, until } from "../support/desktop";
import { writeOffice } from "../support/office";
import { startWatch } from "../support/watch";
import { OpenedWindow, type WindowPage } from "../support/window";
import { paragraph } from "drawer";
import { readSource } from "drawer/files";

/** So long after an offer a program that is not in front pastes, and does not only look. */
const LATER = 600;

onDesktop("the window beside one's programs", () => {
  display();
  const { drawer, all, snippets, fresh, home, folder } = commandHome();
  let browser: Browser;
  let opened: OpenedWindow;
  let window: WindowPage;
  beforeAll(async () => {
    browser = await launch();
  });
  afterAll(() => browser.close());
  beforeEach(async () => {
    fresh();
    opened = await OpenedWindow.open(home());
    window = await opened.page(browser);
  });
  afterEach(async () => {
    await Promise.all(browser.contexts().map((context) => context.close()));
    await opened.end();
  });

  /** The address of another page of the window. */
  const anotherAddress = async () =>
    (JSON.parse((await drawer(["open", "--no-browser", "--json"])).out) as { address: string }).address;
  const copy = (text: string) => copyWithXclip("UTF8_STRING", { text });
  const copyHtml = (text: string) => copyWithXclip("text/html", { text });
  const clipboard = (form = "UTF8_STRING") => takenByXclip(form).toString();

  test("what any program copies stands there, and the block goes onto the clipboard and is not collected again", async () => {
    copyHtml("<p>First <b>wheatear</b> on the seawall</p>");
    await window.told(/^Collected as 1: “First wheatear/);
    copyHtml("<table><tr><th>Ride</th><th>New</th></tr><tr><td>North</td><td>14</td></tr></table>");
    await window.told(/^Collected as 2/);
    const said = window.page.evaluate(
      () =>
        new Promise<string[]>((done) => {
          const texts: string[] = [];
          const drawer = document.querySelector("snippet-drawer")!.shadowRoot!;
          new MutationObserver(() => {
            texts.push(drawer.querySelector(".notice > span")!.textContent!);
            if (texts.at(-1)!.startsWith("Copied")) done(texts);
          }).observe(drawer, { subtree: true, childList: true, characterData: true });
        }),
    );
    await window.in(".go").click();
    expect(await said).toContain("It is not on the clipboard yet…");
    await window.told(/^Copied 2 snippets to the clipboard/);
    expect(clipboard("text/html")).toMatch(/<strong>wheatear<\/strong>[^]*<td[^>]*><div>14<\/div><\/td>/);
    expect(clipboard()).toContain("First wheatear on the seawall");
    await pause(500);
    await window.holds(2);

    // A click on a row copies that one; a key does too.
    await window.in(".snippet").first().click();
    await window.told(/^Copied snippet 1/);
    expect(clipboard()).toBe("First wheatear on the seawall");

    await window.collects("off");
    await window.in(".state.off").waitFor();
    copy("A password for nobody");
    await pause(700);
    await window.holds(2);
    expect(window.complaints).toEqual([]);
  });

  test("beside a watch of the same drawer each copy is collected once, by the watch; and by the window when that has ended", async () => {
    await window.collects("latest");
    const watch = await startWatch(home());
    for (const [index, bird] of ["wren", "tern"].entries()) {
      copy(bird);
      await window.holds(index + 1);
    }
    await window.page.getByText("“drawer watch” collects what you copy").waitFor();
    watch.child.kill("SIGINT");
    await watch.ended;
    copy("knot");
    await window.told(/^Added to 2|Appended/);
    await window.page.getByText("“drawer watch” collects what you copy").waitFor({ state: "hidden" });
    await window.shows("wren", "tern · knot");
  });

  test("what is copied goes onto the latest, or into another drawer, as the window says", async () => {
    copy("wren");
    await window.told(/^Collected as 1/);
    await window.collects("latest");
    await pause(200);
    copy("tern");
    await window.told(/^Added to 1|onto|Appended/);
    await window.holds(1);
    window.page.once("dialog", (dialog) => void dialog.accept("letters"));
    await window.in(".drawers").selectOption({ label: "another…" });
    await window.told(/“letters”/);
    await pause(200);
    copy("knot");
    await window.told(/^Collected as 1/);
    expect(await all("list --drawer letters --json")).toContain("knot");
    // A second window on the first drawer takes the copies over, and this one says so, and can take them back.
    const address = await anotherAddress();
    const second = await (await browser.newContext()).newPage();
    await second.goto(address);
    await window.page.locator(".notice", { hasText: "goes into the drawer “main”" }).waitFor();
    await window.page.getByRole("button", { name: "Collect here" }).click();
    await second.locator("main > .notice", { hasText: "goes into the drawer “letters”" }).waitFor();
    expect(await window.page.locator("main > .notice").isVisible()).toBe(false);
    expect(await snippets()).toHaveLength(1);
  });

  test("each paste of a deal brings the next, and the window shows which is next", async () => {
    for (const bird of ["wren", "tern", "knot"])
      await drawer(["collect", "--type", "html"], `<p><b>${bird}</b></p>`);
    await window.holds(3);
    // What the sentence says holds for each that is dealt.
    await window
      .in(".sentence select")
      .filter({ hasText: "plain words" })
      .selectOption({ label: "plain words" });
    await window.button("One at a time").click();
    await window.told(/^Dealing 3 snippets/);
    const next = (words: RegExp) =>
      until(
        () => window.in(".dealing span").innerText(),
        (text) => words.test(text),
      );
    await next(/1 of 3 is next: wren/);
    await pause(LATER);
    expect(takenByXclip("text/html").toString()).not.toContain("<strong>");
    await next(/2 of 3 is next: tern/);
    await window.button("Back").click();
    await next(/1 of 3/);
    await window.told(/^On the clipboard: 1 of 3/);
    await window.button("Skip").click();
    await window.told(/^On the clipboard: 2 of 3/);
    await pause(LATER);
    expect(clipboard()).toBe("tern");
    await next(/3 of 3/);
    await pause(LATER);
    expect(clipboard()).toBe("knot");
    await next(/All 3 are handed out/);
    await window.button("End").click();
    await window.in(".dealing").waitFor({ state: "detached" });
  });

  test("two windows and a terminal show the same; what was done is undone to any point, for all of them", async () => {
    const address = await anotherAddress();
    expect(new URL(address).origin).toBe(opened.origin);
    const second = await (await browser.newContext()).newPage();
    await second.goto(address);
    await drawer(["collect"], "wren");
    await drawer(["collect"], "tern");
    await all("keep 1", "collect demo/letter.html --at p3");
    await window.holds(3);
    await second.locator("snippet-drawer .says").nth(2).waitFor();
    await window.openPanel("What was done");
    await until(
      () => window.in(".panel li .says").allInnerTexts(),
      (texts) => texts.length === 4 && /^Collecting/.test(texts[0]!) && texts[1] === "Keeping “wren”",
    );
    await window.in(".panel li button").nth(2).click();
    await window.told(/^Undone: the latest 3 acts/);
    await until(
      () => second.locator("snippet-drawer .snippet .says").allInnerTexts(),
      (rows) => rows.join() === "wren",
    );
    expect(await snippets()).toMatchObject([{ text: "wren", kept: false }]);
  });

  test("it opens in a window of its own where a browser can do that, else by the system; another drawer is shown by its name", async () => {
    const programs = join(folder, "programs");
    mkdirSync(programs, { recursive: true });
    const noted = (name: string) => join(programs, `${name}.said`);
    const stand = (name: string) =>
      writeFileSync(join(programs, name), `#!/bin/sh\necho "$@" > "${noted(name)}"\n`, { mode: 0o755 });
    const { PATH } = process.env;
    const others = PATH!.split(":").filter((place) => !existsSync(join(place, "chromium")));
    try {
      process.env["PATH"] = [programs, ...others].join(":");
      stand("xdg-open");
      expect((await drawer(["open", "--drawer", "letters"])).out).toMatch(/^The window was open already/);
      const opens = await until(
        () => (existsSync(noted("xdg-open")) ? readFileSync(noted("xdg-open"), "utf8") : ""),
        (said) => said.includes("\n"),
      );
      expect(opens).toMatch(/^file:\/\/\/\S+\/drawer-[\w-]{16}\.html\n$/);
      const entry = fileURLToPath(opens.trim());
      expect(statSync(entry).mode & 0o777).toBe(0o600);
      expect(readFileSync(entry, "utf8")).toMatch(/http:\/\/127\.0\.0\.1:\d+\/\?drawer=letters#[\w-]{43}"/);
      stand("chromium");
      await drawer(["open"]);
      const own = await until(
        () => (existsSync(noted("chromium")) ? readFileSync(noted("chromium"), "utf8") : ""),
        (said) => said.includes("\n"),
      );
      expect(own).toMatch(/^--app=file:\/\/\/\S+\.html --window-size=\d+,\d+\n$/);
      const second = await (await browser.newContext()).newPage();
      await second.goto(opens.trim());
      await second.locator("snippet-drawer .drawers").waitFor();
      expect(await second.locator("snippet-drawer .drawers").inputValue()).toBe("letters");
      // It was good once.
      await until(
        () => existsSync(entry),
        (isThere) => !isThere,
      );
    } finally {
      process.env["PATH"] = PATH;
    }
  });

  test("killed, it is started again with nothing lost, and the page that was left says so and comes back to it", async () => {
    copy("wren");
    await window.in(".snippet").waitFor();
    expect(statSync(join(home(), "open.json")).mode & 0o777).toBe(0o600);
    await opened.end("SIGKILL");
    await window.page.locator(".notice:has-text('cannot be reached')").first().waitFor();
    await window.in(".snippet").first().click();
    await window.told(/^Nothing was changed: the drawers cannot be reached/);
    // The note of the one that was killed misleads nobody.
    opened = await OpenedWindow.open(home());
    const again = await opened.page(browser);
    await again.holds(1);
    copy("tern");
    await again.told(/^Collected as 2/);
  });

  test("it ends some seconds after its last page, and a reload is no end", async () => {
    await window.page.reload();
    await window.in(".none .begin, .none slot").first().waitFor({ state: "attached" });
    await pause(1500);
    expect(opened.process.exitCode).toBe(null);
    await window.page.context().close();
    await until(
      () => opened.process.exitCode,
      (code) => code === 0,
    );
    expect(existsSync(join(home(), "open.json"))).toBe(false);
  });

  test("parts of files that are dropped are marked with the mouse and the keys, and collected in order; a block is saved", async () => {
    const files = ["demo/diary.docx", "demo/ringing.xlsx"].map((path) => resolve(path));
    await window.in("input[type=file]").setInputFiles(files);
    const cell = (row: number, column: number) =>
      window.in(`drawer-cell-grid td[data-row="${row}"][data-column="${column}"]`);
    await cell(1, 0).waitFor();
    await window.page.locator("snippet-drawer .parts li label:has([title=t1])").click();
    await window.page.locator("snippet-drawer .parts li label:has([title=p3])").click();
    await cell(4, 1).scrollIntoViewIfNeeded();
    const [from, to] = [await cell(1, 0).boundingBox(), await cell(2, 3).boundingBox()];
    await window.page.mouse.move(from!.x + 5, from!.y + 5);
    await window.page.mouse.down();
    await window.page.mouse.move(to!.x + 5, to!.y + 5, { steps: 4 });
    await window.page.mouse.up();
    // Two more by the keys: one row, and one cell.
    const keys = ["Home", "ArrowDown", "Shift+End", "Enter", "ArrowDown", "Home", "Enter"];
    for (const key of keys) await window.page.keyboard.press(key);
    const marks = window.in(".parts ol .says");
    await marks.nth(2).waitFor();
    expect(await marks.allInnerTexts()).toEqual(["Spring!A2:D3", "Spring!A4:G4", "Spring!A5"]);
    await window.button("Collect 5 snippets").click();
    await window.holds(5);
    const origins = (await snippets()).map(({ origin }) => origin);
    expect(origins).toMatchObject([
      { document: "diary.docx", at: "p3" },
      { document: "diary.docx", at: "t1" },
      { document: "ringing.xlsx", at: "Spring!A2:D3" },
      { document: "ringing.xlsx", at: "Spring!A4:G4" },
      { document: "ringing.xlsx", at: "Spring!A5" },
    ]);

    const download = window.page.waitForEvent("download");
    await window.in(".acts select").selectOption({ label: "docx" });
    const path = join(folder, "block.docx");
    await (await download).saveAs(path);
    const saved = spawnSync("pandoc", [path, "-t", "plain"], { encoding: "utf8" }).stdout;
    for (const words of ["First wheatear on the seawall", "Willow warbler", "Goldcrest"])
      expect(saved).toContain(words);
  });

  test("of a long document a few hundred parts are drawn, and more when one asks; all of them can be marked", async () => {
    const content = Array.from({ length: 20_000 }, (_, at) => paragraph(`Note ${at + 1} of the wardens`));
    const path = join(folder, "notes.odt");
    writeFileSync(path, await writeOffice({ content }, "odt"));
    await window.in("input[type=file]").setInputFiles(path);
    const parts = window.in(".parts li");
    await window.button("Show more: 300 of 20,000 are here").click();
    await until(
      () => parts.count(),
      (count) => count === 600,
    );
    // One reads on where one was, by the keyboard too.
    await window.page.keyboard.press("Space");
    await window.button("Collect one snippet").waitFor();
    const every = window.in(".parts .every input");
    await every.check();
    await window.button("Collect 20,000 snippets").waitFor();
    await every.uncheck();
    await window.in(".parts li input").nth(599).check();
    await window.button("Collect one snippet").click();
    await window.holds(1);
    expect((await snippets())[0]).toMatchObject({
      beginning: "Note 600 of the wardens",
      origin: { at: "p600" },
    });
  });

  test("a drawer is saved as a file and brought into another; the sample drawer can be looked at and thrown away", async () => {
    await window.page.locator("main button.word").click();
    await window.told(/“sample”/);
    await window.holds(8);
    // Pictures and tables are drawn as what they are.
    await window.in(".list .row img").waitFor();
    expect(await window.in(".list .grid").count()).toBeGreaterThan(2);
    const download = window.page.waitForEvent("download");
    await window.in(".acts select").selectOption({ label: "Export" });
    const path = join(folder, "sample.drawer");
    await (await download).saveAs(path);
    window.page.once("dialog", (dialog) => void dialog.accept("other"));
    await window.in(".drawers").selectOption({ label: "another…" });
    await window.told(/“other”/);
    await window.in("input[type=file]").setInputFiles(path);
    await window.told(/^Imported 8 snippets/);
    await window.holds(8);
    const odt = join(folder, "note.txt");
    writeFileSync(odt, "One line, which needs no choice");
    await window.in("input[type=file]").setInputFiles(odt);
    await window.told(/^Collected as 9: “One line/);
    expect(await window.in(".parts").count()).toBe(0);
  });

  test("axe finds nothing, however one looks at it, in each panel, and nothing is wider than a strip", async () => {
    await all("collect demo/diary.docx --at p3 --at t1", "collect demo/sketches/tide.png");
    for (const [condition, { media, width, height, looksOnly }] of Object.entries(CONDITIONS)) {
      const address = await anotherAddress();
      const context = await browser.newContext({ viewport: { width, height }, bypassCSP: true });
      const page = await context.newPage();
      await page.emulateMedia(media);
      await page.goto(address);
      await page.locator("snippet-drawer .says").nth(2).waitFor({ state: "attached" });
      const found = await faultsOf(page, looksOnly);
      // Names and order are the same in each; how they look is seen in one.
      for (const panel of some(
        ["Rules", "Taken out", "What was done", "Keys"],
        (each) => each === "Rules" || !looksOnly,
      )) {
        await page.locator("snippet-drawer .more").click();
        await page.locator("snippet-drawer").getByRole("button", { name: panel, exact: true }).click();
        found.push(...(await faultsOf(page, looksOnly)));
      }
      await page
        .locator("snippet-drawer input[type=file]")
        .setInputFiles([resolve("demo/diary.docx"), resolve("demo/ringing.xlsx")]);
      await page.locator("snippet-drawer drawer-cell-grid td").first().waitFor({ state: "attached" });
      found.push(...(await faultsOf(page, looksOnly)));
      const isWider = await page.evaluate(() => document.documentElement.scrollWidth > innerWidth);
      expect([condition, found, isWider]).toEqual([condition, [], false]);
      await context.close();
    }
  }, 300_000);

  test("by the keyboard alone: a file's parts, the run, the block; each act is said", async () => {
    const { page } = window;
    // The browser is told early that the files come from here.
    const chooser = page.waitForEvent("filechooser");
    await page.evaluate(() => {
      const heard: string[] = [];
      Object.assign(globalThis, { heard });
      const hear = () => {
        for (const region of document.querySelectorAll("[aria-live], [role=status]"))
          if (region.textContent && heard.at(-1) !== region.textContent) heard.push(region.textContent);
      };
      new MutationObserver(hear).observe(document.body, {
        childList: true,
        subtree: true,
        characterData: true,
      });
    });
    const said = (words: RegExp) =>
      until(
        () => page.evaluate(() => (globalThis as never as { heard: string[] }).heard),
        (heard) => heard.some((text) => words.test(text)),
      );
    /** Goes on with the Tab key until what has the focus is called so. */
    const goTo = async (name: RegExp) => {
      for (let steps = 0; steps < 60; steps++) {
        const here = await page.evaluate(() => {
          let element = document.activeElement;
          while (element?.shadowRoot?.activeElement) element = element.shadowRoot.activeElement;
          return element?.getAttribute("aria-label") ?? (element as HTMLElement | null)?.innerText ?? "";
        });
        if (name.test(here)) return;
        await page.keyboard.press("Tab");
      }
      throw new Error(`Nothing called ${name} is reached.`);
    };
    await goTo(/^More$/);
    await page.keyboard.press("Enter");
    await goTo(/^Look into a file/);
    await page.keyboard.press("Enter");
    await (await chooser).setFiles(resolve("demo/ringing.xlsx"));
    await window.in("drawer-cell-grid td[tabindex='0']").waitFor();
    await goTo(/^Date$/);
    for (const key of ["Shift+End", "Enter"]) await page.keyboard.press(key);
    await said(/^Marked Spring!A1:G1\./);
    for (const key of ["ArrowDown", "Enter"]) await page.keyboard.press(key);
    await goTo(/^Take off: Spring!G2/);
    await page.keyboard.press("Enter");
    await said(/^Spring!G2 is not marked any more/);
    await window.in("drawer-cell-grid td:focus").waitFor();
    await page.keyboard.press("Shift+Tab");
    for (let back = 0; back < 4; back++) await page.keyboard.press("Shift+Tab");
    await goTo(/^Collect one snippet|^Collect 1/);
    await page.keyboard.press("Enter");
    await said(/^Collected as 1/);
    await page.keyboard.press("Alt+Shift+D");
    await window.in(".snippet:focus").waitFor();
    await page.keyboard.press("k");
    await said(/^Kept|^Keeps/);
    await page.keyboard.press("Enter");
    await said(/^Copied snippet 1/);
    expect(clipboard()).toContain("Wing mm");
    await goTo(/^Copy 1$/);
    await page.keyboard.press("Enter");
    await said(/^Copied one snippet/);
  });

  test("a saved block holds what was seen, read by our own reader too", async () => {
    copyHtml("<ul><li>Wren</li><li>Tern</li></ul>");
    await window.told(/^Collected as 1/);
    const download = window.page.waitForEvent("download");
    await window.in(".acts select").selectOption({ label: "odt" });
    const path = join(folder, "block.odt");
    await (await download).saveAs(path);
    const source = await readSource(readFileSync(path), "block.odt");
    expect(source.parts().map(({ text }) => text)).toEqual(["Wren", "Tern"]);
  });
});

onPages("who may speak to the window", () => {
  const { drawer, fresh, folder, home } = commandHome();
  let opened: OpenedWindow;
  let port = "";
  let token = "";
  beforeEach(async () => {
    fresh();
    await drawer(["collect"], "The key of the hut is under the third plank");
    opened = await OpenedWindow.open(home());
    ({ port } = new URL(opened.address));
    const key = new URL(opened.address).hash.slice(1);
    const entered = await ask("POST", "/enter", { body: JSON.stringify({ key }) });
    ({ token } = JSON.parse(entered.text) as { token: string });
    expect(entered.headers["set-cookie"]).toBeUndefined();
  });
  afterEach(() => opened.end());

  interface Asked {
    readonly status: number;
    readonly headers: Record<string, string[] | undefined>;
    readonly text: string;
  }
  /** Asks with curl's bluntness: any header may be said. */
  const ask = async (
    method: string,
    path: string,
    { headers = {}, body }: { headers?: Record<string, string>; body?: string | Buffer } = {},
  ): Promise<Asked> => {
    const { request } = await import("node:http");
    return new Promise((done, fail) => {
      const asked = request(
        {
          host: "127.0.0.1",
          port,
          method,
          path,
          headers: { "content-type": "application/json", ...headers },
        },
        (answer) => {
          let text = "";
          answer.setEncoding("utf8").on("data", (part: string) => (text += part));
          answer.on("end", () =>
            done({ status: answer.statusCode!, headers: answer.headersDistinct as never, text }),
          );
        },
      );
      asked.on("error", fail).end(body);
    });
  };
  const own = () => ({ authorization: `Bearer ${token}` });
  const logged = (words: RegExp) =>
    until(
      () => opened.said,
      (said) => words.test(said),
    );

  test("its own page may, by a token that no other origin has", async () => {
    const about = await ask("GET", "/store/about", { headers: own() });
    expect([about.status, about.text]).toEqual([200, '{"isReadOnly":false}']);
    const page = await ask("GET", "/");
    expect(page.status).toBe(200);
    expect(page.headers["content-security-policy"]?.[0]).toMatch(
      /default-src 'none'.*frame-ancestors 'none'.*require-trusted-types-for 'script'/,
    );
    expect(page.headers["access-control-allow-origin"]).toBeUndefined();
  });

  test("who knows the port and nothing else gets nothing: no token, a key that was used, a guess", async () => {
    for (const path of ["/store/about", "/store/changes", "/desktop/begin", "/desktop/news"])
      expect((await ask("GET", path)).status).toBe(403);
    for (const path of ["/store/call", "/desktop/copy", "/desktop/into", "/desktop/sample"])
      expect((await ask("POST", path, { body: "{}" })).status).toBe(403);
    const guess = token.replace(/.$/, (last) => (last === "A" ? "B" : "A"));
    for (const authorization of [`Bearer ${guess}`, `Basic ${token}`, "Bearer", token])
      expect((await ask("GET", "/store/about", { headers: { authorization } })).status).toBe(403);
    expect(
      (await ask("GET", "/store/about", { headers: { cookie: `drawer-${port}=${token}` } })).status,
    ).toBe(403);
    const key = new URL(opened.address).hash.slice(1);
    for (const body of [JSON.stringify({ key }), JSON.stringify({ key: "" }), "{}"]) {
      const again = await ask("POST", "/enter", { body });
      expect([again.status, again.headers["set-cookie"]]).toEqual([403, undefined]);
    }
    expect((await ask("POST", "/again", { body: JSON.stringify({ nonce: "n", proof: "p" }) })).status).toBe(
      403,
    );
    await logged(/Refused: GET \/store\/about from 127\.0\.0\.1:\d+: it has no leave to read the drawers\./);
    await logged(/Refused: POST \/enter .*its key was used before/);
    expect(opened.said).not.toContain(key);
  });

  test("another page, and this computer by another name, are refused although they bring the token", async () => {
    const strangers = [
      { host: "drawer.example", ...own() },
      { host: `localhost:${port}`, ...own() },
      { origin: "http://127.0.0.1:1", ...own() },
      { origin: "null", ...own() },
      { "sec-fetch-site": "cross-site", ...own() },
      { "sec-fetch-site": "same-site", ...own() },
    ];
    for (const headers of strangers) {
      const answers = [
        await ask("GET", "/store/about", { headers }),
        await ask("POST", "/store/call", { headers, body: "x" }),
        await ask("GET", "/", { headers }),
        await ask("OPTIONS", "/store/call", {
          headers: { ...headers, "access-control-request-method": "POST" },
        }),
      ];
      for (const { status, headers: given } of answers)
        expect([headers, status, given["access-control-allow-origin"]]).toEqual([headers, 403, undefined]);
    }
    await logged(/from http:\/\/127\.0\.0\.1:1: it comes from another page/);
    await logged(/from drawer\.example: it calls this computer by another name/);
  });

  test("a body of a gigabyte is refused before it is read, and no file is given but the page's", async () => {
    const huge = await ask("POST", "/store/call", {
      headers: { ...own(), "content-length": String(2 ** 30) },
    }).catch((error: Error) => ({ status: 0, text: error.message }));
    expect([413, 0]).toContain(huge.status);
    await logged(/it brings more than anything that is collected/);
    for (const path of [
      "/../package.json",
      "/%2e%2e/%2e%2e/package.json",
      "/assets/../../main.js",
      "//etc/passwd",
    ])
      expect((await ask("GET", path, { headers: own() })).text).not.toMatch(/"name": "drawer"|root:/);
    // It goes on for its own page.
    expect((await ask("GET", "/store/about", { headers: own() })).status).toBe(200);
  });

  const asNobody = process.getuid?.() === 0 ? test : test.skip;
  asNobody(
    "another user of this computer reads nothing of it: no file, no argument, no environment",
    async () => {
      const programs = join(folder, "programs");
      mkdirSync(programs, { recursive: true });
      writeFileSync(join(programs, "chromium"), "#!/bin/sh\nsleep 20\n", { mode: 0o755 });
      const { PATH } = process.env;
      process.env["PATH"] = `${programs}:${PATH}`;
      chmodSync(folder, 0o755);
      try {
        expect((await drawer(["open"])).out).toMatch(/open already/);
      } finally {
        process.env["PATH"] = PATH;
      }
      const note = JSON.parse(readFileSync(join(home(), "open.json"), "utf8")) as { secret: string };
      const looks = `cat /proc/[0-9]*/cmdline /proc/[0-9]*/environ; ls -R ${folder}; find ${folder} /tmp/drawer* -type f -exec cat {} +;
      curl -s http://127.0.0.1:${port}/store/about; curl -s -X POST -H 'content-type: application/json' -d '{"key":""}' http://127.0.0.1:${port}/enter`;
      const { stdout } = spawnSync(
        "setpriv",
        ["--reuid=nobody", "--regid=nogroup", "--clear-groups", "sh", "-c", looks],
        { encoding: "utf8", maxBuffer: 1 << 28, env: { PATH } },
      );
      expect(stdout).toMatch(/--app=file:/);
      for (const word of [note.secret, token, "third plank", `${port}/#`]) expect(stdout).not.toContain(word);
    },
  );

  test("who has taken the port of a window that was killed is not believed, and learns nothing", async () => {
    await opened.end("SIGKILL");
    const { createServer } = await import("node:http");
    let learned = "";
    const thief = createServer((request, response) => {
      request.on("data", (part: Buffer) => (learned += String(part)));
      request.on("end", () =>
        response
          .setHeader("content-type", "application/json")
          .end(JSON.stringify({ address: "http://127.0.0.1:1/#stolen", proof: "x" })),
      );
    });
    await new Promise<void>((ready) => thief.listen(Number(port), "127.0.0.1", ready));
    opened = await OpenedWindow.open(home());
    expect(opened.address).not.toContain("stolen");
    expect(opened.origin).not.toBe(`http://127.0.0.1:${port}`);
    expect(Object.keys(JSON.parse(learned) as object).sort()).toEqual(["nonce", "proof", "shows"]);
    await new Promise((closed) => thief.close(closed));
  });
});
