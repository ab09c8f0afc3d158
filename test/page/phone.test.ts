import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, BrowserContext, BrowserContextOptions, Page } from "playwright-core";
import { faultsOf } from "../support/axe";
import { launch, onPages } from "../support/browser";
import { commandHome } from "../support/command";
import { until } from "../support/desktop";
import { startHub, type HubProcess } from "../support/hub";

/** A telephone: small, touched, and its browser lets the page read the clipboard. */
const PHONE = {
  ...{ viewport: { width: 360, height: 740 }, hasTouch: true, isMobile: true },
  permissions: ["clipboard-read", "clipboard-write"],
};

onPages("the page for the telephone, which a hub serves", () => {
  const desk = commandHome();
  const folder = mkdtempSync(join(tmpdir(), "drawer-phone-"));
  let hub: HubProcess;
  let browser: Browser;
  let phone: BrowserContext;
  let page: Page;
  let complaints: string[] = [];
  beforeAll(async () => {
    hub = await startHub(["--port", "0", "--data", folder]);
    browser = await launch();
  });
  /** Opens a browser that knows nothing of the page yet. */
  async function openPhone(options: BrowserContextOptions = {}): Promise<void> {
    phone = await browser.newContext({ ...PHONE, ...options });
    page = await phone.newPage();
    page.on("pageerror", (error) => complaints.push(String(error)));
    page.on("console", (message) => {
      if (message.text().includes("Content Security Policy")) complaints.push(message.text());
    });
  }
  beforeEach(async () => {
    desk.fresh();
    await openPhone();
  });
  afterEach(() => phone.close());
  afterAll(async () => {
    await browser.close();
    await hub.stop();
    rmSync(folder, { recursive: true, force: true });
    expect(complaints).toEqual([]);
  });

  const said = () => page.locator("main > .state").innerText();
  const told = (like: RegExp) => until(said, (text) => like.test(text));
  const button = (name: string) => page.getByRole("button", { name, exact: true });
  const rows = () => page.locator("snippet-drawer .list .snippet");
  /** What stands at the desk, once it holds something that begins so. */
  const atDesk = (beginning: string) =>
    until(
      async () => (await desk.all("sync"), desk.snippets()),
      (snippets) => snippets.some((each) => each.beginning.startsWith(beginning)),
    );

  /** Joins as one does who points the camera at the code of the window. */
  async function joinAs(name: string): Promise<void> {
    const isFirst = (await desk.all("devices")).includes("alone");
    const words = `devices invite --json${isFirst ? ` --hub ${hub.address} --name desk` : ""}`;
    const { link } = JSON.parse(await desk.all(words)) as { link: string };
    await page.goto(link);
    // Nobody who sees the address later can join by it.
    await until(
      () => page.url(),
      (url) => url === `${hub.address}/`,
    );
    await page.getByLabel("What this device is called").fill(name);
    await button("Join").tap();
    await told(/^In step\. desk: /);
  }

  test("what was collected at the desk is copied by one touch; what is pasted and written stands there", async () => {
    await desk.all("collect demo/diary.docx --at p3 --at t1", "collect demo/sketches/tide.png");
    await joinAs("Telephone");
    const touched = rows().filter({ hasText: "Willow warbler" });
    await touched.tap();
    await until(
      () => page.evaluate(() => navigator.clipboard.readText()),
      (text) => text.startsWith("Species\tNew\tRetrap"),
    );
    await page.evaluate(async () => {
      const html = new Blob(["<p>Hut <b>key</b> at the mill</p><table><tr><td>7<td>8</table>"], {
        type: "text/html",
      });
      await navigator.clipboard.write([new ClipboardItem({ "text/html": html })]);
    });
    await button("Paste").tap();
    const [pasted] = (await atDesk("Hut key")).filter(({ beginning }) => beginning.startsWith("Hut key"));
    expect(pasted!.origin).toMatchObject({ app: "Telephone" });
    const shown = JSON.parse(await desk.all(`show ${pasted!.position} --json`)) as {
      snippets: { html: string }[];
    };
    expect(shown.snippets[0]!.html).toContain("<strong>key</strong>");
    expect(shown.snippets[0]!.html).toContain(">8</td>");
    await page.getByLabel("Write or paste here").fill("Boat shed, 4 Tern Lane");
    await button("Collect").tap();
    await atDesk("Boat shed");
    expect(await page.getByLabel("Write or paste here").inputValue()).toBe("");
  });

  test("where a browser lets nobody copy but while one touches, a touch copies all the same, and so does a deal", async () => {
    // A stand-in: it says which maker's it is, has no old way to copy, and refuses the new one later than the touch.
    await page.addInitScript(() => {
      Object.assign(window, { GestureEvent: Event });
      document.execCommand = () => false;
      let isTouched = false;
      window.addEventListener(
        "click",
        () => {
          isTouched = true;
          setTimeout(() => (isTouched = false));
        },
        { capture: true },
      );
      const write = navigator.clipboard.write.bind(navigator.clipboard);
      navigator.clipboard.write = (items) =>
        isTouched ? write(items) : Promise.reject(new DOMException("Not now", "NotAllowedError"));
    });
    await desk.all("collect demo/diary.docx --at p3 --at t1 --at p4");
    await joinAs("Elsewhere");
    const holds = (wanted: string) =>
      until(
        () => page.evaluate(() => navigator.clipboard.readText()),
        (text) => text.startsWith(wanted),
      );
    await rows().filter({ hasText: "Willow warbler" }).tap();
    await holds("Species\tNew\tRetrap");
    const html = await page.evaluate(async () => {
      const [item] = await navigator.clipboard.read();
      return (await item!.getType("text/html")).text();
    });
    expect(html).toMatch(/<t[dh][^>]*>Willow warbler<\/t[dh]>/);
    await page.locator("snippet-drawer .fold").tap();
    await button("One at a time").tap();
    await holds("First wheatear");
    await button("Skip").tap();
    await holds("Species");
    await button("Skip").tap();
    await holds("Net round");
    // Chromium itself cleans what is copied in the new way, and complains of the styles in it.
    complaints = complaints.filter((each) => !each.startsWith("Applying inline style"));
  });

  test("opens without a network with all that it holds; what is collected then goes out when there is one", async () => {
    await desk.all("collect demo/notes.md");
    await joinAs("On the ferry");
    await page.evaluate(() => navigator.serviceWorker.ready);
    await phone.setOffline(true);
    await page.reload();
    await told(/^No connection/);
    await rows().filter({ hasText: "spring bulletin" }).first().waitFor();
    await page.getByLabel("Write or paste here").fill("Written on the ferry");
    await button("Collect").tap();
    await rows().filter({ hasText: "Written on the ferry" }).waitFor();
    await phone.setOffline(false);
    await atDesk("Written on the ferry");
    await told(/^In step/);
  });

  test("what other programs share into it is collected: an address with its title, a text, a picture", async () => {
    await joinAs("Shared");
    await page.evaluate(() => navigator.serviceWorker.ready);
    await page.reload();
    await told(/^In step/);
    /** What the system posts, which the worker of the page takes. */
    const share = (given: Readonly<Record<string, string>>, picture = false) =>
      page.evaluate(
        async ([texts, withPicture]) => {
          const form = new FormData();
          for (const [name, text] of Object.entries(texts)) form.set(name, text);
          if (withPicture) {
            const canvas = new OffscreenCanvas(4, 4);
            canvas.getContext("2d")!.fillRect(0, 0, 2, 2);
            form.set("files", new File([await canvas.convertToBlob()], "gull.png", { type: "image/png" }));
          }
          return (await fetch("./share", { method: "POST", body: form })).status;
        },
        [given, picture] as const,
      );
    expect(await share({ title: "Tide tables", text: "https://merrow-spit.example/tides", url: "" })).toBe(
      200,
    );
    expect(await share({ text: "Ring AB12345 read at the hide" })).toBe(200);
    expect(await share({ title: "" }, true)).toBe(200);
    await page.reload();
    await atDesk("Ring AB12345");
    await atDesk("gull");
    const snippets = await atDesk("Tide tables");
    const link = snippets.find(({ beginning }) => beginning.startsWith("Tide tables"))!;
    expect(link.kind).toBe("link");
    expect(link.text).toContain("Tide tables");
    // It is collected once.
    const count = snippets.length;
    await page.reload();
    await told(/^In step/);
    await desk.all("sync");
    expect(await desk.snippets()).toHaveLength(count);
  });

  test("a wrong word is told and can be mended; one that was removed says so, keeps what it has, and joins again", async () => {
    await page.goto(hub.address);
    await page.getByLabel("The invitation").fill("wren tern gull");
    await button("Join").tap();
    await until(
      () => page.locator(".told").innerText(),
      (text) => text !== "" && !text.startsWith("Joining"),
    );
    expect(await page.locator(".told").innerText()).toMatch(/is no word of an invitation/);
    await desk.all("collect demo/costs.csv");
    await joinAs("Lost and found");
    const before = await rows().count();
    await desk.drawer(["devices", "remove", "Lost and found"]);
    await told(/^This device was removed/);
    expect(await rows().count()).toBe(before);
    await button("Join again").tap();
    await joinAs("Found again");
  });

  test("is whole for a thumb, and for who hears it, by day and night", async () => {
    await desk.all("collect demo/diary.docx --each paragraph");
    const small = async () => {
      const boxes = await page
        .locator(":is(main, snippet-drawer) :is(button, select, input, textarea)")
        .evaluateAll((all) =>
          all
            .filter((one) => one.checkVisibility() && !one.closest(".sentence"))
            .map((one) => [one.textContent.trim().slice(0, 20), one.getBoundingClientRect().height] as const),
        );
      return boxes.filter(([, height]) => height < 44);
    };
    // What looks at the page is no part of it.
    await phone.close();
    await openPhone({ bypassCSP: true });
    await page.goto(hub.address);
    await button("Join").waitFor();
    expect(await faultsOf(page)).toEqual([]);
    expect(await small()).toEqual([]);
    await joinAs("For a thumb");
    await rows().first().tap();
    for (const colorScheme of ["light", "dark"] as const) {
      await page.emulateMedia({ colorScheme });
      expect(await faultsOf(page)).toEqual([]);
    }
    expect(await small()).toEqual([]);
    // What can be done with a row lies over nothing that it says.
    const covered = await page.locator("snippet-drawer .row.current").evaluate((row) => {
      const [says, actions] = [".says", ".actions"].map((part) => row.querySelector(part)!);
      return says!.getBoundingClientRect().bottom - actions!.getBoundingClientRect().top;
    });
    expect(covered).toBeLessThan(4);
    // Nothing is wider than the page.
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(360);
  });
});
