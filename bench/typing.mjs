import { chromium } from "playwright-core";
import { CHROMIUM_FLAGS, findHeadless } from "../scripts/chromium.mjs";
import { servePage } from "../scripts/serve-page.mjs";

const COUNT = 10_000;
const WORDS = "sea wall";

const PAGE = `
  import { Drawer } from "./dist/index.js";
  import { piece } from "./bench/pieces.mjs";
  import { openIndexedDb } from "./dist/stores/indexeddb/index.js";
  import { Binding } from "./dist/page/index.js";
  let added = ${COUNT};
  window.begin = async () => {
    const drawer = new Drawer(await openIndexedDb("typing"));
    await drawer.setRules({ snippets: null, size: null });
    for (let from = 0; from < ${COUNT}; from += 1000)
      await drawer.collect(Array.from({ length: 1000 }, (_, n) => piece(from + n)));
    window.drawer = drawer;
  };
  window.showDrawer = () => {
    const element = document.createElement("snippet-drawer");
    element.style.height = "780px";
    document.body.replaceChildren(element);
    element.binding = new Binding(window.drawer);
  };
  const rowOf = (turn) => {
    const row = document.createElement("li");
    const buttons = ["Keep", "Label", "Hide", "Discard"].map((name) => "<button>" + name + "</button>").join("");
    row.innerHTML = "Round " + turn + " of the nets: first wheatear on the seawall, wind south-east, the tide an hour past low" + buttons;
    return row;
  };
  window.showRows = () => {
    document.body.innerHTML = '<input type="search"><ol style="height: 700px; overflow: auto"></ol>';
    const rows = document.querySelector("ol");
    document.querySelector("input").addEventListener("input", () =>
      setTimeout(() => rows.replaceChildren(...Array.from({ length: 12 }, () => rowOf(Math.random())))),
    );
  };
  window.collectOne = async () => void (await window.drawer.collect([piece(added++)]));
  window.addRow = () => void document.querySelector("ol").append(rowOf(added++));
`;

/**
 * What a page's main thread does (scripts, layout, painting) for each key while one finds, and for a snippet that is collected,
 * against what the browser needs to show as many plain rows of the page's own.
 */
export async function run() {
  const served = await servePage(PAGE);
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  const page = await browser.newPage({ viewport: { width: 420, height: 800 } });
  const devtools = await page.context().newCDPSession(page);
  // The time that the thread worked: what else the machine does is left out.
  await devtools.send("Performance.enable", { timeDomain: "threadTicks" });
  const busy = async () => {
    const { metrics } = await devtools.send("Performance.getMetrics");
    return metrics.find(({ name }) => name === "TaskDuration").value * 1000;
  };
  const median = async (turns, deed) => {
    const times = [];
    for (const turn of turns) {
      const before = await busy();
      await deed(turn);
      await page.waitForTimeout(180);
      times.push((await busy()) - before);
    }
    return times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
  };
  const typed = async () => {
    const find = page.locator("input[type=search]");
    await find.focus();
    const warm = () => find.pressSequentially(WORDS, { delay: 100 });
    const clear = async () => void (await find.fill(""), await page.waitForTimeout(600));
    await warm();
    await clear();
    return median([...WORDS], (key) => page.keyboard.press(key === " " ? "Space" : key));
  };
  const print = (name, ours, baseline) =>
    console.log(
      `${name.padEnd(60)} ${ours.toFixed(1).padStart(6)} ms ${baseline.toFixed(1).padStart(6)} ms   × ${(ours / baseline).toFixed(2)}`,
    );
  await page.goto(served.address);
  await page.evaluate(() => window.begin());
  await page.evaluate(() => window.showRows());
  const rows = await typed();
  const row = await median(Array(9), () => page.evaluate(() => window.addRow()));
  await page.evaluate(() => window.showDrawer());
  await page.locator("snippet-drawer .snippet").first().waitFor();
  await page.waitForTimeout(2000);
  console.log(
    `\nThe main thread of a page with ${COUNT.toLocaleString("en")} snippets, against plain rows of its own`,
  );
  print("a key while finding, against twelve rows drawn anew", await typed(), rows);
  await page.locator("input[type=search]").fill("");
  await page.waitForTimeout(600);
  print(
    "collecting one, against a row that is added",
    await median(Array(9), () => page.evaluate(() => window.collectOne())),
    row,
  );
  await browser.close();
  served.close();
}
