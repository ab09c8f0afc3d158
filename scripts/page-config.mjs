import { fileURLToPath } from "node:url";

const here = (path) => fileURLToPath(new URL(path, import.meta.url));

/** How Vite builds a page that a command serves: that of a room, `window` or `hub`, into the folder `site` beside it. */
export const pageConfig = (room) => ({
  configFile: false,
  root: here(`../dist/${room}/page`),
  base: "./",
  logLevel: "warn",
  build: {
    outDir: here(`../dist/${room}/site`),
    emptyOutDir: true,
    target: "es2022",
    // Its policy allows no script but files.
    modulePreload: { polyfill: false },
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 2000,
    rolldownOptions: {
      checks: { ineffectiveDynamicImport: false },
      // What is needed at once comes in one file: some fifty small ones took a third of a second.
      output: { codeSplitting: { groups: [{ name: "start", tags: ["$initial"] }] } },
    },
  },
});
