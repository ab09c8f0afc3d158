import { execFileSync, spawn, spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { gzipSync } from "node:zlib";
import { build } from "esbuild";

const folder = mkdtempSync(join(tmpdir(), "drawer-package-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Installs the package as it would be published, beside the dependencies that are here already. */
beforeAll(() => {
  const quiet = {
    stdio: ["ignore", "pipe", "ignore"] as ["ignore", "pipe", "ignore"],
    encoding: "utf8" as const,
  };
  const [packed] = JSON.parse(
    execFileSync("npm", ["pack", "--json", "--ignore-scripts", "--pack-destination", folder], quiet),
  );
  const installed = join(folder, "node_modules", "drawer");
  mkdirSync(installed, { recursive: true });
  execFileSync("tar", ["xzf", join(folder, packed.filename), "-C", installed, "--strip-components=1"]);
  symlinkSync(resolve("node_modules"), join(installed, "node_modules"));
});

test("a plain Node script can use it: read a document, collect, compose, place", () => {
  writeFileSync(
    join(folder, "script.mjs"),
    `
      import { compose, Drawer, MemoryStore } from "drawer";
      import { readSource } from "drawer/files";
      import { openSqlite } from "drawer/sqlite";
      import { readFileSync } from "node:fs";
      const diary = await readSource(readFileSync(${JSON.stringify(resolve("demo/diary.docx"))}), "diary.docx");
      for (const store of [new MemoryStore(), openSqlite(${JSON.stringify(join(folder, "home", "drawers.db"))})]) {
        const drawer = new Drawer(store);
        await drawer.collect(["p8", "p9"].map((at) => ({ ...diary.at(at), origin: { document: diary.name, at } })));
        console.log(compose(await drawer.snippets("2 1"), { as: "bullets" }).markdown);
        await store.close();
      }
    `,
  );
  const out = execFileSync(process.execPath, [join(folder, "script.mjs")], { encoding: "utf8" });
  expect(out).toBe("- Weigh\n- Check rings\n".repeat(2));
});

/** What a bundler puts into a program's first file, and what it leaves for later. */
async function bundle(source: string): Promise<{ inputs: string[]; later: string[] }> {
  const result = await build({
    stdin: { contents: source, resolveDir: folder },
    ...{
      bundle: true,
      splitting: true,
      format: "esm",
      platform: "browser",
      outdir: folder,
      write: false,
      metafile: true,
    },
    logLevel: "silent",
  });
  const outputs = Object.keys(result.metafile.outputs);
  const first = outputs.find((path) => result.metafile.outputs[path]!.entryPoint === "<stdin>")!;
  const reached = new Set<string>();
  const visit = (path: string): void => {
    if (reached.has(path)) return;
    reached.add(path);
    for (const { path: next, kind } of result.metafile.outputs[path]!.imports)
      if (kind === "import-statement") visit(next);
  };
  visit(first);
  const inputsOf = (paths: string[]) =>
    paths.flatMap((path) =>
      Object.entries(result.metafile.outputs[path]!.inputs)
        .filter(([, { bytesInOutput }]) => bytesInOutput > 0)
        .map(([input]) => input),
    );
  return {
    inputs: inputsOf([...reached]),
    later: inputsOf(outputs.filter((path) => !reached.has(path))),
  };
}

test("a bundler can use it; a program that only composes carries neither a database nor a parser", async () => {
  const { inputs, later } = await bundle(
    `import { compose, readText, readHtml } from "drawer"; console.log(compose([readText("a")]).html, readHtml);`,
  );
  const heavy = /libsql|idb|xlsx|xmldom|parse5|css-tree|micromark|papaparse|\/lit\//;
  expect(
    inputs.filter(
      (path) =>
        heavy.test(path) && path.includes("node_modules/") && !/node_modules\/drawer\/dist/.test(path),
    ),
  ).toEqual([]);
  expect(later.some((path) => path.includes("parse5"))).toBe(true);
});

test("a page that is bundled leaves every document parser for when a file needs it", async () => {
  const { inputs } = await bundle(`
    import "drawer/page"; import { openIndexedDb } from "drawer/indexeddb"; import { readSource } from "drawer/files"; console.log(openIndexedDb, readSource);
  `);
  expect(
    inputs.filter((path) =>
      /saxes\/|formats\/(?:docx|odt|xlsx|ods)\/(?:read|write)\.js|xmldom|\/fflate\/|parse5\/dist|css-tree\/lib|micromark\/|papaparse/.test(
        path,
      ),
    ),
  ).toEqual([]);
});

test("a page with the element loads what shows its list, and no more than 61 kB; the rest follows when it is needed", async () => {
  const { outputFiles, metafile } = await build({
    stdin: { contents: `import "drawer/page";`, resolveDir: folder },
    ...{ bundle: true, minify: true, format: "esm", platform: "browser", write: false, metafile: true },
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
  const later =
    /messages\/en\/(?:acts|composer|panels)\.js|places\/putting|composer-view|panel-side|compose\/compose/;
  expect(Object.keys(metafile.inputs).filter((path) => later.test(path))).toEqual([]);
  const { length } = gzipSync(outputFiles[0]!.contents, { level: 9 });
  expect(length).toBeGreaterThan(30_000);
  expect(length).toBeLessThan(61_000);
});

test("an install without a lock file takes only versions that this Node runs, and the command and its window work", async () => {
  const place = mkdtempSync(join(folder, "plain-"));
  writeFileSync(join(place, "package.json"), '{"private":true}');
  const [packed] = readdirSync(folder).filter((name) => name.endsWith(".tgz"));
  const words = [
    "install",
    "--engine-strict",
    "--no-fund",
    "--no-audit",
    "--ignore-scripts",
    join(folder, packed!),
  ];
  execFileSync("npm", words, { cwd: place, stdio: "pipe" });
  const run = (words: readonly string[], input = "") =>
    execFileSync(join(place, "node_modules", ".bin", "drawer"), words, {
      encoding: "utf8",
      input,
      env: { ...process.env, DRAWER_HOME: join(place, "home") },
    });
  expect(run(["collect"], "one")).toBe("Collected as 1: “one”.\n");
  run(["place", "1", "--to", join(place, "one.docx")]);
  expect(run(["look", join(place, "one.docx")])).toMatch(/^p1 +paragraph +one\n$/);
  // The window's page and the sample data are in the package.
  const opened = spawn(join(place, "node_modules", ".bin", "drawer"), ["open", "--no-browser", "--json"], {
    env: { ...process.env, DRAWER_HOME: join(place, "home"), DISPLAY: "", WAYLAND_DISPLAY: "" },
  });
  try {
    const said = await new Promise<string>((told) =>
      opened.stdout.once("data", (text) => told(String(text))),
    );
    const { origin, hash } = new URL((JSON.parse(said) as { address: string }).address);
    const page = await (await fetch(origin)).text();
    const script = /src="\.\/(assets\/[^"]+\.js)"/.exec(page)![1]!;
    expect((await fetch(`${origin}/${script}`)).status).toBe(200);
    const post = (path: string, body: object, token = "") =>
      fetch(origin + path, {
        method: "POST",
        headers: { "content-type": "application/json", authorization: `Bearer ${token}` },
        body: JSON.stringify(body),
      });
    const entered = await post("/enter", { key: hash.slice(1) });
    const filled = await post("/desktop/sample", {}, ((await entered.json()) as { token: string }).token);
    expect(await filled.json()).toEqual({ drawer: "sample" });
    expect(run(["list", "--drawer", "sample"])).toContain("8 snippets in the drawer “sample”.");
  } finally {
    opened.kill();
  }
}, 180_000);

test("where a package was left out, the command that needs it names it, and the others work", () => {
  const bare = mkdtempSync(join(tmpdir(), "drawer-bare-"));
  cpSync(join(folder, "node_modules/drawer/dist"), join(bare, "dist"), { recursive: true });
  cpSync("package.json", join(bare, "package.json"));
  const drawer = (...words: string[]) =>
    spawnSync(process.execPath, [join(bare, "dist/bin/main.js"), ...words], {
      encoding: "utf8",
      env: { ...process.env, DRAWER_HOME: join(bare, "home") },
    });
  const { status, stderr } = drawer("list");
  expect([status, stderr]).toEqual([
    1,
    expect.stringMatching(/^drawer: This needs the package “libsql”.*\n$/),
  ]);
  expect(JSON.parse(drawer("list", "--json").stdout).error.code).toBe("missing-package");
  expect(drawer("look", resolve("demo/costs.csv")).status).toBe(0);
  rmSync(bare, { recursive: true, force: true });
});
