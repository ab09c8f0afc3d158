import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** The examples as one site: an index page, and a page for each. */
export default defineConfig({
  root: here("."),
  publicDir: here("../demo"),
  resolve: {
    alias: [
      { find: /^drawer$/, replacement: here("../dist/index.js") },
      { find: /^drawer\/(files|page)$/, replacement: here("../dist/$1/index.js") },
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
      ].map(here),
      // Parts that are loaded with the first page anyway, and later in other places too.
      checks: { ineffectiveDynamicImport: false },
    },
  },
  preview: { port: 4310, strictPort: false },
});
