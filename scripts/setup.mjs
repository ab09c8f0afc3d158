// Gets this checkout ready to run: dependencies, the build, and with --test the programs that tests need.
// Does only what is missing, so it costs next to nothing when everything is there.
import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { findChromium } from "./chromium.mjs";
import { postgresPrograms } from "./postgres.mjs";
import { findOdfSchema, OOXML_VALIDATOR, PYTHON } from "./office.mjs";

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
if (process.argv.includes("--test")) {
  run(process.execPath, ["scripts/examples.mjs"]);
  const onPath = (program) => spawnSync("which", [program]).status === 0;
  const missing = [
    ...(findChromium() ? [] : ["chromium"]),
    // One that shows nothing, for tests of pages.
    ...(process.platform !== "linux" || process.env.DRAWER_CHROMIUM || onPath("chromium-headless-shell")
      ? []
      : ["chromium-headless-shell"]),
    ...(process.platform !== "linux" || onPath("firefox-esr") ? [] : ["firefox-esr"]),
    // Those that a desktop is made of, and that stand on the other side of its clipboard: see test/desktop.
    ...(process.platform !== "linux"
      ? []
      : Object.entries({
          ...{ Xvfb: "xvfb", xclip: "xclip", xsel: "xsel", openbox: "openbox", xdotool: "xdotool" },
          ...{ xterm: "xterm", dunst: "dunst", "dbus-daemon": "dbus-daemon" },
          // A screen reader, whose words are read from its log.
          ...{ orca: "orca" },
          ...{ sway: "sway", "wl-copy": "wl-clipboard", WebKitWebDriver: "webkit2gtk-driver" },
        }).flatMap(([program, name]) => (onPath(program) ? [] : [name]))),
    ...(process.platform !== "linux" || existsSync("/usr/libexec/at-spi-bus-launcher")
      ? []
      : ["at-spi2-core"]),
    ...(process.platform !== "linux" || onPath("soffice")
      ? []
      : ["libreoffice-writer", "libreoffice-calc", "libreoffice-math"]),
    ...(process.platform !== "linux" || existsSync("/usr/lib/libreoffice/share/registry/impress.xcd")
      ? []
      : ["libreoffice-impress"]),
    // Those that make and judge documents (test/office), and a database for hubs (test/hub).
    ...(process.platform !== "linux"
      ? []
      : [
          ...(existsSync("/usr/share/fonts/truetype/liberation") ? [] : ["fonts-liberation"]),
          ...(existsSync("/usr/share/fonts/truetype/vlgothic") ? [] : ["fonts-vlgothic"]),
          ...(onPath("pandoc") ? [] : ["pandoc"]),
          ...(onPath("pdftotext") ? [] : ["poppler-utils"]),
          // Those that set texts as pages.
          ...Object.entries({ weasyprint: "weasyprint", gropdf: "groff", qpdf: "qpdf" }).flatMap(
            ([program, name]) => (onPath(program) ? [] : [name]),
          ),
          ...(postgresPrograms() ? [] : ["postgresql"]),
          ...(onPath("jing") ? [] : ["jing", "default-jre-headless"]),
          ...(findOdfSchema() ? [] : ["emacs-common"]),
          ...(onPath("msgconvert") ? [] : ["libemail-outlook-message-perl"]),
          // It needs this one, which is not installed with it.
          ...(spawnSync("perl", ["-MEmail::Address", "-e", "1"]).status === 0
            ? []
            : ["libemail-address-perl"]),
          ...["docx", "openpyxl", "odf", "uno", "vobject"]
            .filter((module) => spawnSync(PYTHON, ["-c", `import ${module}`]).status !== 0)
            .map((module) => `python3-${module}`),
        ]),
  ];
  if (process.platform === "linux" && process.arch === "x64" && !existsSync(OOXML_VALIDATOR.path)) {
    console.error("Installing the validator of Open XML…");
    mkdirSync(OOXML_VALIDATOR.folder, { recursive: true });
    const { package: name, folder } = OOXML_VALIDATOR;
    run("npm", [
      "install",
      "--no-save",
      "--no-fund",
      "--no-audit",
      "--loglevel=error",
      "--prefix",
      folder,
      name,
    ]);
  }
  const mayInstall = process.platform === "linux" && process.getuid?.() === 0 && onPath("apt-get");
  if (missing.length > 0 && mayInstall) {
    console.error(`Installing what tests need: ${missing.join(", ")}…`);
    run("apt-get", ["update", "-qq"]);
    run("apt-get", ["install", "-y", "-qq", "--no-install-recommends", ...missing]);
  } else if (missing.length > 0) {
    console.error(
      `Not on this machine, so some tests will be skipped: ${missing.join(", ")}. DRAWER_CHROMIUM may name a Chromium.`,
    );
  }
}
