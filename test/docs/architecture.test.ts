import { spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";

const copy = mkdtempSync(join(tmpdir(), "drawer-toys-"));
afterAll(() => rmSync(copy, { recursive: true, force: true }));

/** Files that are added, and lines that are put into files that are there: before or after what they name. */
const NEW: Readonly<Record<string, string>> = {
  "src/compose/layouts/shelves.ts": `
    import { paragraph } from "../../content/model.js";
    import { withoutNotices, type Layout } from "../layout.js";
    /** A toy. */
    export const shelves: Layout = (pieces) => withoutNotices(pieces.flatMap(({ content }) => [paragraph("__"), ...content]));
  `,
  "src/formats/count/index.ts": `
    import { asLines, type Format } from "../format.js";
    /** A toy. */
    export const count: Format = {
      extensions: ["count"], mediaType: "text/plain", isBinary: false, holds: "lines",
      write: async ({ content }) => asLines(String(content.length)),
    };
  `,
  "src/drawer/operations/reverse.ts": `
    import { notice, type Notice } from "../../content/notice.js";
    import { drawerNotices } from "../../messages/en/notices/drawer.js";
    import type { Operation } from "../transaction.js";
    /** A toy. */
    export const reverse: Operation<[], Notice[]> = {
      name: "reverse",
      async plan({ store, drawer }) {
        const all = await store.entries({ drawer });
        const orders = all.map(({ entry }) => entry.order).reverse();
        const edits = all.map(({ entry }, at) => ({ id: entry.id, before: entry, after: { ...entry, order: orders[at]! } }));
        return { edits, result: [notice(drawerNotices, "reversed", { count: all.length })] };
      },
    };
  `,
};
const TOUCHED: readonly (readonly [file: string, before: string, line: string])[] = [
  ["src/compose/compose.ts", "import { styled }", 'import { shelves } from "./layouts/shelves.js";\n'],
  ["src/compose/compose.ts", "  sequence,", "  shelves,\n"],
  ["src/compose/recipe.ts", '  "sequence",', '  "shelves",\n'],
  ["src/messages/en/page.ts", "    sequence:", '    shelves: "shelves",\n'],
  ["src/messages/de/page.ts", "      sequence:", '      shelves: "als Bretter",\n'],
  ["src/formats/registry.ts", "import { csv", 'import { count } from "./count/index.js";\n'],
  ["src/formats/registry.ts", "text, markdown,", "count, "],
  ["src/drawer/operations/index.ts", "import { append }", 'import { reverse } from "./reverse.js";\n'],
  ["src/drawer/operations/index.ts", "  collect,", "  reverse,\n"],
  ["src/messages/en/operations.ts", "  collect:", '  reverse: "turning round",\n'],
  ["src/messages/de/phrases.ts", "  collect:", '  reverse: "Umdrehen von",\n'],
  [
    "src/messages/en/notices/drawer.ts",
    "  /** A snippet was collected, at",
    "  /** Toy. */\n  reversed: ({ count }: { count: number }) => `Turned ${count} round.`,\n",
  ],
];

beforeAll(() => {
  for (const file of ["src", "scripts", "package.json", "tsconfig.json"])
    cpSync(file, join(copy, file), { recursive: true });
  symlinkSync(resolve("node_modules"), join(copy, "node_modules"));
});

const node = (...words: string[]) => spawnSync(process.execPath, words, { cwd: copy, encoding: "utf8" });

/** Puts a line into a file of the copy, before what it names. */
function touch(file: string, before: string, line: string): void {
  const source = readFileSync(join(copy, file), "utf8");
  expect(source).toContain(before);
  writeFileSync(join(copy, file), source.replace(before, line + before));
}

test("a type of flow that is forgotten does not compile in just the files that docs/architecture.md names", () => {
  const model = readFileSync("src/content/model.ts", "utf8");
  touch("src/content/model.ts", "Code | Divider;", "Aside | ");
  touch(
    "src/content/model.ts",
    "/** A line across the page. */",
    'interface Aside { type: "aside"; flows: Content }\n',
  );
  const { stdout } = node("node_modules/typescript/bin/tsc", "--noEmit");
  writeFileSync(join(copy, "src/content/model.ts"), model);
  const refused = [...stdout.matchAll(/^src\/(\S+?)\(\d+,\d+\): error/gm)].map(([, file]) => file);
  const table = readFileSync("docs/architecture.md", "utf8").split("what it says of a type of flow")[1]!;
  const named = [...table.split("\n\n")[0]!.matchAll(/`(\S+?\.ts)`/g)].map(([, file]) => file);
  expect([...new Set(refused)].sort()).toEqual(named.sort());
});

test("a layout, a format and an operation are added by the touches that docs/architecture.md names", () => {
  for (const [file, source] of Object.entries(NEW)) {
    mkdirSync(dirname(join(copy, file)), { recursive: true });
    writeFileSync(join(copy, file), source);
  }
  for (const touched of TOUCHED) touch(...touched);
  expect(node("node_modules/typescript/bin/tsc").stdout).toBe("");
  const { stdout, stderr } = node(
    "--input-type=module",
    "--eval",
    `
      import { compose, Drawer, MemoryStore, readText } from "./dist/index.js";
      const drawer = new Drawer(new MemoryStore());
      await drawer.collect(["one", "two"].map((text) => ({ ...readText(text), origin: {} })));
      const [told] = await drawer.reverse();
      const [undone] = await drawer.undo();
      const block = compose(await drawer.snippets("all"), { as: "shelves" });
      console.log(JSON.stringify([told.message, undone.message, block.text, (await block.to("count")).data]));
    `,
  );
  expect([stdout.trim(), stderr]).toEqual([
    JSON.stringify(["Turned 2 round.", "Undone: turning round “one”, “two”.", "__\none\n__\ntwo", "4\n"]),
    "",
  ]);
});
