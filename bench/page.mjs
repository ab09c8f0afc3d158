import { chromium } from "playwright-core";
import { CHROMIUM_FLAGS, findHeadless } from "../scripts/chromium.mjs";
import { servePage } from "../scripts/serve-page.mjs";

const PAGE = `
  import { Drawer } from "./dist/index.js";
  import { piece } from "./bench/pieces.mjs";
  import { openIndexedDb } from "./dist/stores/indexeddb/index.js";
  import { Binding } from "./dist/page/index.js";
  window.begin = async (count) => {
    const drawer = new Drawer(await openIndexedDb("bench"));
    await drawer.setRules({ snippets: null, size: null });
    for (let from = 0; from < count; from += 1000)
      await drawer.collect(Array.from({ length: 1000 }, (_, n) => piece(from + n)));
    window.drawer = drawer;
  };
  window.add = async () => void (await window.drawer.collect([piece(100_001)]));
  window.show = () => {
    const element = document.createElement("snippet-drawer");
    element.style.height = "780px";
    document.body.append(element);
    element.binding = new Binding(window.drawer);
  };
`;

/** The longest frames of the page while a drawer of 100,000 is opened, scrolled and asked for other words. */
export async function run() {
  const served = await servePage(PAGE);
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  const page = await browser.newPage({ viewport: { width: 420, height: 800 } });
  await page.goto(served.address);
  await page.evaluate(() => window.begin(100_000));
  const longest = async (name, deed) => {
    await page.evaluate(() => {
      window.gaps = [];
      let before = performance.now();
      const tick = (now) => {
        window.gaps.push(now - before);
        before = now;
        window.frame = requestAnimationFrame(tick);
      };
      window.frame = requestAnimationFrame(tick);
    });
    await deed();
    await page.waitForTimeout(700);
    const gaps = await page.evaluate(
      () => (cancelAnimationFrame(window.frame), window.gaps.sort((a, b) => b - a)),
    );
    console.log(
      `${name.padEnd(60)} longest frame ${gaps[0].toFixed(0).padStart(4)} ms, then ${gaps[1].toFixed(0).padStart(4)} ms, of ${gaps.length}`,
    );
  };
  console.log("\nA page with 100,000 snippets in one drawer, in Chromium");
  await longest("nothing (what an idle page of this machine does)", async () => {});
  await longest("open", async () => {
    await page.evaluate(() => window.show());
    await page.waitForSelector("snippet-drawer .list .row");
  });
  await longest("scroll through all of it", () =>
    page.evaluate(async () => {
      const run = document.querySelector("snippet-drawer").shadowRoot.querySelector(".list");
      for (let at = 0; at <= 1; at += 0.02) {
        run.scrollTop = run.scrollHeight * at;
        await new Promise(requestAnimationFrame);
      }
    }),
  );
  const find = page.locator("snippet-drawer input[type=search]");
  for (const words of ["wheatear sea", "round 777", "zz", "a"]) {
    await longest(`find “${words}” as one types`, async () => {
      await find.pressSequentially(words, { delay: 60 });
      await page.waitForSelector(`snippet-drawer .found:has-text("“${words}”")`);
    });
    await longest("and no more", () => find.fill(""));
  }
  await longest("collect one", () => page.evaluate(() => window.add()));
  for (const as of ["bullets", "rows", "sentence"]) {
    await longest(`change a word of the sentence to ${as}`, () =>
      page.locator("snippet-drawer .sentence select").nth(1).selectOption(as),
    );
  }
  await browser.close();
  served.close();
}
