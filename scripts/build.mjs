// Builds src/ into dist/: the library as modules, and the command, with all it loads but the database, as a few files
// in dist/bin/, because a process that reads hundreds of files takes twice as long to begin.
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { chmodSync, cpSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join, relative } from "node:path";
import { build, transformSync } from "esbuild";
import { build as buildPage } from "vite";
import { pageConfig } from "./page-config.mjs";
import { buildValidator } from "./validator.mjs";

rmSync("dist", { recursive: true, force: true });
execFileSync(process.execPath, ["node_modules/typescript-native/bin/tsc"], { stdio: "inherit" });
await buildValidator();
minifyStyles("dist/page/element");
// What editors of code, and other tools, know of the element.
execFileSync(
  process.execPath,
  [
    "node_modules/@custom-elements-manifest/analyzer/cem.js",
    ...["analyze", "--quiet", "--config", "scripts/manifest.config.mjs"],
  ],
  { stdio: "inherit" },
);
await build({
  // The programs that hold a block on the clipboard, and deal there, are started by the command, and stand beside it.
  entryPoints: {
    ...{
      main: "dist/cli/main.js",
      holder: "dist/desktop/jobs/holder.js",
      dealer: "dist/desktop/jobs/dealer.js",
      // The thread that reads a PDF.
      "pdf-worker": "dist/formats/pdf/node/pdf-worker.js",
      // The thread in which packages read that do not bound themselves.
      "file-worker": "dist/formats/thread/node/file-worker.js",
    },
  },
  outdir: "dist/bin",
  ...{ bundle: true, splitting: true, format: "esm", platform: "node", target: "node20.19" },
  ...{ legalComments: "linked", logLevel: "error" },
  // What is read at each start is a third smaller so.
  minifyWhitespace: true,
  external: [
    "libsql",
    "pdfjs-dist",
    "fast-png",
    "pg",
    "@e965/xlsx",
    "word-extractor",
    "ical.js",
    "@kenjiuno/*",
  ],
  // What was written for CommonJS looks for `require`.
  banner: {
    js: 'import { createRequire as requireOf } from "node:module"; const require = requireOf(import.meta.url);',
  },
});
for (const page of ["window", "hub"]) {
  const assets = { recursive: true, filter: (path) => !path.endsWith(".ts") };
  cpSync(`src/${page}/page`, `dist/${page}/page`, assets);
}
cpSync("src/window/page/icon.svg", "dist/hub/page/public/icon.svg");
for (const room of ["window", "hub"]) await buildPage(pageConfig(room));
await buildWorker();
rmSync("dist/cli", { recursive: true });
chmodSync("dist/bin/main.js", 0o755);
writeFileSync("dist/built", "");

/** Writes the style sheets of elements without what only their readers need: no minifier of scripts looks into them. */
function minifyStyles(folder) {
  for (const file of readdirSync(folder, { recursive: true }).filter((name) => name.endsWith("-styles.js"))) {
    const path = join(folder, file);
    const script = readFileSync(path, "utf8");
    const [all, styles] = /css `([^`\\$]*)`/.exec(script) ?? [];
    if (styles === undefined) throw new Error(`No style sheet, or one that is put together: ${path}`);
    const { code, warnings } = transformSync(styles, { loader: "css", minify: true });
    if (warnings.length > 0) throw new Error(`${path}: ${warnings[0].text}`);
    const minified = `css \`${code.trim().replaceAll("\\", "\\\\")}\``;
    writeFileSync(
      path,
      script.replace(all, () => minified),
    );
  }
}

/** The service worker of the page that a hub serves; it knows the files of that page, each with what its bytes come to. */
async function buildWorker() {
  const site = "dist/hub/site";
  const files = readdirSync(site, { recursive: true, withFileTypes: true }).filter((entry) => entry.isFile());
  const entries = files.map(({ parentPath, name }) => {
    const path = join(parentPath, name);
    const revision = createHash("sha256").update(readFileSync(path)).digest("hex").slice(0, 16);
    return { url: relative(site, path).replaceAll("\\", "/"), revision };
  });
  await build({
    entryPoints: ["dist/hub/page/worker.js"],
    outfile: join(site, "worker.js"),
    ...{
      bundle: true,
      minify: true,
      format: "iife",
      platform: "browser",
      target: "es2022",
      logLevel: "error",
    },
    define: { FILES: JSON.stringify(entries), "process.env.NODE_ENV": '"production"' },
  });
}
