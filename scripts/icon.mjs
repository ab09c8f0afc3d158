// Draws the icon of the telephone's page as pixels, for systems that take no SVG: src/hub/page/public/icon.png.
import { readFileSync } from "node:fs";
import { chromium } from "playwright-core";
import { CHROMIUM_FLAGS, findHeadless } from "./chromium.mjs";

const svg = readFileSync("src/window/page/icon.svg", "utf8");
const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
const page = await browser.newPage({ viewport: { width: 512, height: 512 } });
await page.setContent(
  `<style>body { margin: 0; background: #f3f5f0 } svg { width: 400px; margin: 56px }</style>${svg}`,
);
await page.screenshot({ path: "src/hub/page/public/icon.png" });
await browser.close();
