import { readFileSync } from "node:fs";
import type { Browser, Page } from "playwright-core";
import { launch, onPages } from "../support/browser";
import { site } from "../support/site";

/** What axe-core says of a fault. */
interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly target: readonly unknown[] }[];
}

/** The conditions under which people look at a page. */
const CONDITIONS = {
  "by day": { media: {}, width: 1280, height: 800 },
  "by night": { media: { colorScheme: "dark" }, width: 1280, height: 800 },
  "in forced colours": { media: { forcedColors: "active" }, width: 1280, height: 800 },
  "at 360 pixels": { media: {}, width: 360, height: 700 },
  // A window of 1280 × 800 in which everything is twice as large.
  "at 200 %": { media: {}, width: 640, height: 400 },
} as const;

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
  const axe = readFileSync("node_modules/axe-core/axe.min.js", "utf8");
  beforeAll(async () => {
    served = await site("");
    browser = await launch();
  }, 180_000);
  afterAll(async () => {
    await browser?.close();
    served?.close();
  });

  const violations = async (page: Page) =>
    page.evaluate(async (exclude) => {
      const { axe } = window as never as {
        readonly axe: { run(at: object, options: object): Promise<{ violations: readonly Violation[] }> };
      };
      const there = exclude.filter((selector) => document.querySelector(selector));
      const runOnly = ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"];
      const found = await axe.run({ include: ["body"], exclude: there }, { runOnly });
      return found.violations.flatMap(({ id, nodes }) =>
        nodes.map(({ target }) => `${id}: ${target.flat().join(" ")}`),
      );
    }, OTHERS);

  test.each(["ringing", "notes", "anywhere"])(
    "axe finds nothing in %s, however one looks at it",
    async (example) => {
      for (const [condition, { media, width, height }] of Object.entries(CONDITIONS)) {
        const context = await browser.newContext({ viewport: { width, height }, bypassCSP: true });
        const page = await context.newPage();
        await page.emulateMedia(media);
        await page.goto(`${served.address}${example}/`);
        await page.waitForFunction(() => document.querySelector("snippet-drawer")?.binding !== undefined);
        if (example === "anywhere") await page.waitForSelector("body[data-ready]");
        const html = "<p>Seen <b>wren</b></p><table><tr><td>Wing</td><td>61</td></tr></table>";
        await page.evaluate(
          (given) => document.querySelector("snippet-drawer")!.binding!.collect({ html: given }),
          html,
        );
        await page.waitForSelector("snippet-drawer .says", { state: "attached" });
        await page.evaluate(axe);
        const found = await violations(page);
        const panes = page.locator("#panes >> text=Drawer");
        if (await panes.isVisible()) {
          await panes.click();
          found.push(...(await violations(page)));
        }
        // Nothing is cut off, and everything can be brought into sight.
        const reached = await page.evaluate(() => {
          const root = document.querySelector("snippet-drawer")!.shadowRoot!;
          const parts = [
            ".ways input",
            ".sentence select:last-of-type",
            ".told button",
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
