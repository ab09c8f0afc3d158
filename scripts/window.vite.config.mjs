import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const here = (path) => fileURLToPath(new URL(path, import.meta.url));

/** The page of `drawer open`, which the command serves. */
export default defineConfig({
  root: here("../dist/window/page"),
  base: "./",
  logLevel: "warn",
  build: {
    outDir: here("../dist/window/site"),
    emptyOutDir: true,
    target: "es2022",
    // Its policy allows no script but files.
    modulePreload: { polyfill: false },
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 2000,
    rolldownOptions: { checks: { ineffectiveDynamicImport: false } },
  },
});
