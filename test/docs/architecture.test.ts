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
    export const shelves: Layout = {
      lay: (pieces) => withoutNotices(pieces.flatMap(({ content }) => [paragraph("__"), ...content])),
      isTable: false, between: "none", renamesColumns: false,
    };
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
    import { actNotices } from "../../messages/en/acts.js";
    import type { Operation } from "../transaction.js";
    /** A toy. */
    export const reverse: Operation<[], Notice[]> = {
      name: "reverse",
      async plan({ store, drawer }) {
        const all = await store.entries({ drawer });
        const orders = all.map(({ entry }) => entry.order).reverse();
        const edits = all.map(({ entry }, at) => ({ id: entry.id, before: entry, after: { ...entry, order: orders[at]! } }));
        return { edits, result: [notice(actNotices, "reversed", { count: all.length })] };
      },
    };
  `,
};
type Touch = readonly [file: string, before: string, line: string];
const TOUCHED: readonly Touch[] = [
  ["src/compose/layouts/index.ts", "import { sentence }", 'import { shelves } from "./shelves.js";\n'],
  ["src/compose/layouts/index.ts", "  sequence,", "  shelves,\n"],
  ["src/messages/en/composer.ts", "    sequence:", '    shelves: "shelves",\n'],
  ["src/messages/de/composer.ts", "      sequence:", '      shelves: "als Bretter",\n'],
  ["src/formats/registry.ts", "import { csv", 'import { count } from "./count/index.js";\n'],
  ["src/formats/registry.ts", "  markdown,\n", "  count,\n"],
  ["src/drawer/operations/index.ts", "export { append }", 'export { reverse } from "./reverse.js";\n'],
  [
    "src/drawer/drawer.ts",
    "  /**\n   * Collects all of these",
    '  /** Toy. */\n  reverse(): Promise<Notice[]> {\n    return this.#perform("reverse");\n  }\n\n',
  ],
  ["src/messages/en/operations.ts", "  collect:", '  reverse: "turning round",\n'],
  ["src/messages/de/operations.ts", "  collect:", '  reverse: "Umdrehen von",\n'],
  [
    "src/messages/en/acts.ts",
    "  /** A snippet was collected, at",
    "  /** Toy. */\n  reversed: ({ count }: { count: number }) => `Turned ${count} round.`,\n",
  ],
  ["src/messages/de/acts.ts", "  collected: (", '  reversed: () => "Umgedreht.",\n'],
];

/** A new type of flow, and something new that an item holds. */
const MODEL: readonly Touch[] = [
  ["src/content/model.ts", "Code | Divider;", "Aside | "],
  [
    "src/content/model.ts",
    "/** A line across the page. */",
    'export interface Aside { readonly type: "aside"; readonly flows: Content }\n',
  ],
  ["src/content/model.ts", "  readonly flows: Content;\n}\n\n/** A table.", "  readonly tick?: boolean;\n"],
];

beforeAll(() => {
  for (const file of ["src", "scripts", "package.json", "tsconfig.json"])
    cpSync(file, join(copy, file), { recursive: true });
  symlinkSync(resolve("node_modules"), join(copy, "node_modules"));
});

const node = (...words: string[]) => spawnSync(process.execPath, words, { cwd: copy, encoding: "utf8" });

/** Puts a line into a file of the copy, before what it names. */
function touch([file, before, line]: Touch): void {
  const source = readFileSync(join(copy, file), "utf8");
  expect([file, source.includes(before)]).toEqual([file, true]);
  writeFileSync(join(copy, file), source.replace(before, line + before));
}

/** The files that docs/architecture.md says have to know of a type of flow. */
function namedInDocs(): string[] {
  const table = readFileSync("docs/architecture.md", "utf8").split("what it says of a type of flow")[1]!;
  return [...table.split("\n\n")[0]!.matchAll(/`(\S+?\.ts)`/g)].map(([, file]) => file!).sort();
}

test("what is added by the touches that docs/architecture.md names compiles and works; a type of flow that is forgotten does not compile in just the files that it names", () => {
  for (const [file, source] of Object.entries(NEW)) {
    mkdirSync(dirname(join(copy, file)), { recursive: true });
    writeFileSync(join(copy, file), source);
  }
  for (const touched of [...TOUCHED, ...MODEL]) touch(touched);
  const { stdout: refusals } = node("node_modules/typescript-native/bin/tsc");
  const refused = [...refusals.matchAll(/^src\/(\S+?)\(\d+,\d+\): error/gm)].map(([, file]) => file);
  expect([...new Set(refused)].sort()).toEqual(namedInDocs());
  // The new flow is to all what a quote is. What was refused stands there in JavaScript all the same.
  for (const file of namedInDocs()) {
    const path = join(copy, "dist", file.replace(/\.ts$/, ".js"));
    const source = readFileSync(path, "utf8");
    const known = source
      .replaceAll(/^( *)case "quote":/gm, '$1case "aside":\n$1case "quote":')
      .replace("quote: [{ flows }]", "quote: [{ flows }],\n      aside: [{ flows }]");
    expect([file, known !== source]).toEqual([file, true]);
    writeFileSync(path, known);
  }
  const { stdout, stderr } = node(
    "--input-type=module",
    "--eval",
    `
      import { compose, Drawer, MemoryStore, paragraph, readText } from "./dist/index.js";
      import { mapContent } from "./dist/formats/index.js";
      import { mapLastLine } from "./dist/content/traverse.js";
      import { flowsOf, Leaves } from "./dist/files/parts.js";
      const drawer = new Drawer(new MemoryStore());
      await drawer.collect(["one", "two"].map((text) => ({ ...readText(text), origin: {} })));
      const [told] = await drawer.reverse();
      const [undone] = await drawer.undo();
      const block = compose(await drawer.snippets("all"), { as: "shelves" });
      console.log(JSON.stringify([told.message, undone.message, block.text, (await block.to("count")).data]));

      const item = { flows: [paragraph("close the nets")], tick: true };
      const list = { type: "list", ordered: false, items: [item] };
      const ticks = (content) => JSON.stringify(content).split('"tick":true').length - 1;
      const kept = new Drawer(new MemoryStore());
      await kept.collect([{ content: [list, { type: "aside", flows: [paragraph("tide")] }], pictures: new Map(), notices: [], origin: {} }]);
      const [snippet] = await kept.snippets("1");
      const longer = { ...snippet, content: [...snippet.content, paragraph("ebb")] };
      const made = ["own", "host", "bare"].map((style) => compose([snippet, longer], { style, tidy: ["edges", "lines", "spaces", "repeats"] }).content);
      console.log(JSON.stringify([
        ticks(snippet.content),
        made.map(ticks),
        ticks(mapContent([list], { runs: (runs) => runs })),
        ticks(mapLastLine([list], (runs) => runs)),
        ticks(new Leaves(flowsOf({ content: [list, paragraph("x")], pictures: new Map() })).at("p1", "x")),
        compose([snippet], { style: "host" }).text,
        (await compose([snippet]).to("docx")).data.length > 1000,
      ]));
    `,
  );
  const [toys, content] = stdout.trim().split("\n");
  expect([toys, stderr]).toEqual([
    JSON.stringify(["Turned 2 round.", "Undone: turning round “one”, “two”.", "__\none\n__\ntwo", "4\n"]),
    "",
  ]);
  expect(JSON.parse(content!)).toEqual([1, [2, 2, 2], 1, 1, 1, "- close the nets\ntide", true]);
});
