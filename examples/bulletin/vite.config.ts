import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const dist = (path: string) => fileURLToPath(new URL(`../../dist/${path}`, import.meta.url));

export default defineConfig({
  publicDir: fileURLToPath(new URL("../../demo", import.meta.url)),
  resolve: {
    alias: [
      { find: /^drawer$/, replacement: dist("index.js") },
      { find: /^drawer\/(files|page)$/, replacement: dist("$1/index.js") },
      { find: /^drawer\/indexeddb$/, replacement: dist("stores/indexeddb/index.js") },
    ],
  },
  build: { target: "es2022", chunkSizeWarningLimit: 1000 },
  preview: { port: 4310, strictPort: false },
});
