import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { defineConfig, type Plugin } from "vite";

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** Serves a hub beside the examples, and tells the example of two devices where it is. */
const hub: Plugin = {
  name: "a hub beside the examples",
  async configurePreviewServer({ middlewares, httpServer }) {
    const [{ serveHub }, { openSqliteHub }] = await Promise.all([
      import("../dist/hub/serve.js"),
      import("../dist/hub/sqlite.js"),
    ]);
    const database = await openSqliteHub(join(mkdtempSync(join(tmpdir(), "drawer-hub-")), "hub.db"));
    const served = await serveHub(database, {
      ...{ port: 0, host: "127.0.0.1", isBehindProxy: false },
      log: () => undefined,
    });
    middlewares.use("/devices/hub.txt", (_, response) => response.end(`http://127.0.0.1:${served.port}`));
    httpServer.on("close", () => void served.close());
  },
};

/** The examples as one site: an index page, and a page for each. */
export default defineConfig({
  root: here("."),
  plugins: [hub],
  publicDir: here("../demo"),
  resolve: {
    alias: [
      { find: /^drawer$/, replacement: here("../dist/index.js") },
      { find: /^drawer\/(files|page|sync)$/, replacement: here("../dist/$1/index.js") },
      { find: /^drawer\/react$/, replacement: here("../dist/page/react.js") },
      { find: /^drawer\/de$/, replacement: here("../dist/messages/de/index.js") },
      { find: /^drawer\/indexeddb$/, replacement: here("../dist/stores/indexeddb/index.js") },
    ],
  },
  build: {
    target: "es2022",
    chunkSizeWarningLimit: 2000,
    rolldownOptions: {
      input: [
        "index.html",
        "bulletin/index.html",
        "ringing/index.html",
        "notes/index.html",
        "anywhere/index.html",
        "devices/index.html",
        "devices/device.html",
      ].map(here),
      // Parts that are loaded with the first page anyway, and later in other places too.
      checks: { ineffectiveDynamicImport: false },
    },
  },
  preview: { port: 4310, strictPort: false },
});
