import { readFileSync } from "node:fs";
import type { Page } from "playwright-core";

/** What axe-core says of a fault. */
interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly target: readonly unknown[] }[];
}

/** Rules on how things look; the others are about names, roles and order, which a colour or a size does not change. */
const LOOKS = ["color-contrast", "target-size", "link-in-text-block", "scrollable-region-focusable"];

/** The conditions under which people look at a page; some need only the rules on how things look. */
export const CONDITIONS = {
  "by day": { media: {}, width: 1280, height: 800, looksOnly: false },
  "by night": { media: { colorScheme: "dark" }, width: 1280, height: 800, looksOnly: true },
  "in forced colours": { media: { forcedColors: "active" }, width: 1280, height: 800, looksOnly: true },
  "at 360 pixels": { media: {}, width: 360, height: 700, looksOnly: false },
  // A window of 1280 × 800 in which everything is twice as large.
  "at 200 %": { media: {}, width: 640, height: 400, looksOnly: true },
} as const;

const axe = readFileSync("node_modules/axe-core/axe.min.js", "utf8");

/**
 * What axe-core finds wrong with a page by WCAG 2.2 AA and by good practice, each with where it is. The page's context must bypass its policy.
 * @param looksOnly whether only the rules on how things look are asked
 * @param exclude what is not looked at, by selectors
 */
export async function faultsOf(
  page: Page,
  looksOnly = false,
  exclude: readonly string[] = [],
): Promise<string[]> {
  await page.evaluate(axe);
  const standards = ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa", "best-practice"];
  return page.evaluate(
    async ({ selectors, runOnly }) => {
      const { axe } = window as never as {
        readonly axe: { run(at: object, options: object): Promise<{ violations: readonly Violation[] }> };
      };
      const there = selectors.filter((selector) => document.querySelector(selector));
      const found = await axe.run({ include: ["body"], exclude: there }, { runOnly });
      return found.violations.flatMap(({ id, nodes }) =>
        nodes.map(({ target }) => `${id}: ${target.flat().join(" ")}`),
      );
    },
    { selectors: exclude, runOnly: looksOnly ? LOOKS : standards },
  );
}
