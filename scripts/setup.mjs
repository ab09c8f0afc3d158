// Gets this checkout ready to run: dependencies, the build, and with --browser a Chromium for the tests of pages.
// Does only what is missing, so it costs next to nothing when everything is there.
import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { findChromium } from "./chromium.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
process.chdir(root);

const [major, minor] = process.versions.node.split(".").map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`Drawer needs Node 20.19 or later; this is ${process.versions.node}.`);
  process.exit(1);
}

const modified = (path) => (existsSync(path) ? statSync(path).mtimeMs : 0);
const newest = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .reduce((latest, entry) => Math.max(latest, modified(join(entry.parentPath, entry.name))), 0);

const run = (command, words) =>
  execFileSync(command, words, { stdio: ["ignore", 2, 2], shell: process.platform === "win32" });

if (modified("node_modules/.package-lock.json") < modified("package-lock.json")) {
  console.error("Installing dependencies…");
  run("npm", ["ci", "--no-fund", "--no-audit", "--loglevel=error"]);
}
if (
  modified("dist/built") < Math.max(newest("src"), modified("tsconfig.json"), modified("scripts/build.mjs"))
) {
  console.error("Building…");
  run(process.execPath, ["scripts/build.mjs"]);
}
if (process.argv.includes("--browser") && !findChromium()) {
  const mayInstall =
    process.platform === "linux" &&
    process.getuid?.() === 0 &&
    spawnSync("apt-get", ["--version"]).status === 0;
  if (mayInstall) {
    console.error("Installing Chromium for the tests of pages…");
    run("apt-get", ["update", "-qq"]);
    run("apt-get", ["install", "-y", "-qq", "--no-install-recommends", "chromium"]);
  } else
    console.error(
      "No Chromium found: the tests of pages will be skipped. Install it, or name one in DRAWER_CHROMIUM.",
    );
}
