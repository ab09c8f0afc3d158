// Builds src/ into dist/: the library as modules, and the command, with all it loads but the database, as a few files
// in dist/bin/, because a process that reads hundreds of files takes twice as long to begin.
import { execFileSync } from "node:child_process";
import { chmodSync, cpSync, rmSync, writeFileSync } from "node:fs";
import { build } from "esbuild";
import { build as buildPage } from "vite";
import { buildValidator } from "./validator.mjs";

rmSync("dist", { recursive: true, force: true });
execFileSync(process.execPath, ["node_modules/typescript/bin/tsc"], { stdio: "inherit" });
await buildValidator();
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
    },
  },
  outdir: "dist/bin",
  ...{ bundle: true, splitting: true, format: "esm", platform: "node", target: "node20.19" },
  ...{ legalComments: "linked", logLevel: "error" },
  // What is read at each start is a third smaller so.
  minifyWhitespace: true,
  external: ["libsql", "pdfjs-dist", "fast-png", "pg"],
  // What was written for CommonJS looks for `require`.
  banner: {
    js: 'import { createRequire as requireOf } from "node:module"; const require = requireOf(import.meta.url);',
  },
});
cpSync("src/window/page", "dist/window/page", { recursive: true, filter: (path) => !path.endsWith(".ts") });
await buildPage({ configFile: "scripts/window.vite.config.mjs" });
rmSync("dist/cli", { recursive: true });
chmodSync("dist/bin/main.js", 0o755);
writeFileSync("dist/built", "");
