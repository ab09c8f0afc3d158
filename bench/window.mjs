import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { chromium } from "playwright-core";
import { Drawer } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { CHROMIUM_FLAGS, findHeadless } from "../scripts/chromium.mjs";
import { piece } from "./pieces.mjs";

const COUNT = 10_000;
const TURNS = 20;

/** Watches a page: the longest task in a frame, and when its list is there. */
const WATCH = () => {
  const tasks = [];
  new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe(
    {
      type: "longtask",
      buffered: true,
    },
  );
  const listAt = new Promise((settle) => {
    const look = () => {
      if (document.querySelector("snippet-drawer")?.shadowRoot.querySelector(".says"))
        settle(performance.timeOrigin + performance.now());
      else requestAnimationFrame(look);
    };
    look();
  });
  Object.assign(window, { tasks, listAt });
};

/** The window over a home with many snippets: its frames, and how soon it shows what another process collects. */
export async function run() {
  const home = mkdtempSync(join(tmpdir(), "drawer-bench-"));
  const store = openSqlite(join(home, "drawers.db"));
  const drawer = new Drawer(store);
  await drawer.setRules({ snippets: null, size: null });
  for (let from = 0; from < COUNT; from += 1000)
    await drawer.collect(Array.from({ length: 1000 }, (_, n) => piece(from + n)));
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(WATCH);
  const bareBegan = performance.now();
  spawnSync(process.execPath, ["-e", "0"]);
  await page.goto("about:blank");
  const bare = performance.now() - bareBegan;
  const opened = performance.now();
  const served = spawn(process.execPath, [resolve("dist/bin/main.js"), "open", "--no-browser", "--json"], {
    env: { ...process.env, DRAWER_HOME: home, DISPLAY: "", WAYLAND_DISPLAY: "" },
  });
  const { address } = JSON.parse(
    await new Promise((said) => served.stdout.once("data", (text) => said(String(text)))),
  );
  try {
    await page.goto(address);
    await page.locator("snippet-drawer .says").first().waitFor();
    const ready = (await page.evaluate(() => window.listAt)) - performance.timeOrigin - opened;
    await page.waitForTimeout(2000);
    console.log(`\nThe window over ${COUNT.toLocaleString("en")} snippets, Chromium`);
    console.log(
      `  ${"from the command until its list is there, in a browser that runs".padEnd(62)} ${ready.toFixed(0).padStart(6)} ms   × ${(ready / bare).toFixed(1)} of node -e 0 and an empty page (${bare.toFixed(0)} ms)`,
    );
    const begin = await longest(page);
    print("longest task while it opens", begin);

    for (let turn = 0; turn < 60; turn++) {
      await page
        .locator("snippet-drawer .list")
        .evaluate((run, at) => (run.scrollTop = (run.scrollHeight * at) / 60), turn);
      await page.waitForTimeout(40);
    }
    print("longest task while it is scrolled from the first to the last", await longest(page));

    const find = page.locator("snippet-drawer input[type=search]");
    await find.focus();
    await page.keyboard.type("wheatear", { delay: 120 });
    await page.waitForTimeout(600);
    print("longest task while words are typed to find", await longest(page));
    await find.fill("");
    // What comes is drawn where one looks at the end.
    await page.locator("snippet-drawer .list").evaluate((list) => (list.scrollTop = list.scrollHeight));
    await page.waitForTimeout(600);
    await longest(page);

    const [shown, written] = [[], []];
    for (let turn = 0; turn < TURNS; turn++) {
      const words = `Seen from another process ${turn}`;
      await page.evaluate(drawnAt, words);
      const began = performance.now();
      await drawer.collect([{ ...piece(COUNT + turn), ...textOf(words) }]);
      written.push(performance.now() - began);
      // Both clocks count from the same moment on one machine.
      shown.push((await page.evaluate(() => window.drawn)) - performance.timeOrigin - began);
    }
    print("longest task while another process collects", await longest(page));
    const [ours, baseline] = [median(shown), median(written)];
    console.log(
      `  ${"collected by another process until it is drawn".padEnd(62)} ${ours.toFixed(0).padStart(6)} ms   × ${(ours / baseline).toFixed(1)} of the collecting itself (${baseline.toFixed(0)} ms)`,
    );
  } finally {
    await browser.close();
    served.kill();
    await store.close();
    rmSync(home, { recursive: true, force: true });
  }
}

/** Notes in the page when words are in its list, in milliseconds since 1970: from outside it would be seen later. */
const drawnAt = (words) => {
  const root = document.querySelector("snippet-drawer").shadowRoot;
  window.drawn = new Promise((settle) => {
    const observer = new MutationObserver(() => {
      if (![...root.querySelectorAll(".says")].some(({ textContent }) => textContent.includes(words))) return;
      observer.disconnect();
      requestAnimationFrame(() => settle(performance.timeOrigin + performance.now()));
    });
    observer.observe(root, { subtree: true, childList: true, characterData: true });
  });
};
const textOf = (text) => ({ content: [{ type: "paragraph", runs: [{ type: "text", text, marks: {} }] }] });
const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];
/** A frame of a screen with 60 of them in a second, in milliseconds. */
const FRAME = 1000 / 60;
const print = (name, ms) =>
  console.log(
    `  ${name.padEnd(62)} ${ms === 0 ? " < 50" : ms.toFixed(0).padStart(5)} ms   × ${(ms / FRAME).toFixed(1)} of a frame`,
  );
/** The longest task since it was asked for last; 0 when none took 50 ms. */
const longest = (page) => page.evaluate(() => Math.max(0, ...window.tasks.splice(0)));
