import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build } from "esbuild";
import type { Browser, Page } from "playwright-core";
import { launch, onPages } from "../support/browser";
import { commandHome } from "../support/command";
import { startHub, type HubProcess } from "../support/hub";
import { serve } from "../support/site";

/** What a page of somebody's own does with its drawers: joins, exchanges, and lists them. */
const PAGE = `
  import { Drawer, readText } from "drawer";
  import { openIndexedDb } from "drawer/indexeddb";
  import { readSecrets, SyncClient, writeSecrets } from "drawer/sync";
  const keeper = {
    read: async () => readSecrets(localStorage.getItem("device") ?? ""),
    write: async (secrets) => localStorage.setItem("device", secrets ? writeSecrets(secrets) : ""),
  };
  globalThis.ready = openIndexedDb("page").then((store) => {
    const client = new SyncClient(store, keeper);
    const drawer = new Drawer(store, "main");
    globalThis.join = (invitation) => client.join(invitation, { name: "page" });
    globalThis.exchange = async () => (await client.exchange()).notices.map(({ message }) => message);
    globalThis.collect = (text) => drawer.collect([{ ...readText(text), origin: { title: "A page" } }]);
    globalThis.discard = (pick) => drawer.discard(pick);
    globalThis.texts = async () => {
      const read = await drawer.read(await drawer.list());
      return read.map(({ entry, pictures }) => entry.text.slice(0, 40) + (pictures.size > 0 ? " [picture]" : ""));
    };
  });
`;

onPages("a page that shares its drawers with other devices", () => {
  const desk = commandHome();
  const folder = mkdtempSync(join(tmpdir(), "drawer-page-"));
  let hub: HubProcess;
  let browser: Browser;
  let page: Page;
  let address: string;
  let close: () => void;
  beforeAll(async () => {
    writeFileSync(join(folder, "index.html"), `<!doctype html><script type="module" src="page.js"></script>`);
    await build({
      stdin: { contents: PAGE, resolveDir: process.cwd() },
      ...{ bundle: true, format: "esm", outfile: join(folder, "page.js") },
    });
    ({ address, close } = await serve(folder));
    hub = await startHub(["--port", "0", "--data", join(folder, "hub")]);
    browser = await launch();
    page = await browser.newPage();
  });
  afterAll(async () => {
    await browser.close();
    close();
    await hub.stop();
    rmSync(folder, { recursive: true, force: true });
  });

  const ask = <Result>(name: string, ...args: unknown[]): Promise<Result> =>
    page.evaluate(
      async ([name, args]) => {
        const all = globalThis as unknown as Record<string, (...args: unknown[]) => unknown>;
        await all["ready"];
        return all[name]!(...args);
      },
      [name, args] as const,
    ) as Promise<Result>;

  test("joins from its own origin, holds the same over IndexedDB, and goes on after it was loaded again", async () => {
    await desk.all("collect demo/diary.docx demo/sketches/wheatear.png");
    const words = `devices invite --json --hub ${hub.address} --name desk`;
    const { invitation } = JSON.parse(await desk.all(words)) as { invitation: string };
    await page.goto(address);
    await ask("collect", "Collected in a page");
    await ask("join", invitation);
    await ask("exchange");
    await desk.all("sync");
    const there = (await desk.snippets()).map(({ beginning }) => beginning.slice(0, 40));
    expect(await ask("texts")).toEqual(
      there.map((text) => (text.startsWith("wheatear") ? `${text} [picture]` : text)),
    );
    expect(there).toContain("Collected in a page");
    await page.reload();
    await ask("discard", String(there.indexOf("Collected in a page") + 1));
    expect((await ask<string[]>("exchange")).join()).toContain("1 change went out");
    await desk.all("sync");
    expect((await desk.snippets()).map(({ beginning }) => beginning)).not.toContain("Collected in a page");
  });
});
