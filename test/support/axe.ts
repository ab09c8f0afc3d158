import { readFileSync } from "node:fs";
import type { Page } from "playwright-core";

/** What axe-core says of a fault. */
interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly target: readonly unknown[] }[];
}

/** The conditions under which people look at a page. */
export const CONDITIONS = {
  "by day": { media: {}, width: 1280, height: 800 },
  "by night": { media: { colorScheme: "dark" }, width: 1280, height: 800 },
  "in forced colours": { media: { forcedColors: "active" }, width: 1280, height: 800 },
  "at 360 pixels": { media: {}, width: 360, height: 700 },
  // A window of 1280 × 800 in which everything is twice as large.
  "at 200 %": { media: {}, width: 640, height: 400 },
} as const;

const axe = readFileSync("node_modules/axe-core/axe.min.js", "utf8");

/**
 * What axe-core finds wrong with a page by WCAG 2.2 AA and by good practice, each with where it is. The page's context must bypass its policy.
 * @param exclude what is not looked at, by selectors
 */
export async function faultsOf(page: Page, exclude: readonly string[] = []): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async (selectors) => {
    const { axe } = window as never as {
      readonly axe: { run(at: object, options: object): Promise<{ violations: readonly Violation[] }> };
    };
    const there = selectors.filter((selector) => document.querySelector(selector));
    const runOnly = ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa", "best-practice"];
    const found = await axe.run({ include: ["body"], exclude: there }, { runOnly });
    return found.violations.flatMap(({ id, nodes }) =>
      nodes.map(({ target }) => `${id}: ${target.flat().join(" ")}`),
    );
  }, exclude);
}
