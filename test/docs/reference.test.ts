import { spawnSync } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { readEndings } from "../../dist/formats/registry.js";

test("the reference is made of all entry points, without a warning (`npm run docs`)", () => {
  const { entryPoints } = JSON.parse(readFileSync("typedoc.json", "utf8")) as { entryPoints: string[] };
  const { exports } = JSON.parse(readFileSync("package.json", "utf8")) as {
    exports: Record<string, { types: string }>;
  };
  const sources = Object.values(exports).flatMap(({ types }) =>
    types === undefined ? [] : [types.replace("./dist/", "src/").replace(".d.ts", ".ts")],
  );
  expect(entryPoints.sort()).toEqual(sources.sort());
  // What is wanting is told before the pages are written.
  const words = [
    "node_modules/typedoc/bin/typedoc",
    "--emit",
    "none",
    "--logLevel",
    "Warn",
    "--skipErrorChecking",
  ];
  const { status, stdout, stderr } = spawnSync(process.execPath, words, { encoding: "utf8" });
  expect([status, stdout, stderr]).toEqual([0, "", ""]);
}, 180_000);

test("the README names the endings of all files that are read", () => {
  expect(readFileSync("README.md", "utf8").replace(/\s+/g, " ")).toContain(`by endings: ${readEndings()}.`);
});

test("the links of the documents lead to files that ship beside them", () => {
  const { files } = JSON.parse(readFileSync("package.json", "utf8")) as { files: string[] };
  const shipped = (path: string) =>
    ["README.md", "LICENSE"].includes(path) ||
    files.some((pattern) =>
      pattern.includes("*")
        ? new RegExp(`^${pattern.replace(/\./g, "\\.").replace("*", "[^/]*")}$`).test(path)
        : path === pattern || path.startsWith(`${pattern}/`),
    );
  const pages = [
    "README.md",
    ...readdirSync("docs").flatMap((name) => (name.endsWith(".md") ? [`docs/${name}`] : [])),
  ];
  const dead = pages.flatMap((page) =>
    [...readFileSync(page, "utf8").matchAll(/\]\((?!https?:|mailto:|#)([^)#\s]+)/g)]
      .map(([, target]) => join(dirname(page), target!))
      .filter((path) => !shipped(path))
      .map((path) => `${page}: ${path}`),
  );
  expect(dead).toEqual([]);
});
