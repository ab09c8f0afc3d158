import { chromium } from "playwright-core";
import { CHROMIUM_FLAGS, findHeadless } from "../scripts/chromium.mjs";
import { servePage } from "../scripts/serve-page.mjs";

const PAGE = `
  import { Drawer, readText } from "./dist/index.js";
  import { openIndexedDb } from "./dist/stores/indexeddb/index.js";
  window.open_ = (async () => {
    const drawer = new Drawer(await openIndexedDb("faults"));
    drawer.watch(() => (window.heard = performance.timeOrigin + performance.now()));
    return (window.drawer = drawer);
  })();
  window.collect = async (text) => {
    await window.drawer.collect([{ ...readText(text), origin: {} }]);
    return performance.timeOrigin + performance.now();
  };
  window.refusal = (text) => window.collect(text).then(() => undefined, (error) => error.name + ": " + error.message);
  window.texts = async () => (await window.drawer.list()).map(({ entry }) => entry.text);
`;

/** Two tabs on one drawer; a tab that is closed while it collects; a browser that has no more room. */
export async function tabs({ each = 20 } = {}) {
  const served = await servePage(PAGE);
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  try {
    const context = await browser.newContext();
    const tab = async () => {
      const page = await context.newPage();
      await page.goto(served.address);
      await page.evaluate(() => window.open_.then(() => undefined));
      return page;
    };
    const [one, two] = [await tab(), await tab()];
    const heard = await hearEachOther(one, two, each);
    const closed = await closeWhileCollecting(await tab(), one);
    const quota = await runOutOfRoom(context, served.address);
    return {
      passed: heard.passed && closed.passed && quota.passed,
      said: ["in a browser", heard.said, closed.said, quota.said].join("\n  "),
    };
  } finally {
    await browser.close();
    served.close();
  }
}

async function hearEachOther(one, two, each) {
  const times = [];
  for (let n = 0; n < each; n++) {
    const [from, to] = n % 2 ? [two, one] : [one, two];
    await to.evaluate(() => void (window.heard = undefined));
    const done = await from.evaluate((text) => window.collect(text), `tab ${n}`);
    await to.waitForFunction(() => window.heard !== undefined, undefined, { timeout: 5000 });
    times.push((await to.evaluate(() => window.heard)) - done);
  }
  const same =
    (await one.evaluate(() => window.texts())).join() === (await two.evaluate(() => window.texts())).join();
  const longest = Math.max(...times);
  return {
    passed: same && longest < 1000,
    said: `two tabs: each heard of the other's ${each} changes within ${Math.max(0, longest).toFixed(0)} ms, and shows the same`,
  };
}

async function closeWhileCollecting(tab, other) {
  const acknowledged = [];
  await tab.exposeFunction("acknowledge", (text) => void acknowledged.push(text));
  await tab.evaluate(() => {
    void (async () => {
      for (let n = 0; ; n++) {
        await window.collect(`closing ${n}`);
        await window.acknowledge(`closing ${n}`);
      }
    })();
  });
  while (acknowledged.length < 20) await other.waitForTimeout(5);
  await tab.close();
  const there = new Set(await other.evaluate(() => window.texts()));
  const lost = acknowledged.filter((text) => !there.has(text)).length;
  return {
    passed: lost === 0,
    said: `a tab closed while it collects: ${acknowledged.length} acknowledged, ${lost} lost`,
  };
}

/** A browser asks for its room now and then only, so the limit is set before anything is there. */
async function runOutOfRoom(context, address) {
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  const origin = address.replace("127.0.0.1", "localhost");
  await session.send("Storage.overrideQuotaForOrigin", { origin, quotaSize: 1_000_000 });
  await page.goto(origin);
  await page.evaluate(() => window.open_.then(() => undefined));
  let taken = 0;
  let refusal;
  for (; refusal === undefined && taken < 100; taken += refusal === undefined ? 1 : 0) {
    refusal = await page.evaluate((text) => window.refusal(text), `${taken} ${randomText()}`);
  }
  await session.send("Storage.overrideQuotaForOrigin", { origin });
  const again = await page.evaluate(() => window.refusal("and on"));
  const after = (await page.evaluate(() => window.texts())).length;
  return {
    passed:
      /^DrawerError: Nothing was changed, and nothing is lost: this browser has no more room/.test(
        refusal ?? "",
      ) &&
      again === undefined &&
      after === taken + 1,
    said: `no more room after ${taken}: “${refusal}” — ${after - 1} there, collecting works again after`,
  };
}

/** Text that no store can make smaller. */
function randomText() {
  return Array.from({ length: 6000 }, () => Math.random().toString(36).slice(2, 9)).join(" ");
}
