// Runs the tests: all of them, or those that are named (`npm test -- test/cli`); with --changed those that what has been
// changed since the last commit touches; with --full as many histories, kills and samples as the docs tell figures of.
// What begins with a dash otherwise goes to Jest.
import { execFileSync, spawnSync } from "node:child_process";
import { readdirSync } from "node:fs";

const run = (...words) => spawnSync(process.execPath, words, { stdio: "inherit" }).status ?? 1;

if (run("scripts/setup.mjs", "--test") !== 0) process.exit(1);

const given = process.argv.slice(2);
const words = given.filter((word) => word !== "--changed" && word !== "--full");
const named = given.includes("--changed") ? touched() : [];
if (given.includes("--changed") && named.length === 0) {
  console.log("Nothing has been changed that a test would see.");
  process.exit(0);
}
if (given.includes("--full")) process.env.DRAWER_TESTS = "full";
// A test waits more than it works, for a browser, an office program or a clipboard: two cores take four suites at once.
const node = ["--experimental-vm-modules", "--disable-warning=ExperimentalWarning"];
process.exit(run(...node, "node_modules/jest/bin/jest.js", "--maxWorkers=4", ...named, ...words));

/** The folders of tests that what has been changed touches: those of its room, and of the rooms that stand on it. */
function touched() {
  const git = (...asked) => execFileSync("git", asked, { encoding: "utf8" }).split("\n").filter(Boolean);
  const files = [...git("diff", "--name-only", "HEAD"), ...git("ls-files", "-o", "--exclude-standard")];
  const ABOVE = {
    messages: ["messages", "docs", "content", "compose", "drawer", "cli", "page", "window"],
    content: ["content", "compose", "files", "drawer", "docs", "office", "page", "cli"],
    formats: ["content", "files", "office", "compose", "docs", "page", "cli"],
    compose: ["compose", "docs", "drawer", "cli", "page"],
    drawer: ["drawer", "stores", "docs", "faults", "cli", "desktop", "page", "window"],
    stores: ["stores", "drawer", "faults", "cli", "window"],
    files: ["files", "office", "cli"],
    desktop: ["desktop", "window"],
    page: ["page", "window", "package"],
    window: ["window"],
    cli: ["cli", "docs", "desktop", "window"],
    faults: ["faults"],
    examples: ["page"],
    docs: ["docs"],
  };
  const all = readdirSync("test", { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() && entry.name !== "support" ? [entry.name] : [],
  );
  const folders = new Set();
  for (const file of files) {
    const [top, second = ""] = file.split("/");
    const wanted =
      top === "src"
        ? (ABOVE[second] ?? all)
        : top === "test"
          ? second === "support"
            ? all
            : [second]
          : (ABOVE[top] ?? (/^(?:package|jest|tsconfig|scripts)/.test(top) ? all : []));
    for (const folder of wanted) folders.add(folder);
  }
  return [...folders].filter((folder) => all.includes(folder)).map((folder) => `test/${folder}/`);
}
