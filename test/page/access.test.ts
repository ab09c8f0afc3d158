import type { Browser } from "playwright-core";
import { CONDITIONS, faultsOf } from "../support/axe";
import { launch, onPages } from "../support/browser";
import { some } from "../support/counts";
import { site } from "../support/site";

/** Of *anywhere*, the editors and grids of others are not looked at: their faults are their own. */
const OTHERS = [
  "#quill",
  "#tabulator",
  "#aggrid",
  "#handsontable",
  "#ckeditor",
  "#codemirror",
  "#lexical",
  "#slate",
];

onPages("the examples for everybody", () => {
  let browser: Browser;
  let served: Awaited<ReturnType<typeof site>>;
  beforeAll(async () => {
    served = await site("");
    browser = await launch();
  }, 180_000);
  afterAll(async () => {
    await browser?.close();
    served?.close();
  });

  test.each(["ringing", "notes", "anywhere"])(
    "axe finds nothing in %s, however one looks at it",
    async (example) => {
      const isEnough = ([, { looksOnly }]: [string, { looksOnly: boolean }]) =>
        example === "notes" || !looksOnly;
      for (const [condition, { media, width, height, looksOnly }] of some(
        Object.entries(CONDITIONS),
        isEnough,
      )) {
        const context = await browser.newContext({ viewport: { width, height }, bypassCSP: true });
        const page = await context.newPage();
        await page.emulateMedia(media);
        await page.goto(`${served.address}${example}/`);
        await page.waitForFunction(() => document.querySelector("snippet-drawer")?.binding !== undefined);
        await page.evaluate(() => document.querySelector("snippet-drawer")!.setAttribute("unfolded", ""));
        if (example === "anywhere") await page.waitForSelector("body[data-ready]");
        const html = "<p>Seen <b>wren</b></p><table><tr><td>Wing</td><td>61</td></tr></table>";
        await page.evaluate(
          (given) => document.querySelector("snippet-drawer")!.binding!.collect({ html: given }),
          html,
        );
        await page.waitForSelector("snippet-drawer .says", { state: "attached" });
        const found = await faultsOf(page, looksOnly, OTHERS);
        const panes = page.locator("#panes >> text=Drawer");
        if (await panes.isVisible()) {
          await panes.click();
          found.push(...(await faultsOf(page, looksOnly, OTHERS)));
        }
        // Nothing is cut off, and everything can be brought into sight.
        const reached = await page.evaluate(() => {
          const root = document.querySelector("snippet-drawer")!.shadowRoot!;
          const parts = [
            ".ways input",
            ".sentence select:last-of-type",
            ".notice button",
            ".go",
            ".acts select",
          ];
          return parts.filter((part) => {
            const element = root.querySelector(part)!;
            element.scrollIntoView({ block: "nearest" });
            const box = element.getBoundingClientRect();
            const at = document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2);
            const inner = root.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2);
            return (
              at?.localName !== "snippet-drawer" || !(element.contains(inner) || inner?.contains(element))
            );
          });
        });
        const isWider = await page.evaluate(() => document.documentElement.scrollWidth > innerWidth);
        expect([condition, found, reached, isWider]).toEqual([condition, [], [], false]);
        await context.close();
      }
    },
  );
});
