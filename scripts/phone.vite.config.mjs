import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const here = (path) => fileURLToPath(new URL(path, import.meta.url));

/** The page for the telephone, which a hub serves. */
export default defineConfig({
  root: here("../dist/hub/page"),
  publicDir: here("../dist/hub/page/public"),
  base: "./",
  logLevel: "warn",
  build: {
    outDir: here("../dist/hub/site"),
    emptyOutDir: true,
    target: "es2022",
    // Its policy allows no script but files.
    modulePreload: { polyfill: false },
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 2000,
    rolldownOptions: { checks: { ineffectiveDynamicImport: false } },
  },
});
