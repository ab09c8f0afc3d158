import { existsSync } from "node:fs";
import puppeteer, { type Browser } from "puppeteer-core";

export const FIREFOX = "/usr/bin/firefox-esr";

export const hasFirefox = existsSync(FIREFOX);
if (!hasFirefox) console.log("Skipped: what is tried in Firefox, because it is not on this machine.");

/** Starts Firefox. */
export function launchFirefox(): Promise<Browser> {
  return puppeteer.launch({ browser: "firefox", executablePath: FIREFOX, headless: true });
}
