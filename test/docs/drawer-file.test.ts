import { readFileSync } from "node:fs";
import { Ajv2020 } from "ajv/dist/2020";
import fc from "fast-check";
import { contents } from "../support/contents";
import { Drawer, DRAWER_FILE_SCHEMA, MemoryStore, picturesOf, type Content } from "drawer";
import { hashBytes } from "drawer/engine";

const schema = JSON.parse(readFileSync("docs/drawer-file.schema.json", "utf8")) as object;
const ajv = new Ajv2020({ discriminator: true, strict: false });
ajv.addSchema(schema, "file");
const [isHeader, isSnippet] = ["header", "snippet"].map((name) => ajv.getSchema(`file#/$defs/${name}`)!) as [
  ReturnType<typeof ajv.compile>,
  ReturnType<typeof ajv.compile>,
];

async function linesOf(drawer: Drawer): Promise<string[]> {
  const lines: string[] = [];
  for await (const line of drawer.exportFile().lines) lines.push(line);
  return lines;
}

test("the schema in the documents is the one that the code checks by", () => {
  expect(schema).toEqual(JSON.parse(JSON.stringify(DRAWER_FILE_SCHEMA)));
});

test("the examples of the document are such a file", async () => {
  const [header, ...lines] = Array.from(
    readFileSync("docs/drawer-file.md", "utf8").matchAll(/^\{.*\}$/gm),
    ([line]) => line,
  );
  expect([isHeader(JSON.parse(header!)), ...lines.map((line) => isSnippet(JSON.parse(line)))]).toEqual([
    true,
    true,
    true,
  ]);
  const drawer = new Drawer(new MemoryStore());
  expect((await drawer.importFile(() => [header!, ...lines]))[0]!.message).toBe(
    "Imported 2 snippets from “the file” into the drawer “main”.",
  );
});

test("whatever a drawer holds is written as the schema says, and reads back the same", async () => {
  const origin = fc.record(
    { document: fc.string(), at: fc.constant("p3"), address: fc.webUrl() },
    { requiredKeys: [] },
  );
  const snippet = fc.record({
    content: contents,
    origin,
    label: fc.option(fc.string({ minLength: 1, maxLength: 9 }), { nil: undefined }),
    kept: fc.boolean(),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(snippet, { maxLength: 6 }), async (snippets) => {
      const drawer = new Drawer(new MemoryStore());
      await drawer.setRules({ repeats: "allow", blanks: "allow" });
      for (const { content, origin: from, label, kept } of snippets) {
        await drawer.collect([
          {
            content,
            pictures: new Map(),
            notices: [],
            origin: from,
            private: false,
            ...(label !== undefined && { label }),
          },
        ]);
        if (kept) await drawer.keep("last");
      }
      const lines = await linesOf(drawer);
      expect([
        isHeader(JSON.parse(lines[0]!)),
        ...lines.slice(1).map((line) => isSnippet(JSON.parse(line)) || isSnippet.errors),
      ]).toEqual(lines.map(() => true));
      const again = new Drawer(new MemoryStore());
      await again.importFile(() => lines);
      expect((await linesOf(again)).slice(1)).toEqual(lines.slice(1));
    }),
    { numRuns: 60 },
  );
});

test("content that could do harm is no snippet", () => {
  const png = new Uint8Array([1, 2, 3]);
  const run = (marks: object) => [{ type: "paragraph", runs: [{ type: "text", text: "x", marks }] }];
  const line = (content: unknown) => ({ origin: {}, collectedAt: "2031-04-08T06:12:00.000Z", content });
  const picture = { type: "picture", hash: hashBytes(png), mediaType: "image/png", alt: "" };
  expect(isSnippet(line([picture]))).toBe(true);
  expect(picturesOf([picture] as Content)).toHaveLength(1);
  for (const content of [
    run({ link: "javascript:alert(1)" }),
    run({ link: 'https://merrow-spit.example/" onclick="x' }),
    run({ color: "red;background:url(x)" }),
    run({ font: 'x";}' }),
    run({ onclick: "x" }),
    [{ ...picture, mediaType: "text/html" }],
    [{ ...picture, hash: "../../etc/passwd" }],
    [{ type: "code", text: "x", language: '"><script>' }],
    [{ type: "table", headerRows: 0, rows: [[{ flows: [], colspan: 1e9 }]] }],
    [{ type: "html", html: "<script>" }],
    "words",
  ])
    expect(isSnippet(line(content))).toBe(false);
});
