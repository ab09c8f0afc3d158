import { existsSync } from "node:fs";

const PLACES = [
  process.env.DRAWER_CHROMIUM,
  "/usr/bin/chromium",
  "/usr/bin/chromium-browser",
  "/usr/bin/google-chrome",
  "/Applications/Chromium.app/Contents/MacOS/Chromium",
  "/Applications/Google Chrome.app/Contents/MacOS/Google Chrome",
];

/** The path of a Chromium on this machine; nothing when there is none. `DRAWER_CHROMIUM` names one. */
export function findChromium() {
  return PLACES.find((path) => path && existsSync(path));
}

const SHELLS = ["/usr/bin/chromium-headless-shell", "/usr/bin/chrome-headless-shell"];

/** The path of a Chromium that shows nothing: one that was made for that takes half the work; nothing when there is none. */
export function findHeadless() {
  return process.env.DRAWER_CHROMIUM || SHELLS.find((path) => existsSync(path)) || findChromium();
}

/** How Chromium is started for tests and pictures: no network of its own, no sandbox as root. */
export const CHROMIUM_FLAGS = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];
