import { gzipSync } from "node:zlib";
import { build } from "esbuild";

/** What an application takes of Drawer, in one import each. */
const TAKEN = {
  "Lit alone (the library that the element is drawn with)": `export { html, LitElement } from "lit"`,
  "compose alone": `export { compose } from "./dist/index.js"`,
  "core: read, collect, compose, in memory": `export { readHtml, readText, compose, Drawer, MemoryStore } from "./dist/index.js"`,
  "page without the element (drawer/binding)": `export { Binding, openPageDrawer } from "./dist/page/headless.js"`,
  "page with element and IndexedDB (drawer/page)": `export * from "./dist/page/index.js"`,
  "German (drawer/de)": `export { de } from "./dist/messages/de/index.js"`,
};

/** How much a page loads at once, minified and packed with gzip: what is loaded on first use is not counted. */
export async function run() {
  console.log("\nWeight, minified, gzip -9; what is loaded on first use is left out");
  let baseline;
  for (const [name, contents] of Object.entries(TAKEN)) {
    const { outputFiles } = await build({
      stdin: { contents, resolveDir: "." },
      ...{ bundle: true, format: "esm", minify: true, write: false, logLevel: "error", platform: "browser" },
      plugins: [
        {
          name: "on first use",
          setup: ({ onResolve }) =>
            onResolve({ filter: /.*/ }, ({ kind, path }) =>
              kind === "dynamic-import" ? { path, external: true } : undefined,
            ),
        },
      ],
    });
    const bytes = gzipSync(outputFiles[0].contents, { level: 9 }).length;
    baseline ??= bytes;
    console.log(
      `${name.padEnd(60)} ${(bytes / 1000).toFixed(1).padStart(7)} kB   × ${(bytes / baseline).toFixed(2)} of Lit`,
    );
  }
}
